import { withVariant, type ArrangementDoc, type TuneDoc } from '@velvet-porch/core/document'
import {
  beatAt,
  betweenBeats,
  isInPiece,
  isWithin,
  layerOf,
  measuresFrom,
  passVersions,
  stretchOf,
  teaching,
  type Stretch,
  type LearningStep,
  type LessonStep,
  type Piece,
  type TeachLayer,
} from '@velvet-porch/core/lesson'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { handAt, withLifted, withReadyFingers } from '../../score/neck/handMove.ts'
import { player } from '../../score/playback/player.ts'
import { usePlaying } from '../../score/playback/usePlaying.ts'
import { sheetModel, type SheetModel, type SheetPosition } from '../../score/sheet/sheetModel.ts'
import { keepLessonPlace, lessonPlace } from '../../state/lessonPlace.ts'
import { usePrefs } from '../../state/prefs.ts'
import { useLog } from '../../state/logs.ts'
import { useLongWork } from '../../ui/useLongWork.ts'
import { usePieceNotes } from '../../state/teaching.ts'
import type { Instead } from './EasierHere.tsx'
import type { Loop } from './LessonFoot.tsx'
import { useTaught } from './useTaught.ts'
import { useTeachActions } from './useTeachActions.ts'

export const VIEWS = ['step', 'piece', 'script', 'drills', 'plan', 'log'] as const
type View = (typeof VIEWS)[number]

export type ShownLesson = ReturnType<typeof useLesson>

/** What the lesson is kept to, as far as that was said. */
interface Bounds {
  readonly from?: SheetPosition | undefined
  readonly to?: SheetPosition | undefined
}

const NO_STEPS: readonly LessonStep[] = []
const NO_PIECES: readonly Piece[] = []

const START: SheetPosition = { measure: 0, tick: 0 }

const endOf = ({ measures }: TuneDoc): SheetPosition => ({
  measure: measures.length - 1,
  tick: Math.max(0, (measures.at(-1)?.length ?? 1) - 1),
})

/** A lesson as it is shown: what is taught to whom, where it stands, which view of it, what is looped and heard. */
export function useLesson(tune: TuneDoc, written: ArrangementDoc) {
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
  const usual = useMemo(() => sheetModel(tune, doc), [tune, doc])
  const lesson = useLongWork(
    useCallback(() => teaching(tune, doc, settings, log), [tune, doc, settings, log]),
  )
  // Pieces and plans are those of the whole, whatever layer is looked at.
  const ofWhole = useLongWork(
    useMemo(
      () => (doc === whole ? undefined : () => teaching(tune, whole, settings, log)),
      [tune, doc, whole, settings, log],
    ),
  )
  const plan = doc === whole ? lesson : ofWhole
  const steps = lesson?.steps ?? NO_STEPS
  const pieces = plan?.pieces ?? NO_PIECES
  const [left] = useState(() => lessonPlace(tune.id))
  const [chosen, setChosen] = useState<number>()
  const begun = useMemo(() => (left ? nearest(steps, left) : 0), [left, steps])
  const moveIndex = useCallback(
    (next: (now: number) => number) => setChosen((now) => next(now ?? begun)),
    [begun],
  )
  const index = Math.min(chosen ?? begun, Math.max(0, steps.length - 1))
  const [loop, setLoop] = useState<Loop>('none')
  const [view, setView] = useState<View>(() => VIEWS.find((v) => v === left?.view) ?? 'step')
  const step = steps[index]
  useEffect(() => {
    if (step) keepLessonPlace(tune.id, { measure: step.measure, tick: step.tick, view })
  }, [tune.id, step, view])
  const model = useModelOfPass(tune, doc, usual, step)
  const position = useMemo(() => step && { measure: step.measure, tick: step.tick }, [step])
  const piece = position && pieces.find((p) => isInPiece(p, position))
  const [bounds, setBounds] = useState<Bounds>({})
  const kept = useMemo(
    () =>
      bounds.from || bounds.to
        ? betweenBeats(tune, bounds.from ?? START, bounds.to ?? endOf(tune))
        : undefined,
    [tune, bounds],
  )
  const looped = useMemo((): Stretch | undefined => {
    if (!position || loop === 'none') return undefined
    if (loop === 'beat') return beatAt(tune, position)
    if (loop === 'piece' && piece) return stretchOf(tune, piece)
    if (loop === 'own' && kept) return kept
    return measuresFrom(tune, loop === 'start' ? 0 : position.measure, position.measure)
  }, [tune, position, loop, piece, kept])
  const marked = useMemo(() => looped && { from: looped.from.measure, to: looped.to.measure }, [looped])
  // What is looped is heard from its beginning.
  const from = looped && loop !== 'measure' ? looped.from : position
  const { toggle, cursor } = usePlaying(model, from, looped)
  const hand = useMemo(
    () => step && withLifted(withReadyFingers(handAt(model, step)), step.hand.lifts),
    [model, step],
  )
  const plucked = useMemo(
    () =>
      position ? (model.notes.get(position.measure) ?? []).filter((n) => n.pos.tick === position.tick) : [],
    [model, position],
  )
  const toScript = useCallback(() => setView((v) => (v === 'script' ? 'step' : 'script')), [])
  const range = useMemo((): readonly [number, number] => {
    const inside = kept ? steps.flatMap((s, i) => (isWithin(kept, s) ? [i] : [])) : []
    return inside.length > 0 ? [inside[0]!, inside.at(-1)!] : [0, steps.length - 1]
  }, [steps, kept])
  const go = useTeachActions(steps, index, moveIndex, toggle, toScript, range)
  const toMeasure = (measure: number, tick = 0) => setChosen(stepFrom(steps, measure, tick))
  return {
    ...{ taught, student, own, notes, log, instead, setInstead, layer, setLayer },
    ...{ model, lesson, plan, steps, pieces, piece, view, setView },
    ...{
      step,
      index,
      setIndex: setChosen,
      position,
      marked,
      loop,
      setLoop,
      hand,
      plucked,
      toggle,
      cursor,
      go,
      toMeasure,
    },
    first: index <= range[0],
    last: index >= range[1],
    /** The first and the last beat that the lesson is kept to; absent where it is the whole tune. */
    beats: useMemo(() => {
      const [a, b] = kept ? [steps[range[0]], steps[range[1]]] : []
      return a && b ? { from: a, to: b } : undefined
    }, [kept, steps, range]),
    /** Has the lesson begin or end at the beat that is shown, or go over the whole tune again. */
    changeBounds(change: 'from' | 'to' | 'whole') {
      if (change !== 'whole') return setBounds({ ...bounds, [change]: position })
      setBounds({})
      if (loop === 'own') setLoop('none')
    },
    toSheet: (s: SheetPosition) => setChosen(nearest(steps, s)),
    /** Looks at a step of the learning order, in the view and with the loop that it is learnt with. */
    toLearningStep(s: LearningStep) {
      const to = placeOf(s)
      toMeasure(to.measure, to.tick)
      setLoop(s.kind === 'piece' ? 'piece' : s.kind === 'join' ? 'start' : 'none')
      setView(s.kind === 'change' ? 'drills' : s.kind === 'piece' ? 'piece' : 'step')
    },
    /** Loops the piece at a tempo. */
    loopAt(bpm: number) {
      setLoop('piece')
      player.set({ tempo: bpm / (tune.tempos[0]?.bpm ?? bpm) })
    },
  }
}

/** The sheet as it is played at a step: with the version of its pass, where it has one. */
function useModelOfPass(
  tune: TuneDoc,
  doc: ArrangementDoc,
  usual: SheetModel,
  step: LessonStep | undefined,
): SheetModel {
  const version =
    step?.pass === undefined
      ? undefined
      : passVersions(tune, doc).find(
          (v) => v.pass === step.pass && v.from <= step.measure && step.measure <= v.to,
        )?.variant
  return useMemo(
    () => (version ? sheetModel(tune, { ...doc, base: withVariant(doc.base, version) }) : usual),
    [tune, doc, usual, version],
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
function stepFrom(steps: readonly LessonStep[], measure: number, tick: number): number {
  const at = steps.findIndex((s) => s.measure > measure || (s.measure === measure && s.tick >= tick))
  return Math.max(0, at)
}

/** The step that stands at a spot of the sheet, or the last one before it. */
function nearest(steps: readonly LessonStep[], position: SheetPosition): number {
  const at = steps.findLastIndex(
    (s) =>
      s.pass === undefined &&
      (s.measure < position.measure || (s.measure === position.measure && s.tick <= position.tick)),
  )
  return Math.max(0, at)
}
