import { Button, Group, SegmentedControl, Slider } from '@mantine/core'
import {
  IconArrowLeft,
  IconArrowRight,
  IconListDetails,
  IconMaximize,
  IconPlayerPlayFilled,
  IconPlayerStopFilled,
} from '@tabler/icons-react'
import {
  countText,
  USUAL_SPEECH,
  wordsFor,
  hertz,
  lessonScript,
  lessonSteps,
  piecesOf,
  pitchAt,
  stepSentences,
  type ArrangementDoc,
  type TuneDoc,
} from '@velvet-porch/core'
import { useCallback, useMemo, useRef, useState, useSyncExternalStore } from 'react'
import { useTranslation } from 'react-i18next'
import { NeckLegend } from '../arrange/HandText.tsx'
import { handAt, withReadyFingers } from '../neck/handMove.ts'
import { Neck } from '../neck/Neck.tsx'
import { player } from '../play/player.ts'
import { usePlaying } from '../play/usePlaying.ts'
import { Sheet } from '../sheet/Sheet.tsx'
import { NO_LAYERS, type TabLayers } from '../sheet/TabLayer.tsx'
import { sheetModel, type Spot } from '../sheet/sheetModel.ts'
import { Pieces } from './Pieces.tsx'
import { Script } from './Script.tsx'
import { useTeachActions } from './useTeachActions.ts'

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true, picking: true, counts: true, remarks: true }

const LOOPS = ['none', 'measure', 'piece', 'start'] as const
type Loop = (typeof LOOPS)[number]

/** One moment at a time: its count and its words large, the hand on the neck, the sheet beneath; or the whole as a script. */
export function Lesson({ tune, doc }: { tune: TuneDoc; doc: ArrangementDoc }) {
  const { t } = useTranslation()
  const root = useRef<HTMLDivElement>(null)
  const model = useMemo(() => sheetModel(tune, doc), [tune, doc])
  const steps = useMemo(() => lessonSteps(tune, doc), [tune, doc])
  const script = useMemo(() => lessonScript(tune, doc, wordsFor(USUAL_SPEECH), steps), [tune, doc, steps])
  const [chosen, setIndex] = useState(0)
  const index = Math.min(chosen, Math.max(0, steps.length - 1))
  const [loop, setLoop] = useState<Loop>('none')
  const [scripted, setScripted] = useState(false)
  const step = steps[index]
  const spot = useMemo(() => step && { measure: step.measure, tick: step.tick }, [step])
  const pieces = useMemo(() => piecesOf(tune, doc), [tune, doc])
  const piece = step && pieces.find((p) => p.from <= step.measure && step.measure <= p.to)
  const marked = useMemo(() => {
    if (!step || loop === 'none') return undefined
    if (loop === 'piece' && piece) return { from: piece.from, to: piece.to }
    return { from: loop === 'start' ? 0 : step.measure, to: step.measure }
  }, [step, loop, piece])
  // What is looped is heard from its beginning.
  const from = useMemo(
    () => (marked && loop !== 'measure' ? { measure: marked.from, tick: 0 } : spot),
    [marked, loop, spot],
  )
  const { toggle, cursor } = usePlaying(model, from, marked)
  const { playing, tempo } = useSyncExternalStore(player.subscribe, player.snapshot)
  const hand = useMemo(() => (spot ? withReadyFingers(handAt(model, spot)) : undefined), [model, spot])
  const plucked = useMemo(
    () => (spot ? (model.notes.get(spot.measure) ?? []).filter((n) => n.pos.tick === spot.tick) : []),
    [model, spot],
  )
  const toScript = useCallback(() => setScripted((on) => !on), [])
  const go = useTeachActions(steps, index, setIndex, toggle, toScript)
  if (!step) return <p className="teach-nothing">{t('teach.empty')}</p>
  const scriptOf = script.find((s) => s.measure === step.measure)
  return (
    <div className="teach" ref={root}>
      <header className="bench-title">
        <h1>{tune.title}</h1>
        <span className="setup">{t('teach.subtitle')}</span>
        <Group gap={6} ml="auto">
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconListDetails size={15} />}
            aria-pressed={scripted}
            onClick={() => setScripted(!scripted)}
          >
            {t(scripted ? 'teach.scriptHide' : 'teach.script')}
          </Button>
          <Button
            size="compact-sm"
            variant="default"
            leftSection={<IconMaximize size={15} />}
            onClick={() => void root.current?.requestFullscreen()}
          >
            {t('teach.full')}
          </Button>
        </Group>
      </header>
      <Pieces
        tune={tune}
        doc={doc}
        pieces={pieces}
        numbers={model.numbers}
        at={piece}
        onPiece={(p) =>
          setIndex(
            Math.max(
              0,
              steps.findIndex((s) => s.measure >= p.from),
            ),
          )
        }
      />
      {scripted ? (
        <Script
          script={script}
          index={index}
          onStep={(i) => {
            setIndex(i)
            setScripted(false)
          }}
        />
      ) : (
        <section
          className="teach-step"
          tabIndex={0}
          aria-label={t('teach.stepsOf')}
          aria-live="polite"
          data-testid="step"
        >
          <div className="teach-where">
            <h2>{scriptOf?.title}</h2>
            <span>{t('teach.where', { step: index + 1, count: steps.length })}</span>
          </div>
          <div className="teach-count" data-testid="count">
            {countText(step.count, wordsFor(USUAL_SPEECH))}
          </div>
          <ul>
            {stepSentences(step, wordsFor(USUAL_SPEECH)).map((s) => (
              <li key={s}>{s}.</li>
            ))}
          </ul>
          {scriptOf?.silent ? <p className="soft">{scriptOf.silent}.</p> : null}
        </section>
      )}
      <aside className="teach-neck">
        {model.setup ? (
          <Neck
            setup={model.setup}
            hand={hand}
            plucked={plucked}
            onHear={(string, fret) =>
              void player.pluck(string, hertz(pitchAt(model.setup!, { string, fret })))
            }
          />
        ) : null}
        <NeckLegend />
      </aside>
      <div className="teach-sheet">
        <Sheet
          model={model}
          layers={LAYERS}
          spot={spot}
          onSpot={(s) => setIndex(nearest(steps, s))}
          marked={marked}
          cursor={cursor}
          runsOn
        />
      </div>
      <footer className="teach-foot">
        <Button
          size="xl"
          variant="default"
          disabled={index === 0}
          onClick={() => go(-1)}
          leftSection={<IconArrowLeft />}
        >
          {t('teach.back')}
        </Button>
        <div className="teach-play">
          <Button
            leftSection={playing ? <IconPlayerStopFilled size={16} /> : <IconPlayerPlayFilled size={16} />}
            onClick={toggle}
          >
            {t(playing ? 'teach.stop' : 'teach.hear')}
          </Button>
          <SegmentedControl
            size="xs"
            aria-label={t('teach.loop')}
            value={loop}
            onChange={(v) => setLoop(v as Loop)}
            data={LOOPS.map((value) => ({ value, label: t(`teach.loops.${value}`) }))}
          />
          <label className="teach-tempo">
            {t('teach.tempo')} {t('teach.percent', { n: Math.round(tempo * 100) })}
            <Slider
              thumbLabel={t('teach.tempo')}
              min={30}
              max={120}
              step={5}
              label={null}
              value={Math.round(tempo * 100)}
              onChange={(v) => player.set({ tempo: v / 100 })}
            />
          </label>
        </div>
        <Button
          size="xl"
          disabled={index >= steps.length - 1}
          onClick={() => go(1)}
          rightSection={<IconArrowRight />}
        >
          {t('teach.next')}
        </Button>
      </footer>
    </div>
  )
}

/** The step that stands at a spot of the sheet, or the last one before it. */
function nearest(steps: readonly Spot[], spot: Spot): number {
  const at = steps.findLastIndex(
    (s) => s.measure < spot.measure || (s.measure === spot.measure && s.tick <= spot.tick),
  )
  return Math.max(0, at)
}
