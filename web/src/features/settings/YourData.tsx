import { Alert, Button, FileButton, Group, Select, Text } from '@mantine/core'
import type { Backup } from '@velvet-porch/core/schema'
import { IconArrowBackUp, IconDeviceFloppy, IconFolderOpen } from '@tabler/icons-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { download } from '../../ui/saveAs.ts'
import { asBefore, everythingPacked, putBack, restore, type Before } from '../../state/backup.ts'
import { TABLES_VERSION, type RecordingRow } from '../../state/db.ts'
import { recordingRow } from '../../state/recordings.ts'
import { BACKUP_DAYS, setPrefs, usePrefs } from '../../state/prefs.ts'
import { say } from '../../texts/say.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { DailyBackups } from './DailyBackups.tsx'
import { RestoreDialog } from './RestoreDialog.tsx'

/** A file that was opened. */
interface Found {
  readonly backup: Backup
  readonly recordings: readonly RecordingRow[]
}

type Outcome = { readonly kind: 'done' | 'failed'; readonly text: string }

/** Everything that this browser keeps, out as one file and in again; what the app keeps by itself, and when it asks for a file. */
export function YourData() {
  const { t } = useTranslation()
  const { backup: kept } = usePrefs()
  const forgetFile = useRef<() => void>(null)
  const [found, setFound] = useState<Found>()
  const [before, setBefore] = useState<Before>()
  const [outcome, setOutcome] = useState<Outcome>()
  const failed = (error: unknown) => setOutcome({ kind: 'failed', text: errorWords(t, error) })
  const save = async () => {
    try {
      const { name, bytes } = await everythingPacked(true)
      download(name, new Blob([bytes], { type: 'application/zip' }))
      setPrefs({ backup: { ...kept, savedAt: Date.now() } })
      setOutcome({ kind: 'done', text: t('data.saved', { name }) })
    } catch (error) {
      failed(error)
    }
  }
  const look = async (file: Blob, name: string) => {
    setOutcome(undefined)
    setBefore(undefined)
    try {
      const { readBackup } = await import('@velvet-porch/core/schema')
      const { backupInZip, recordingsInZip, ShelfZipError } = await import('@velvet-porch/core/formats')
      const { isZip } = await import('@velvet-porch/core/input/any')
      const bytes = new Uint8Array(await file.arrayBuffer())
      let value: unknown
      let recordings: RecordingRow[] = []
      try {
        value = JSON.parse(isZip(bytes) ? backupInZip(bytes) : new TextDecoder().decode(bytes))
        if (isZip(bytes)) recordings = recordingsInZip(bytes).map(recordingRow)
      } catch (error) {
        const said =
          error instanceof ShelfZipError ? `${name}: ${say(t, error.says)}` : t('data.notJson', { name })
        throw new Error(said, { cause: error })
      }
      setFound({ backup: readBackup(value, TABLES_VERSION), recordings })
    } catch (error) {
      failed(error)
    }
  }
  const bring = async ({ backup, recordings }: Found, how: 'add' | 'replace') => {
    setFound(undefined)
    try {
      const earlier = await asBefore()
      const { added, kept: stayed } = await restore(backup, how, recordings)
      setBefore(earlier)
      setOutcome({
        kind: 'done',
        text: stayed > 0 ? t('data.addedKept', { added, kept: stayed }) : t('data.added', { count: added }),
      })
    } catch (error) {
      failed(error)
    }
  }
  const takeBack = async (earlier: Before) => {
    setBefore(undefined)
    try {
      await putBack(earlier)
      setOutcome({ kind: 'done', text: t('data.takenBack') })
    } catch (error) {
      failed(error)
    }
  }
  return (
    <section data-testid="your-data">
      <h2>{t('data.title')}</h2>
      <p className="soft">{t('data.hint')}</p>
      <Group gap="sm" align="end">
        <Button leftSection={<IconDeviceFloppy size={18} />} onClick={() => void save()}>
          {t('data.save')}
        </Button>
        <FileButton
          accept=".zip,.json,application/zip,application/json"
          resetRef={forgetFile}
          onChange={(file) => {
            // The same file may be chosen once more.
            forgetFile.current?.()
            if (file) void look(file, file.name)
          }}
        >
          {(props) => (
            <Button {...props} variant="default" leftSection={<IconFolderOpen size={18} />}>
              {t('data.open')}
            </Button>
          )}
        </FileButton>
        <Select
          w={190}
          label={t('data.remind')}
          allowDeselect={false}
          value={String(kept.everyDays)}
          data={BACKUP_DAYS.map((d) => ({
            value: String(d),
            label: d === 0 ? t('data.never') : t('data.everyDays', { count: d }),
          }))}
          onChange={(value) => {
            const everyDays = BACKUP_DAYS.find((d) => String(d) === value)
            if (everyDays !== undefined) setPrefs({ backup: { ...kept, everyDays } })
          }}
        />
      </Group>
      <Text size="sm" c="dimmed" mt="xs">
        {kept.savedAt > 0
          ? t('data.savedOn', { date: new Date(kept.savedAt).toISOString().slice(0, 10) })
          : t('data.neverSaved')}
      </Text>
      {outcome ? (
        <Alert mt="sm" color={outcome.kind === 'done' ? 'plum' : 'red'} role="status">
          {outcome.text}
          {before && outcome.kind === 'done' ? (
            <Button
              ml="sm"
              size="compact-sm"
              variant="default"
              leftSection={<IconArrowBackUp size={16} />}
              onClick={() => void takeBack(before)}
            >
              {t('data.takeBack')}
            </Button>
          ) : null}
        </Alert>
      ) : null}
      <DailyBackups onBring={(bytes, day) => void look(new Blob([bytes]), day)} />
      {found ? (
        <RestoreDialog
          backup={found.backup}
          recordings={found.recordings.length}
          onClose={() => setFound(undefined)}
          onBring={(how) => void bring(found, how)}
        />
      ) : null}
    </section>
  )
}
