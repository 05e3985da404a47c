import { Button, SegmentedControl, Slider } from '@mantine/core'
import {
  IconArrowLeft,
  IconArrowRight,
  IconPlayerPlayFilled,
  IconPlayerStopFilled,
} from '@tabler/icons-react'
import { useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { player } from '../../score/playback/player.ts'
import css from './LessonFoot.module.css'

/** What is played again and again. */
const LOOPS = ['none', 'beat', 'measure', 'piece', 'start', 'own'] as const
export type Loop = (typeof LOOPS)[number]

/** Big buttons back and on, as pedals would be; between them playing, loop and tempo. */
export function LessonFoot({
  first,
  last,
  onGo,
  onPlay,
  loop,
  onLoop,
  bounded,
}: {
  first: boolean
  last: boolean
  onGo: (by: 1 | -1) => void
  onPlay: () => void
  loop: Loop
  onLoop: (loop: Loop) => void
  /** True where the lesson is kept to some beats. */
  bounded: boolean
}) {
  const { t } = useTranslation()
  const { playing, tempo } = useSyncExternalStore(player.subscribe, player.snapshot)
  const percent = Math.round(tempo * 100)
  return (
    <footer className={css['teach-foot']}>
      <Button
        size="xl"
        variant="default"
        disabled={first}
        onClick={() => onGo(-1)}
        leftSection={<IconArrowLeft />}
      >
        {t('teach.back')}
      </Button>
      <div className={css['teach-play']}>
        <Button
          style={{ flex: 'none' }}
          leftSection={playing ? <IconPlayerStopFilled size={16} /> : <IconPlayerPlayFilled size={16} />}
          onClick={onPlay}
        >
          {t(playing ? 'teach.stop' : 'teach.hear')}
        </Button>
        <SegmentedControl
          size="xs"
          aria-label={t('teach.loop')}
          value={loop}
          onChange={(v) => onLoop(v)}
          data={LOOPS.filter((l) => l !== 'own' || bounded).map((value) => ({
            value,
            label: t(`teach.loops.${value}`),
          }))}
        />
        <label className={css['teach-tempo']}>
          {t('teach.tempo')} {t('teach.percent', { n: percent })}
          <Slider
            thumbLabel={t('teach.tempo')}
            min={30}
            max={120}
            step={5}
            label={null}
            value={percent}
            onChange={(v) => player.set({ tempo: v / 100 })}
          />
        </label>
      </div>
      <Button size="xl" disabled={last} onClick={() => onGo(1)} rightSection={<IconArrowRight />}>
        {t('teach.next')}
      </Button>
    </footer>
  )
}
