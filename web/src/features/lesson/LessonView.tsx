import { Button, SegmentedControl } from '@mantine/core'
import {
  hertz,
  isInPiece,
  layerOf,
  lessonOf,
  pitchAt,
  withVariant,
  type ArrangementDoc,
  type LearningStep,
  type TeachLayer,
  type TuneDoc,
} from '@velvet-porch/core'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { useTranslation } from 'react-i18next'
import { NeckLegend } from '../arrange/HandText.tsx'
import { handAt, withLifted, withReadyFingers } from '../../score/neck/handMove.ts'
import { Neck } from '../../score/neck/Neck.tsx'
import { player } from '../../score/playback/player.ts'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { Sheet } from '../../score/sheet/Sheet.tsx'
import { NO_LAYERS, type TabLayers } from '../../score/sheet/TabLayer.tsx'
import { sheetModel, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import { usePrefs } from '../../state/prefs.ts'
import { useLog, usePieceNotes } from '../../state/teaching.ts'
import { DrillsView } from './DrillsView.tsx'
import type { Instead } from './EasierHere.tsx'
import { LessonFoot, type Loop } from './LessonFoot.tsx'
import { LessonHead } from './LessonHead.tsx'
import { LogView } from './LogView.tsx'
import { Pieces } from './Pieces.tsx'
import { PieceView } from './PieceView.tsx'
import { PlanView } from './PlanView.tsx'
import { Script } from './Script.tsx'
import { StepView } from './StepView.tsx'
import { useTaught } from './useTaught.ts'
import { useTeachActions } from './useTeachActions.ts'

const LAYERS: TabLayers = { ...NO_LAYERS, fingers: true, picking: true, counts: true, remarks: true }

const VIEWS = ['step', 'piece', 'script', 'drills', 'plan', 'log'] as const
type View = (typeof VIEWS)[number]

/** Views that go along the sheet; the others take its room. */
const ON_SHEET: ReadonlySet<View> = new Set(['step', 'piece', 'script'])

/** One moment at a time: its count and its words large, the hand on the neck, the sheet beneath; or the whole as a script. */
export function LessonView({ tune, written }: { tune: TuneDoc; written: ArrangementDoc }) {
  const { t } = useTranslation()
  const root = useRef<HTMLDivElement>(null)
  const { lesson: settings } = usePrefs()
  const notes = usePieceNotes(tune.id)
  const { doc: taught, student, own } = useTaught(tune, written)
  const log = useLog(tune.id, student?.id ?? '')
  const [instead, setInstead] = useState<Instead>()
  useEffect(() => setInstead(undefined), [written.base, student])
  const whole = useMemo(
    () => (instead ? { ...taught, base: withVariant(taught.base, instead) } : taught),
    [taught, instead],
  )
  const [layer, setLayer] = useState<TeachLayer>('whole')
  const doc = useMemo(() => layerOf(tune, whole, layer), [tune, whole, layer])
  const model = useMemo(() => sheetModel(tune, doc), [tune, doc])
  const lesson = useMemo(() => lessonOf(tune, doc, settings, log), [tune, doc, settings, log])
  // Pieces and plans are those of the whole, whatever layer is looked at.
  const plan = useMemo(
    () => (doc === whole ? lesson : lessonOf(tune, whole, settings, log)),
    [lesson, tune, doc, whole, settings, log],
  )
  const { steps, script } = lesson
  const { pieces } = plan
  const [chosen, setIndex] = useState(0)
  const index = Math.min(chosen, Math.max(0, steps.length - 1))
  const [loop, setLoop] = useState<Loop>('none')
  const [view, setView] = useState<View>('step')
  const step = steps[index]
  const spot = useMemo(() => step && { measure: step.measure, tick: step.tick }, [step])
  const piece = spot && pieces.find((p) => isInPiece(p, spot))
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
  const hand = useMemo(
    () => step && withLifted(withReadyFingers(handAt(model, step)), step.hand.lifts),
    [model, step],
  )
  const plucked = useMemo(
    () => (spot ? (model.notes.get(spot.measure) ?? []).filter((n) => n.pos.tick === spot.tick) : []),
    [model, spot],
  )
  const toScript = useCallback(() => setView((v) => (v === 'script' ? 'step' : 'script')), [])
  const go = useTeachActions(steps, index, setIndex, toggle, toScript)
  const toMeasure = (measure: number, tick = 0) => setIndex(stepFrom(steps, measure, tick))
  if (!step)
    return (
      <div className="teach-nothing">
        <p>{t('teach.empty')}</p>
        {layer === 'whole' ? null : (
          <Button onClick={() => setLayer('whole')}>{t('teach.layers.whole')}</Button>
        )}
      </div>
    )
  return (
    <div className="teach" ref={root}>
      <LessonHead
        title={tune.title}
        student={student}
        own={own}
        instead={instead}
        onWritten={() => setInstead(undefined)}
        layer={layer}
        onLayer={setLayer}
        onFull={() => void root.current?.requestFullscreen()}
      />
      <Pieces
        effort={lesson.effort}
        pieces={pieces}
        numbers={model.numbers}
        goalBpm={lesson.goalBpm}
        at={piece}
        onPiece={(p) => toMeasure(p.from, p.tick)}
      />
      <SegmentedControl
        className="teach-views"
        size="xs"
        aria-label={t('teach.view')}
        value={view}
        onChange={(v) => setView(v)}
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
          taught={taught}
          student={student}
          instead={instead}
          onInstead={setInstead}
          onTempo={(bpm) => {
            setLoop('piece')
            player.set({ tempo: bpm / (tune.tempos[0]?.bpm ?? bpm) })
          }}
        />
      ) : view === 'drills' ? (
        <DrillsView lesson={plan} onSpot={(s) => toMeasure(s.measure, s.tick)} />
      ) : view === 'plan' ? (
        <PlanView
          key={student?.id ?? ''}
          lesson={plan}
          onStep={(s) => {
            const to = placeOf(s)
            toMeasure(to.measure, to.tick)
            setLoop(s.kind === 'piece' ? 'piece' : s.kind === 'join' ? 'start' : 'none')
            setView(s.kind === 'change' ? 'drills' : s.kind === 'piece' ? 'piece' : 'step')
          }}
        />
      ) : view === 'log' ? (
        <LogView lesson={plan} log={log} student={student} />
      ) : (
        <StepView lesson={lesson} index={index} />
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
      <LessonFoot
        first={index === 0}
        last={index >= steps.length - 1}
        onGo={go}
        onPlay={toggle}
        loop={loop}
        onLoop={setLoop}
      />
    </div>
  )
}

/** Where a step of the learning order is looked at; a join at the end of what is joined, to be played from the start. */
function placeOf(step: LearningStep): { readonly measure: number; readonly tick?: number | undefined } {
  switch (step.kind) {
    case 'change':
      return step.spot
    case 'piece':
      return { measure: step.piece.from, tick: step.piece.tick }
    case 'join':
      return { measure: step.to.to }
    case 'whole':
      return { measure: 0 }
  }
}

/** The first step from a place on. */
function stepFrom(steps: readonly SheetPosition[], measure: number, tick: number): number {
  const at = steps.findIndex((s) => s.measure > measure || (s.measure === measure && s.tick >= tick))
  return Math.max(0, at)
}

/** The step that stands at a spot of the sheet, or the last one before it. */
function nearest(steps: readonly SheetPosition[], spot: SheetPosition): number {
  const at = steps.findLastIndex(
    (s) => s.measure < spot.measure || (s.measure === spot.measure && s.tick <= spot.tick),
  )
  return Math.max(0, at)
}
