import { Alert, Button, Group, Modal, Progress, Text, Textarea } from '@mantine/core'
import { useMemo, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { take, takeSaved, type Choices, type Intake, type Source } from './intake.ts'
import { UnderstoodTune } from './UnderstoodTune.tsx'
import { useUnderstood } from './useUnderstood.ts'
import css from './IntakeDialog.module.css'

interface Props {
  /** Texts of files; absent where a text is pasted. */
  readonly files: readonly Source[] | undefined
  /** Files that could not be opened at all. */
  readonly unopened: readonly string[]
  /** What was read in another way than usual. */
  readonly remarks: readonly string[]
  readonly onClose: () => void
  readonly onTaken: (intake: Intake) => void
}

/** What is brought, pasted or opened, and what is understood of it tune by tune, before anything is taken. */
export function IntakeDialog({ files, unopened, remarks, onClose, onTaken }: Props) {
  const { t } = useTranslation()
  const [text, setText] = useState('')
  const [choices, setChoices] = useState<readonly Choices[]>([])
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [taking, setTaking] = useState(false)
  const [failed, setFailed] = useState<readonly string[]>([])
  const sources = useMemo(() => files ?? [{ text }], [files, text])
  const { read, settled, done } = useUnderstood(sources, choices)
  const found = read.flatMap((u, source) =>
    u.tunes.flatMap((tune, i) =>
      tune.tune ? [{ id: `${source}.${i}`, source, tune, file: u.source.file }] : [],
    ),
  )
  const saved = read.filter((u) => u.saved)
  const complaints = [
    ...unopened,
    ...failed,
    ...read.flatMap((u) => u.complaints.map((c) => (u.source.file ? `${u.source.file}: ${c}` : c))),
  ]
  const chosen = found.filter((f) => !left.has(f.id))
  const count = chosen.length + saved.length
  const takeChosen = async () => {
    setTaking(true)
    const intakes = [
      await take(chosen.map((c) => c.tune)),
      ...(await Promise.all(saved.map((u) => takeSaved(u.source.text)))),
    ]
    const intake: Intake = {
      tunes: intakes.flatMap((i) => i.tunes),
      complaints: intakes.flatMap((i) => i.complaints),
      withTab: intakes.some((i) => i.withTab),
    }
    setTaking(false)
    // Where nothing could be taken the text stays, to be taken again or copied.
    if (intake.tunes.length > 0) onTaken(intake)
    else setFailed(intake.complaints)
  }
  const choose = (source: number, { song, score }: Choices) =>
    setChoices(
      sources.map((_, i) => {
        const own = choices[i] ?? {}
        return i === source ? { song: { ...own.song, ...song }, score: { ...own.score, ...score } } : own
      }),
    )
  const toggle = (id: string) =>
    setLeft((now) => new Set(now.has(id) ? [...now].filter((x) => x !== id) : [...now, id]))
  const empty = sources.every((s) => s.text.trim() === '')
  return (
    <Modal
      opened
      onClose={onClose}
      title={t(files ? 'intake.openTitle' : 'intake.pasteTitle')}
      size="xl"
      closeButtonProps={{ 'aria-label': t('shelf.cancel') }}
    >
      {files ? null : (
        <Textarea
          label={t('intake.label')}
          description={t('intake.hint')}
          autosize
          minRows={7}
          maxRows={14}
          value={text}
          data-autofocus
          styles={{ input: { fontFamily: 'Fira Mono, monospace', whiteSpace: 'pre', overflowX: 'auto' } }}
          onChange={(e) => setText(e.currentTarget.value)}
        />
      )}
      {empty ? null : (
        <section className={css.found} aria-label={t('intake.understood')} data-testid="understood">
          {found.map(({ id, source, tune, file }) => (
            <UnderstoodTune
              key={id}
              understood={tune}
              file={file}
              taken={!left.has(id)}
              chosen={choices[source] ?? {}}
              onTake={found.length + saved.length > 1 ? () => toggle(id) : undefined}
              onChoose={(change) => choose(source, change)}
            />
          ))}
          {saved.map((u, i) => (
            <Text key={i} size="sm">
              {t('intake.saved', { file: u.source.file ?? '' })}
            </Text>
          ))}
        </section>
      )}
      {!settled && sources.length > 1 ? (
        <Progress.Root size="lg" mt="sm">
          <Progress.Section
            value={(100 * done) / sources.length}
            aria-label={t('intake.reading', { done, all: sources.length })}
          />
        </Progress.Root>
      ) : null}
      {remarks.map((remark) => (
        <Text key={remark} size="sm" c="dimmed" mt="xs">
          {remark}
        </Text>
      ))}
      {complaints.length > 0 ? (
        <Alert
          color="red"
          mt="sm"
          title={t(
            failed.length === 0 && found.length + saved.length > 0 ? 'intake.partly' : 'shelf.readNone',
          )}
          style={{ whiteSpace: 'pre-line' }}
        >
          {complaints.join('\n')}
        </Alert>
      ) : null}
      <Group justify="flex-end" mt="md">
        <Button variant="default" onClick={onClose}>
          {t('shelf.cancel')}
        </Button>
        <Button
          disabled={!settled || count === 0}
          loading={taking}
          data-autofocus={files ? true : undefined}
          onClick={() => void takeChosen()}
        >
          {count === found.length + saved.length
            ? t('intake.takeAll', { count: Math.max(1, count) })
            : t('intake.takeSome', { count, of: found.length + saved.length })}
        </Button>
      </Group>
    </Modal>
  )
}
