import { Button, Group, NumberInput, Text } from '@mantine/core'
import { chordText, transposeChord } from '@velvet-porch/core/music'
import { lineBars, type ChordMark, type TuneDoc } from '@velvet-porch/core/document'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import type { Writing } from '../../../score/edit/useWriting.ts'
import { LineRow } from './LineRow.tsx'
import css from './SongBars.module.css'

/** How many bars each line of a song takes, and on which beats its chords change: a guess until it is said to be right. */
export function SongBars({ tune, capo, run }: { tune: TuneDoc; capo: number; run: Writing['run'] }) {
  const { t } = useTranslation()
  const lines = useMemo(() => lineBars(tune), [tune])
  const open = lines.filter((l) => l.guessed)
  const usual = open[0]?.bars ?? 4
  const name = ({ parsed, symbol }: ChordMark) =>
    parsed ? chordText(transposeChord(parsed, -capo, tune.measures[0]!.key.fifths < 0)) : symbol
  return (
    <>
      {open.length > 0 ? (
        <Group gap={8} align="end">
          <NumberInput
            size="xs"
            w={96}
            label={t('song.everyLine')}
            min={1}
            max={16}
            value={usual}
            onChange={(v) => Number(v) > 0 && void run({ do: 'everyLine', bars: Number(v) })}
          />
          <Button size="compact-sm" onClick={() => void run({ do: 'confirmBars' })}>
            {t('song.confirm')}
          </Button>
          <Text size="xs" c="dimmed">
            {t('song.guess', { count: open.length })}
          </Text>
        </Group>
      ) : (
        <Text size="xs" c="dimmed">
          {t('song.move')}
        </Text>
      )}
      <ol className={css.lines}>
        {lines.map((line) => (
          <LineRow key={line.line.id} line={line} name={name} tempo={tune.tempos[0]!.bpm} run={run} />
        ))}
      </ol>
    </>
  )
}
