import { Button, Group, SegmentedControl, Slider, Switch, Text } from '@mantine/core'
import { IconChevronUp, IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'
import { useRef, useState, useSyncExternalStore, type KeyboardEvent } from 'react'
import { useTranslation } from 'react-i18next'
import { holds } from '../../ui/holds.ts'
import type { MarkedMeasures } from '../sheet/selection.ts'
import { BalanceRows } from './BalanceRows.tsx'
import { LADDERS, type Ladder } from './ladder.ts'
import { player } from './player.ts'
import { SaveSound } from './SaveSound.tsx'
import css from './PlayControl.module.css'

interface Props {
  /** What the music is called: a file of it is named so. */
  readonly name: string
  readonly onToggle: () => void
  readonly marked: MarkedMeasures | undefined
  readonly numberOf: (measure: number) => number
  /** The measure that is selected on the sheet. */
  readonly measure: number | undefined
  readonly onMark: (marked: MarkedMeasures | undefined) => void
}

/** A bar under the sheet, over none of its notes; tempo, count-in, metronome and loop unfold from it. */
export function PlayControl({ name, onToggle, marked, numberOf, measure, onMark }: Props) {
  const { t } = useTranslation()
  const state = useSyncExternalStore(player.subscribe, player.snapshot)
  const [open, setOpen] = useState(false)
  const fold = useRef<HTMLButtonElement>(null)
  const foldUp = (event: KeyboardEvent) => {
    if (event.key !== 'Escape') return
    event.stopPropagation()
    setOpen(false)
    fold.current?.focus()
  }
  return (
    <div className={`${css.play} no-print`}>
      {open ? (
        <div className={css['play-more']} role="group" aria-label={t('play.more')} onKeyDown={foldUp}>
          <Text size="sm" id="tempo-label">
            {t('play.tempo')} · {t('play.percent', { n: Math.round(state.tempo * 100) })}
          </Text>
          <Slider
            thumbProps={{ 'aria-labelledby': 'tempo-label' }}
            min={30}
            max={150}
            step={5}
            value={Math.round(state.tempo * 100)}
            onChange={(v) => player.set({ tempo: v / 100 })}
            label={null}
            mb="sm"
            marks={[{ value: 60 }, { value: 100 }]}
          />
          <Switch
            label={t('play.countIn')}
            checked={state.countIn}
            onChange={(e) => player.set({ countIn: e.currentTarget.checked })}
            mb={6}
          />
          <BalanceRows />
          <Text size="sm" c="dimmed">
            {!marked
              ? t('play.noLoop')
              : marked.from === marked.to
                ? t('play.markOne', { from: numberOf(marked.from) })
                : t('play.markMeasure', { from: numberOf(marked.from), to: numberOf(marked.to) })}
          </Text>
          <Group gap={4}>
            {measure !== undefined && !(marked && marked.from <= measure && marked.to >= measure) ? (
              <Button
                size="compact-xs"
                variant="light"
                onClick={() =>
                  onMark(
                    marked
                      ? { from: Math.min(marked.from, measure), to: Math.max(marked.to, measure) }
                      : { from: measure, to: measure },
                  )
                }
              >
                {t(marked ? 'play.extend' : 'play.mark', { number: numberOf(measure) })}
              </Button>
            ) : null}
            {marked ? (
              <Button size="compact-xs" variant="subtle" onClick={() => onMark(undefined)}>
                {t('play.clear')}
              </Button>
            ) : null}
          </Group>
          <Text size="sm" mt={8} mb={2} id="ladder-label">
            {t('play.ladder')}
          </Text>
          <SegmentedControl
            size="xs"
            fullWidth
            aria-labelledby="ladder-label"
            data={LADDERS.map((n) => ({ value: String(n), label: t(`play.ladders.${n}`) }))}
            value={String(state.ladder)}
            onChange={(v) => player.set({ ladder: Number(v) as Ladder })}
          />
          <SaveSound name={name} />
          <Text size="xs" c="dimmed" mt={4}>
            {t('play.low')}
          </Text>
        </div>
      ) : null}
      <button
        ref={fold}
        className={css['play-side']}
        aria-expanded={open}
        aria-label={t('play.more')}
        {...(open
          ? {}
          : holds([
              t('play.tempo'),
              t('play.countIn'),
              t('play.ownPart'),
              t('play.balance'),
              t('play.voice.metronome'),
              t('play.voice.counting'),
              t('play.ladder'),
              t('play.wav'),
            ]))}
        onClick={() => setOpen(!open)}
      >
        <IconChevronUp size={18} style={{ transform: open ? 'rotate(180deg)' : undefined }} />
      </button>
      <button
        className={css['play-button']}
        data-guide="hear"
        aria-label={t(state.playing ? 'play.stop' : 'play.play')}
        onClick={onToggle}
      >
        {state.playing ? <IconPlayerStopFilled size={24} /> : <IconPlayerPlayFilled size={24} />}
      </button>
      {state.failed ? (
        <Text role="alert" size="sm">
          {t('play.failed')}
        </Text>
      ) : null}
    </div>
  )
}
