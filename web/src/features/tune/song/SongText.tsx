import { Button, Group, Text, Textarea } from '@mantine/core'
import { IconDownload } from '@tabler/icons-react'
import type { TuneDoc } from '@velvet-porch/core/document'
import { writeChordPro } from '@velvet-porch/core/output'
import { useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { saveAs } from '../../../ui/saveAs.ts'

/** Quiet time after a key before the text is read again. */
const READ_AFTER_MS = 700

interface Props {
  readonly tune: TuneDoc
  readonly capo: number
  /** Semitones by which the arrangement sounds above the tune. */
  readonly transposed: number
  readonly run: Writing['run']
}

/** The words of a song with the chords as the hand calls them, to be corrected in place. */
export function SongText({ tune, capo, transposed, run }: Props) {
  const { t } = useTranslation()
  const stored = useMemo(
    () => writeChordPro(tune, { capo, transposed, plain: true }),
    [tune, capo, transposed],
  )
  const [draft, setDraft] = useState<string>()
  const timer = useRef<ReturnType<typeof setTimeout> | undefined>(undefined)
  const write = useRef<(text: string) => void>(() => undefined)
  useEffect(() => {
    write.current = (text) => void run({ do: 'songText', text, capo: capo - transposed })
  })
  const edit = (text: string) => {
    setDraft(text)
    clearTimeout(timer.current)
    timer.current = setTimeout(() => write.current(text), READ_AFTER_MS)
  }
  const latest = useRef(draft)
  useEffect(() => {
    latest.current = draft
  })
  const flush = () => {
    if (latest.current === undefined) return
    clearTimeout(timer.current)
    write.current(latest.current)
    setDraft(undefined)
  }
  // What is typed last is taken when the page is left.
  const leave = useRef(flush)
  useEffect(() => {
    leave.current = flush
  })
  useEffect(() => () => leave.current(), [])
  return (
    <>
      <Text size="xs" c="dimmed">
        {capo === 0 ? t('song.hint') : t('song.hintCapo', { capo })}
      </Text>
      <Textarea
        aria-label={t('song.text')}
        value={draft ?? stored}
        spellCheck={false}
        onChange={(e) => edit(e.currentTarget.value)}
        onBlur={flush}
        styles={{
          root: { flex: 1, minHeight: 0 },
          wrapper: { height: '100%' },
          input: {
            height: '100%',
            fontFamily: 'Fira Mono, monospace',
            fontSize: 13,
            whiteSpace: 'pre',
            overflow: 'auto',
          },
        }}
      />
      <Group gap={8}>
        <Button
          size="compact-sm"
          variant="default"
          leftSection={<IconDownload size={15} />}
          onClick={() => saveAs(`${tune.title}.cho`, writeChordPro(tune, { capo, transposed }), 'text/plain')}
        >
          {t('song.save')}
        </Button>
      </Group>
    </>
  )
}
