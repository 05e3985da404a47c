import { Button, Group, SegmentedControl, Select, Slider } from '@mantine/core'
import {
  IconArrowLeft,
  IconArrowRight,
  IconMaximize,
  IconPlayerPlayFilled,
  IconPlayerStopFilled,
} from '@tabler/icons-react'
import {
  countText,
  hertz,
  layerOf,
  lessonOf,
  pitchAt,
  stepSentences,
  TEACH_LAYERS,
  type ArrangementDoc,
  type Piece,
  type TeachLayer,
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
import { setPrefs, usePrefs } from '../store/prefs.ts'
import { usePieceNotes } from '../store/teaching.ts'
import { DrillsView } from './DrillsView.tsx'
import { LessonOptions } from './LessonOptions.tsx'
import { LogView } from './LogView.tsx'
import { Pieces } from './Pieces.tsx'
import { PieceView } from './PieceView.tsx'
import { PlanView } from './PlanView.tsx'
import { Script } from './Script.tsx'
import { useTeachActions } from './useTeachActions.ts'

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true, picking: true, counts: true, remarks: true }

const LOOPS = ['none', 'measure', 'piece', 'start'] as const
type Loop = (typeof LOOPS)[number]

const VIEWS = ['step', 'piece', 'script', 'drills', 'plan', 'log'] as const
type View = (typeof VIEWS)[number]

/** Views that go along the sheet; the others take its room. */
const ON_SHEET: ReadonlySet<View> = new Set(['step', 'piece', 'script'])

/** One moment at a time: its count and its words large, the hand on the neck, the sheet beneath; or the whole as a script. */
export function Lesson({ tune, doc: whole }: { tune: TuneDoc; doc: ArrangementDoc }) {
  const { t } = useTranslation()
  const root = useRef<HTMLDivElement>(null)
  const { lesson: settings } = usePrefs()
  const notes = usePieceNotes(tune.id)
  const [layer, setLayer] = useState<TeachLayer>('whole')
  const doc = useMemo(() => layerOf(tune, whole, layer), [tune, whole, layer])
  const model = useMemo(() => sheetModel(tune, doc), [tune, doc])
  const lesson = useMemo(() => lessonOf(tune, doc, settings), [tune, doc, settings])
  // Pieces and plans are those of the whole, whatever layer is looked at.
  const plan = useMemo(
    () => (doc === whole ? lesson : lessonOf(tune, whole, settings)),
    [lesson, tune, doc, whole, settings],
  )
  const { steps, script, saying } = lesson
  const { pieces } = plan
  const [chosen, setIndex] = useState(0)
  const index = Math.min(chosen, Math.max(0, steps.length - 1))
  const [loop, setLoop] = useState<Loop>('none')
  const [view, setView] = useState<View>('step')
  const step = steps[index]
  const spot = useMemo(() => step && { measure: step.measure, tick: step.tick }, [step])
  const piece = spot && pieces.find((p) => isIn(p, spot))
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
  const toScript = useCallback(() => setView((v) => (v === 'script' ? 'step' : 'script')), [])
  const go = useTeachActions(steps, index, setIndex, toggle, toScript)
  const toMeasure = (measure: number, tick = 0) => setIndex(stepFrom(steps, measure, tick))
  if (!step) return <p className="teach-nothing">{t('teach.empty')}</p>
  const scriptOf = script.find((s) => s.measure === step.measure)
  return (
    <div className="teach" ref={root}>
      <header className="bench-title">
        <h1>{tune.title}</h1>
        <span className="setup">{t('teach.subtitle')}</span>
        <Group gap={6} ml="auto">
          <Select
            className="teach-layer"
            size="xs"
            aria-label={t('teach.layer')}
            value={layer}
            onChange={(v) => v && setLayer(v as TeachLayer)}
            data={TEACH_LAYERS.map((value) => ({ value, label: t(`teach.layers.${value}`) }))}
            allowDeselect={false}
            comboboxProps={{ withinPortal: false }}
          />
          <LessonOptions settings={settings} onChange={(next) => setPrefs({ lesson: next })} />
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
        onPiece={(p) => toMeasure(p.from, p.tick)}
      />
      <SegmentedControl
        className="teach-views"
        size="xs"
        aria-label={t('teach.view')}
        value={view}
        onChange={(v) => setView(v as View)}
        data={VIEWS.map((value) => ({ value, label: t(`teach.views.${value}`) }))}
      />
      {view === 'script' ? (
        <Script
          script={script}
          index={index}
          onStep={(i) => {
            setIndex(i)
            setView('step')
          }}
        />
      ) : view === 'piece' && piece ? (
        <PieceView
          lesson={plan}
          piece={piece}
          notes={notes}
          onTempo={(bpm) => {
            setLoop('piece')
            player.set({ tempo: bpm / (tune.tempos[0]?.bpm ?? bpm) })
          }}
        />
      ) : view === 'drills' ? (
        <DrillsView lesson={plan} onSpot={(s) => toMeasure(s.measure, s.tick)} />
      ) : view === 'plan' ? (
        <PlanView
          lesson={plan}
          onStep={(s) => {
            const to =
              s.kind === 'change'
                ? { from: s.spot.measure, tick: s.spot.tick }
                : s.kind === 'piece'
                  ? s.piece
                  : s.kind === 'join'
                    ? s.from
                    : { from: 0 }
            toMeasure(to.from, to.tick)
            setLoop(s.kind === 'piece' ? 'piece' : s.kind === 'whole' ? 'none' : loop)
            setView(s.kind === 'change' ? 'drills' : s.kind === 'piece' ? 'piece' : 'step')
          }}
        />
      ) : view === 'log' ? (
        <LogView lesson={plan} />
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
            {countText(step.count, saying.words)}
          </div>
          <ul>
            {stepSentences(step, saying.words, lesson.nameOf).map((s) => (
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
      {ON_SHEET.has(view) ? (
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
      ) : null}
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

/** True where a piece has a spot of the sheet. */
function isIn({ from, to, tick = 0, until = Infinity }: Piece, at: Spot): boolean {
  const after = at.measure > from || (at.measure === from && at.tick >= tick)
  const before = at.measure < to || (at.measure === to && at.tick < until)
  return after && before
}

/** The first step from a place on. */
function stepFrom(steps: readonly Spot[], measure: number, tick: number): number {
  const at = steps.findIndex((s) => s.measure > measure || (s.measure === measure && s.tick >= tick))
  return Math.max(0, at)
}

/** The step that stands at a spot of the sheet, or the last one before it. */
function nearest(steps: readonly Spot[], spot: Spot): number {
  const at = steps.findLastIndex(
    (s) => s.measure < spot.measure || (s.measure === spot.measure && s.tick <= spot.tick),
  )
  return Math.max(0, at)
}
