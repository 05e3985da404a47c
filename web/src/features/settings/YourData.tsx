import { Alert, Button, FileButton, Group, Progress, Select, Text } from '@mantine/core'
import { IconArrowBackUp, IconDeviceFloppy, IconFolderOpen } from '@tabler/icons-react'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { download } from '../../ui/saveAs.ts'
import { asBefore, putBack, restore, type Before, type OnShare } from '../../state/backup.ts'
import { BackupFileError, everythingPacked, openBackup, type OpenedBackup } from '../../state/backupFile.ts'
import { BACKUP_DAYS, setPrefs, usePrefs } from '../../state/prefs.ts'
import { say } from '../../texts/say.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { DailyBackups } from './DailyBackups.tsx'
import { RestoreDialog } from './RestoreDialog.tsx'

/** What is being done, and how far it is. */
interface Work {
  readonly what: 'saving' | 'opening' | 'bringing'
  readonly share: number
}

type Outcome = { readonly kind: 'done' | 'failed'; readonly text: string }

/** Everything that this browser keeps, out as one file and in again; what the app keeps by itself, and when it asks for a file. */
export function YourData() {
  const { t } = useTranslation()
  const { backup: kept } = usePrefs()
  const forgetFile = useRef<() => void>(null)
  const [found, setFound] = useState<OpenedBackup>()
  const [work, setWork] = useState<Work>()
  const [before, setBefore] = useState<Before>()
  const [outcome, setOutcome] = useState<Outcome>()
  const failed = (error: unknown) => setOutcome({ kind: 'failed', text: errorWords(t, error) })
  /** Does what takes long on a large shelf, and shows how far it is. */
  const doing = async (what: Work['what'], work: (onShare: OnShare) => Promise<void>) => {
    setOutcome(undefined)
    setWork({ what, share: 0 })
    try {
      await work((share) => setWork({ what, share }))
    } catch (error) {
      failed(error)
    } finally {
      setWork(undefined)
    }
  }
  const save = () =>
    doing('saving', async (onShare) => {
      const { name, bytes } = await everythingPacked(true, onShare)
      download(name, new Blob([bytes], { type: 'application/zip' }))
      setPrefs({ backup: { ...kept, savedAt: Date.now() } })
      setOutcome({ kind: 'done', text: t('data.saved', { name }) })
    })
  const look = (file: Blob, name: string) => {
    setBefore(undefined)
    return doing('opening', async (onShare) => {
      try {
        setFound(await openBackup(file, onShare))
      } catch (error) {
        if (!(error instanceof BackupFileError)) throw error
        const { says } = error
        throw new Error(says ? `${name}: ${say(t, says)}` : t('data.notJson', { name }), { cause: error })
      }
    })
  }
  const bring = ({ backup, recordings }: OpenedBackup, how: 'add' | 'replace') => {
    setFound(undefined)
    return doing('bringing', async (onShare) => {
      const earlier = await asBefore((share) => onShare(share / 2))
      const { added, kept: stayed } = await restore(backup, how, recordings, (share) =>
        onShare((1 + share) / 2),
      )
      setBefore(earlier)
      setOutcome({
        kind: 'done',
        text: stayed > 0 ? t('data.addedKept', { added, kept: stayed }) : t('data.added', { count: added }),
      })
    })
  }
  const takeBack = (earlier: Before) => {
    setBefore(undefined)
    return doing('bringing', async (onShare) => {
      await putBack(earlier, onShare)
      setOutcome({ kind: 'done', text: t('data.takenBack') })
    })
  }
  return (
    <section data-testid="your-data">
      <h2>{t('data.title')}</h2>
      <p className="soft">{t('data.hint')}</p>
      <Group gap="sm" align="end">
        <Button
          leftSection={<IconDeviceFloppy size={18} />}
          disabled={work !== undefined}
          onClick={() => void save()}
        >
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
            <Button
              {...props}
              variant="default"
              disabled={work !== undefined}
              leftSection={<IconFolderOpen size={18} />}
            >
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
      {work ? <WorkLine {...work} /> : null}
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

function WorkLine({ what, share }: Work) {
  const { t } = useTranslation()
  const text = t(`data.work.${what}`, { percent: Math.round(100 * share) })
  return (
    <div data-testid="data-work">
      <Text size="sm" mt="sm">
        {text}
      </Text>
      <Progress value={100 * share} aria-label={text} />
    </div>
  )
}
