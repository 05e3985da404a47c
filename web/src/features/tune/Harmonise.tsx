import { knownIn } from '@velvet-porch/core/invariant'
import { Button, Group, Modal, Stack, Text } from '@mantine/core'
import type { AbcSpan, TuneDoc } from '@velvet-porch/core/document'
import type { HarmonyCandidate } from '@velvet-porch/core/arrange'
import { writeChords } from '@velvet-porch/core/output'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { notifications } from '@mantine/notifications'
import { useNames } from '../../ui/names/useNames.ts'
import { change } from '../../state/documents.ts'
import { harmoniseInWorker } from '../../workers/benchWorker.ts'
import { useAnswer } from '../../workers/useAnswer.ts'
import css from './Harmonise.module.css'

interface Props {
  readonly tune: TuneDoc
  readonly text: string
  readonly spans: readonly AbcSpan[]
  readonly onText: (text: string) => void
}

/** Proposes three harmonies for the melody; the one that is taken stays a suggestion until it is written into the text. */
export function Harmonise({ tune, text, spans, onText }: Props) {
  const { t } = useTranslation()
  const names = useNames()
  const [open, setOpen] = useState(false)
  const { answer: found } = useAnswer('harmonise', harmoniseInWorker, open ? ([tune] as const) : undefined)
  const suggested = tune.chords.length > 0 && tune.chords.every((c) => c.origin === 'suggested')
  const take = (candidate: HarmonyCandidate) => {
    setOpen(false)
    void change(
      'tune',
      tune.id,
      t('tune.tookChords', { manner: t(`tune.manner.${candidate.manner}`) }),
      (d) => {
        d.chords = structuredClone(candidate.chords) as typeof d.chords
      },
    )
  }
  const write = () => {
    const { text: written, left } = writeChords(text, tune, spans)
    onText(written)
    if (left.length > 0) notifications.show({ message: t('tune.notWritten', { count: left.length }) })
  }
  const measureOf = new Map(tune.measures.map((m, i) => [m.id, i]))
  const line = (candidate: HarmonyCandidate) => {
    const bars: string[][] = []
    for (const c of candidate.chords)
      (bars[knownIn(measureOf, c.pos.measure)] ??= []).push(c.parsed ? names.chord(c.parsed) : c.symbol)
    return Array.from(bars, (b) => b?.join(' ') ?? '·').join(' | ')
  }
  return (
    <>
      <Group gap={6}>
        <Button size="compact-sm" variant="default" onClick={() => setOpen(true)}>
          {t('tune.harmonise')}
        </Button>
        {suggested && spans.length > 0 ? (
          <Button size="compact-sm" variant="default" onClick={write}>
            {t('tune.writeChords')}
          </Button>
        ) : null}
      </Group>
      <Modal opened={open} onClose={() => setOpen(false)} title={t('tune.harmoniseTitle')} size="lg">
        <Stack gap="sm">
          <Text size="sm">{t('tune.harmoniseIntro')}</Text>
          {tune.chords.some((c) => c.origin === 'given') ? (
            <Text size="sm" c="dimmed">
              {t('tune.harmoniseReplaces')}
            </Text>
          ) : null}
          {found === undefined ? (
            <Text role="status">{t('tune.harmoniseWorking')}</Text>
          ) : (
            found.map((candidate) => (
              <section
                key={candidate.manner}
                className="harmony"
                aria-label={t(`tune.manner.${candidate.manner}`)}
              >
                <Group justify="space-between" wrap="nowrap">
                  <Text fw={600}>{t(`tune.manner.${candidate.manner}`)}</Text>
                  <Button size="compact-sm" onClick={() => take(candidate)}>
                    {t('tune.takeChords')}
                  </Button>
                </Group>
                <p className={css['harmony-line']}>{line(candidate)}</p>
                <Text size="xs" c="dimmed">
                  {t('tune.holds', { share: Math.round(candidate.holds * 100) })}
                </Text>
              </section>
            ))
          )}
        </Stack>
      </Modal>
    </>
  )
}
