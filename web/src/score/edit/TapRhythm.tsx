import { present } from '@velvet-porch/core/invariant'
import { Button, Checkbox, Group, SegmentedControl, Stack, Text } from '@mantine/core'
import { isCompound, inFullMeasure, QUARTER, USUAL_TEMPO } from '@velvet-porch/core/music'
import {
  melodyOf,
  ticksAt,
  timelineOf,
  type MelodyNote,
  type Pos,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { quantised, type EditCommand } from '@velvet-porch/core/edit'
import { useState } from 'react'
import { useTranslation } from 'react-i18next'
import { useNames } from '../../ui/names/useNames.ts'
import { BarPopover } from './BarPopover.tsx'
import { TapPad } from './TapPad.tsx'
import { TapTempo } from './TapTempo.tsx'
import { useClicks } from './useClicks.ts'
import { lengthSign } from './values.ts'
import css from './TapRhythm.module.css'

/** Shortest lengths that taps are set on. */
const GRIDS = { eighth: QUARTER / 2, sixteenth: QUARTER / 4 } as const
type Grid = keyof typeof GRIDS

/** The rhythm of the melody from a note on, tapped on a key against clicks, and seen before it is written. */
export function TapRhythm({
  tune,
  at,
  run,
}: {
  tune: TuneDoc
  /** Where the pen stands. */
  at: Pos | undefined
  run: (edit: EditCommand) => Promise<boolean>
}) {
  const { t } = useTranslation()
  const first = at && tune.events.find((e) => e.voice === 0 && e.pitch && same(e.pos, at))
  return (
    <BarPopover label={t('write.tap.button')} disabled={!first}>
      {(close) => (at && first ? <Tapping tune={tune} at={at} run={run} onDone={close} /> : null)}
    </BarPopover>
  )
}

const same = (a: Pos, b: Pos) => a.measure === b.measure && a.tick === b.tick

function Tapping({
  tune,
  at,
  run,
  onDone,
}: {
  tune: TuneDoc
  at: Pos
  run: (edit: EditCommand) => Promise<boolean>
  onDone: () => void
}) {
  const { t } = useTranslation()
  const names = useNames()
  const [bpm, setBpm] = useState(Math.round(tune.tempos[0]?.bpm ?? USUAL_TEMPO))
  const [grid, setGrid] = useState<Grid>('eighth')
  const [thirds, setThirds] = useState(false)
  const [taps, setTaps] = useState<readonly number[]>([])
  const [clicking, setClicking] = useState(false)
  useClicks(clicking, bpm)
  const measure = present(tune.measures.find((m) => m.id === at.measure))
  // Beats of three eighths have their thirds on the grid.
  const mayThirds = !isCompound(measure.metre)
  const { lengths, offBy } = quantised(taps, bpm, {
    grid: GRIDS[grid],
    thirds: thirds && mayThirds,
    from: inFullMeasure(measure, at.tick) % QUARTER,
  })
  const notes = notesFrom(tune, at)
  const tap = (seconds: number) => setTaps((before) => [...before, seconds])
  const write = async () => {
    if (await run({ do: 'rhythm', at, lengths })) onDone()
  }
  return (
    <Stack gap={8} w={340} data-testid="tapping">
      <Text size="sm">{t('write.tap.hint')}</Text>
      <Group gap={8} align="end">
        <TapTempo label={t('write.tap.bpm')} bpm={bpm} onBpm={setBpm} />
        <SegmentedControl
          size="xs"
          aria-label={t('write.tap.grid')}
          value={grid}
          onChange={(g) => setGrid(g)}
          data={(Object.keys(GRIDS) as Grid[]).map((g) => ({ value: g, label: lengthSign(GRIDS[g]) }))}
        />
        {mayThirds ? (
          <Checkbox
            size="xs"
            label={t('write.tap.thirds')}
            checked={thirds}
            onChange={(e) => setThirds(e.currentTarget.checked)}
          />
        ) : null}
        <Button size="compact-sm" variant="default" onClick={() => setClicking(!clicking)}>
          {t(clicking ? 'write.tap.stop' : 'write.tap.start')}
        </Button>
      </Group>
      <TapPad onTap={tap}>{t('write.tap.here')}</TapPad>
      <ol className={css.taps} aria-label={t('write.tap.heard')} aria-live="polite">
        {lengths.map((length, i) => (
          <li key={i} title={t('write.tap.late', { ms: Math.round(offBy[i + 1]! * 1000) })}>
            <strong>{notes[i] ? names.note(notes[i].pitch) : '–'}</strong> {lengthSign(length)}
          </li>
        ))}
      </ol>
      {lengths.length > notes.length ? (
        <Text size="xs" c="red">
          {t('write.tap.tooMany', { count: notes.length })}
        </Text>
      ) : null}
      <Group gap={8}>
        <Button size="compact-sm" disabled={lengths.length === 0} onClick={() => void write()}>
          {t('write.tap.write')}
        </Button>
        <Button size="compact-sm" variant="default" disabled={taps.length === 0} onClick={() => setTaps([])}>
          {t('write.tap.again')}
        </Button>
      </Group>
    </Stack>
  )
}

/** Notes of the melody from a moment on. */
function notesFrom(tune: TuneDoc, at: Pos): readonly MelodyNote[] {
  const timeline = timelineOf(tune.measures)
  const start = ticksAt(timeline, at)
  return melodyOf(tune, timeline).filter((n) => n.start >= start)
}
