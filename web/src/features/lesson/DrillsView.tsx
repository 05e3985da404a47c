import { Button } from '@mantine/core'
import { IconPlayerPlayFilled, IconPlayerStopFilled } from '@tabler/icons-react'
import { timelineOf, unfold } from '@velvet-porch/core/document'
import { drillOf, drillsFor, type Lesson, type TroubleSpot } from '@velvet-porch/core/lesson'
import { tabSystems, USUAL_PAPER_LAYERS } from '@velvet-porch/core/output/handout'
import { scoreOf } from '@velvet-porch/core/output/sound'
import { useMemo, useState, useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { PaperDrawing } from '../../ui/PaperDrawing.tsx'
import { player } from '../../score/playback/player.ts'
import lessonCss from './lesson.module.css'
import css from './DrillsView.module.css'

/** Spots that are shown; the rest is easier. */
const SHOWN = 6

const LAYERS = { ...USUAL_PAPER_LAYERS, chords: 'none', lyrics: false, counts: true } as const

/** The hardest changes, each with drills as tab that can be heard. */
export function DrillsView({
  lesson,
  onPosition,
}: {
  lesson: Lesson
  onPosition: (position: TroubleSpot) => void
}) {
  const { t } = useTranslation()
  const [index, setIndex] = useState(0)
  const spots = lesson.spots.slice(0, SHOWN)
  const position = spots[Math.min(index, spots.length - 1)]
  const { paper, numbers } = lesson.phrasing
  if (!position) return <p className={lessonCss['teach-view']}>{t('teach.noTrouble')}</p>
  return (
    <div className={lessonCss['teach-view']} data-testid="drills">
      <ol className={`${lessonCss['teach-list']} ${css['teach-spots']}`} aria-label={t('teach.trouble')}>
        {spots.map((s, i) => (
          <li key={`${s.measure} ${s.tick}`}>
            <button
              type="button"
              aria-current={s === position ? 'true' : undefined}
              onClick={() => {
                setIndex(i)
                onPosition(s)
              }}
            >
              {t('teach.spot', {
                measure: numbers[s.measure]!,
                bpm: s.bpm,
                reason: paper.recipe.reason[s.reason],
              })}
            </button>
          </li>
        ))}
      </ol>
      {drillsFor(position).map((drill) => (
        <DrillTab key={drill} lesson={lesson} position={position} drill={drill} />
      ))}
    </div>
  )
}

function DrillTab({
  lesson,
  position,
  drill,
}: {
  lesson: Lesson
  position: TroubleSpot
  drill: Parameters<typeof drillOf>[0]
}) {
  const { t } = useTranslation()
  const { playing } = useSyncExternalStore(player.subscribe, player.snapshot)
  const made = useMemo(() => drillOf(drill, position, lesson.tune, lesson.doc), [drill, position, lesson])
  const svg = useMemo(
    () => tabSystems(made.tune, made.arrangement, { width: 620, layers: LAYERS, naming: 'letters' })[0]!.svg,
    [made],
  )
  const music = useMemo(() => {
    const { tune, arrangement } = made
    const { setup, base } = arrangement
    return () => scoreOf(tune, setup, base, timelineOf(tune.measures), unfold(tune.measures))
  }, [made])
  const own = playing && player.holds(music)
  const toggle = () => {
    if (own) return player.stop()
    player.load(music)
    player.set({ loop: undefined })
    void player.play(0)
  }
  const name = lesson.phrasing.paper.drills[drill]
  return (
    <figure className={css['teach-drill']}>
      <figcaption>
        {name}
        <Button
          size="compact-sm"
          variant="default"
          leftSection={own ? <IconPlayerStopFilled size={14} /> : <IconPlayerPlayFilled size={14} />}
          aria-label={`${t(own ? 'teach.stop' : 'teach.hear')}: ${name}`}
          onClick={toggle}
        >
          {t(own ? 'teach.stop' : 'teach.hear')}
        </Button>
      </figcaption>
      <PaperDrawing svg={svg} />
    </figure>
  )
}
