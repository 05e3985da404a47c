import { Alert, Button, FileButton, Group, Select, TextInput } from '@mantine/core'
import { IconDeviceFloppy, IconFolderOpen, IconPlus, IconTrash } from '@tabler/icons-react'
import { newTaste, type TasteDoc } from '@velvet-porch/core/taste'
import { useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { newId } from '../../newId.ts'
import {
  changeTaste,
  dropTaste,
  keepTaste,
  takeTaste,
  useActiveTaste,
  useTastes,
} from '../../state/tastes.ts'
import { saveAs } from '../../ui/saveAs.ts'
import { errorWords } from '../../workers/errorWords.ts'
import { AddEntry } from './AddEntry.tsx'
import { Entries } from './Entries.tsx'
import { Learned } from './Learned.tsx'

/** The house's taste in the list of tastes. */
const HOUSE = ''

/** How the teacher plays: what is kept of it, where it comes from, on or off; more than one, as files too. */
export function TastePage() {
  const { t } = useTranslation()
  const tastes = useTastes()
  const taste = useActiveTaste()
  return (
    <div className="reference">
      <h1>{t('taste.title')}</h1>
      <p className="soft">{t('taste.intro')}</p>
      <Group gap="sm" align="end">
        <Select
          w={260}
          label={t('taste.inUse')}
          allowDeselect={false}
          value={taste?.id ?? HOUSE}
          data={[
            { value: HOUSE, label: t('taste.house') },
            ...tastes.map(({ id, name }) => ({ value: id, label: name })),
          ]}
          onChange={(id) => takeTaste(id === HOUSE || id === null ? undefined : id)}
        />
        <Button
          variant="default"
          leftSection={<IconPlus size={16} />}
          onClick={() => {
            const doc = newTaste(newId(), t('taste.newName', { n: tastes.length + 1 }))
            void keepTaste(doc).then(() => takeTaste(doc.id))
          }}
        >
          {t('taste.new')}
        </Button>
        <OpenTaste />
      </Group>
      {taste ? <OneTaste key={taste.id} taste={taste} /> : null}
    </div>
  )
}

function OneTaste({ taste }: { taste: TasteDoc }) {
  const { t } = useTranslation()
  return (
    <>
      <Group gap="sm" align="end" mt="md">
        <TextInput
          w={260}
          label={t('taste.name')}
          maxLength={200}
          defaultValue={taste.name}
          onBlur={(e) => {
            const name = e.currentTarget.value.trim()
            if (name !== '' && name !== taste.name) void changeTaste(taste.id, (doc) => ({ ...doc, name }))
          }}
        />
        <Button
          variant="default"
          leftSection={<IconDeviceFloppy size={16} />}
          onClick={() =>
            saveAs(`${taste.name}.taste.json`, JSON.stringify(taste, null, 1), 'application/json')
          }
        >
          {t('taste.export')}
        </Button>
        <Button
          variant="default"
          leftSection={<IconTrash size={16} />}
          onClick={() => void dropTaste(taste.id)}
        >
          {t('taste.delete')}
        </Button>
      </Group>
      <Entries taste={taste} />
      <AddEntry taste={taste} />
      <Learned taste={taste} />
    </>
  )
}

/** Brings a taste in from a file, under an id of its own. */
function OpenTaste() {
  const { t } = useTranslation()
  const forgetFile = useRef<() => void>(null)
  const [outcome, setOutcome] = useState<{ readonly ok: boolean; readonly text: string }>()
  const open = async (file: File) => {
    try {
      const { readTaste } = await import('@velvet-porch/core/schema')
      let value: unknown
      try {
        value = JSON.parse(await file.text())
      } catch (error) {
        throw new Error(t('taste.notATaste', { name: file.name }), { cause: error })
      }
      const doc = { ...readTaste(value), id: newId() }
      await keepTaste(doc)
      takeTaste(doc.id)
      setOutcome({ ok: true, text: t('taste.imported', { name: doc.name, count: doc.entries.length }) })
    } catch (error) {
      setOutcome({ ok: false, text: errorWords(t, error) })
    }
  }
  return (
    <>
      <FileButton
        accept=".json,application/json"
        resetRef={forgetFile}
        onChange={(file) => {
          forgetFile.current?.()
          if (file) void open(file)
        }}
      >
        {(props) => (
          <Button {...props} variant="default" leftSection={<IconFolderOpen size={16} />}>
            {t('taste.import')}
          </Button>
        )}
      </FileButton>
      {outcome ? (
        <Alert p="xs" color={outcome.ok ? 'plum' : 'red'} role="status">
          {outcome.text}
        </Alert>
      ) : null}
    </>
  )
}
