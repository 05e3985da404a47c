import type { Layer, Region } from '../../document/arrangement.ts'
import { measureAt, timelineOf, ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Id } from '../../document/ids.ts'
import { isLockOf, type Lock, type LockField, type LockValues } from '../../document/locks.ts'
import { regionAt } from '../../document/regions.ts'
import type { Grip, TabNote } from '../../document/tab.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { LeftFinger } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { harmonyLine } from '../plan/harmonyLine.ts'
import { WEIGHTS } from '../search/weights.ts'
import { findingAlike } from './alikeMoments.ts'
import { graceFinger } from './graceFinger.ts'
import { makingGrips, withOwnIds } from './gripsOf.ts'
import { cheapestHands } from './handPath.ts'
import { handStates, stateOnPage, type GivenFingers, type HandState } from './handStates.ts'
import { findingMoments, isStruckAt, joinedFrom, type Moment } from './moments.ts'
import { handsOf } from './handsOf.ts'
import { withoutIdleFingers } from './idleFingers.ts'
import { sameFingersBack } from './sameFingersBack.ts'
import { withReasons } from './gripReasons.ts'
import { inTime, reaching } from './reaching.ts'
import { repicking } from './repick.ts'
import { findingShapes, latestInTime, type MomentShapes } from './shapesInForce.ts'

/** What a tab is played on, and where in which style. */
export interface TabContext {
  readonly tune: TuneDoc
  readonly setup: Setup
  readonly regions: readonly Region[]
  /** Semitones by which the tab sounds above what the tune writes. */
  readonly transposed?: number
}

/**
 * Both hands of some measures of a tab whose places are given: fingers, the grips that they belong to, picking. The
 * fretting hand is searched with the shapes and the prices of the arranger: what is given is kept, what is free is found.
 * What was set by hand (locks `left` and `right`) stays, and so does what stands before and after.
 * @param keep true where the fingers on the page are kept as far as the hand allows
 */
export function* findingHands(
  layer: Layer,
  context: TabContext,
  measures: ReadonlySet<Id>,
  keep: boolean,
): Turns<Layer> {
  const { tune, setup, regions } = context
  const timeline = timelineOf(tune.measures)
  let { notes, grips } = layer
  const fixed = fixedBy(layer.locks, 'left')
  for (const stretch of stretches(tune, measures, timeline)) {
    const found = yield* frettingHand({ ...layer, notes, grips }, context, timeline, stretch, fixed, keep)
    notes = found.notes
    grips = found.grips
  }
  notes = yield* repicking(notes, timeline, tune, setup, regions, measures, fixedBy(layer.locks, 'right'))
  yield
  const last = tune.measures.at(-1)!
  const reached = reaching(grips, timeline, { measure: last.id, tick: last.length })
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, context.transposed ?? 0)
  yield
  const isFound = (at: Ticks) => measures.has(tune.measures[measureAt(timeline, at)]!.id)
  const handAt = handsOf(tune, setup, regions, timeline)
  const back = sameFingersBack({ ...layer, notes, grips: reached }, handAt, timeline, harmony, isFound)
  const tidied = withoutIdleFingers({ ...layer, ...back }, handAt, timeline, harmony, isFound)
  yield
  return {
    ...layer,
    notes: back.notes,
    grips: withReasons(tidied, back.notes, tune, setup, timeline, isFound),
  }
}

/** The same, all at once: for what is typed and seen at once. */
export const withHands = (
  layer: Layer,
  context: TabContext,
  measures: ReadonlySet<Id>,
  keep: boolean,
): Layer => finish(findingHands(layer, context, measures, keep))

/** A stretch of written time, the end exclusive. */
interface Stretch {
  readonly from: Ticks
  readonly to: Ticks
}

/** The fretting hand of a stretch: its notes with their fingers, and the page's grips with those of the stretch anew. */
function* frettingHand(
  layer: Layer,
  { tune, setup, regions, transposed = 0 }: TabContext,
  timeline: Timeline,
  stretch: Stretch,
  locked: ReadonlyMap<Id, LeftFinger>,
  keep: boolean,
): Turns<{ notes: readonly TabNote[]; grips: readonly Grip[] }> {
  const isInside = ({ at }: Pick<Moment, 'at'>) => at >= stretch.from && at < stretch.to
  const moments = yield* findingMoments(layer, tune, timeline, withNeighbours(layer.notes, timeline, stretch))
  const onPage = inTime(layer.grips, timeline).map((grip) => ({ at: ticksAt(timeline, grip.pos), grip }))
  yield
  const harmony = harmonyLine(tune, timeline, setup.capo[0]!, transposed)
  const shapes = yield* findingShapes(moments, tune, timeline, setup, harmony, keep ? onPage : [])
  const given: GivenFingers = {
    keep,
    fixed: ({ note, start }) =>
      locked.get(note.id) ?? (start < stretch.from && note.left !== 0 ? note.left : undefined),
  }
  const statesAt = rememberingStates(setup, given)
  const gripAt = latestInTime(onPage, (g) => g.at)
  const held = yield* mapInTurns(
    moments,
    (moment, t) => {
      if (isInside(moment)) return { moment, states: statesAt(moment, shapes[t]!) }
      const grip = gripAt(moment.at)?.grip
      const now = grip ? { pressed: pressedOf(grip.pressed), position: grip.position } : NO_GRIP
      return { moment, states: [stateOnPage(setup, now, moment.sounding)] }
    },
    2,
  )
  const shares = new Map<number, number>()
  const shiftShare = ({ measure }: Moment) => {
    const known = shares.get(measure)
    if (known !== undefined) return known
    const region = regions[regionAt(tune, regions, tune.measures[measure]!.id)]
    const share = region?.school?.hand === 'position' ? WEIGHTS.positionFirm : 1
    shares.set(measure, share)
    return share
  }
  const states = yield* cheapestHands(held, {
    setup,
    joinedFrom: joinedFrom(layer.spans, layer.notes),
    shiftShare,
    alike: yield* findingAlike(moments.filter(isInside), tune, timeline, moments.findIndex(isInside)),
  })
  const notes = yield* withFingers(layer.notes, moments, states, isInside)
  const fresh = yield* makingGrips(
    { ...layer, notes },
    moments.map((moment, t) => ({ moment, state: states[t]! })).filter(({ moment }) => isInside(moment)),
    tune,
    timeline,
    new Map(onPage.map((g) => [g.at, g.grip])),
  )
  const others = onPage.filter((g) => !isInside(g)).map((g) => g.grip)
  return { notes, grips: [...others, ...withOwnIds(fresh, others)] }
}

/** The states of moments; those that ask the same of the hand share theirs. */
function rememberingStates(
  setup: Setup,
  given: GivenFingers,
): (moment: Moment, shapes: MomentShapes) => HandState[] {
  const known = new Map<MomentShapes, Map<string, HandState[]>>()
  const statesOf = (moment: Moment, shapes: MomentShapes): HandState[] => {
    const own = known.get(shapes) ?? new Map<string, HandState[]>()
    known.set(shapes, own)
    const key = [moment.beats, moment.open, moment.guessed, ...moment.sounding.map((s) => asked(s))].join(';')
    const before = own.get(key)
    if (before) return before
    const states = handStates(setup, moment, shapes, given)
    own.set(key, states)
    return states

    function asked(s: Moment['sounding'][number]): string {
      const { place, left, role, graces } = s.note
      const graced = graces?.map((g) => g.place.fret).join(' ')
      const settled = given.keep ? left : given.fixed(s)
      const struck = isStruckAt(moment, s)
      return [
        place.string,
        place.fret,
        place.harmonic,
        struck,
        role,
        s.bar,
        graced,
        settled,
        given.fixed(s),
        s.awaited,
      ].join()
    }
  }
  return statesOf
}

const NO_GRIP = { pressed: [], position: 1 }

/** A stretch with the moment before it and the one behind it, between which its hand must pass. */
function withNeighbours(notes: readonly TabNote[], timeline: Timeline, { from, to }: Stretch): Stretch {
  let before = -Infinity
  let after = Infinity
  for (const n of notes) {
    const at = ticksAt(timeline, n.pos)
    if (at < from) before = Math.max(before, at)
    else if (at >= to) after = Math.min(after, at)
  }
  return { from: Number.isFinite(before) ? before : from, to: Number.isFinite(after) ? after + 1 : to }
}

function* withFingers(
  notes: readonly TabNote[],
  moments: readonly Moment[],
  states: readonly HandState[],
  isInside: (moment: Moment) => boolean,
): Turns<TabNote[]> {
  const fingerOf = new Map<Id, LeftFinger>()
  moments.forEach((moment, t) => {
    if (!isInside(moment)) return
    for (const s of moment.sounding)
      if (s.start === moment.at) fingerOf.set(s.note.id, states[t]!.fingers[s.note.place.string - 1]!)
  })
  return yield* mapInTurns(
    notes,
    (n) => {
      const left = fingerOf.get(n.id)
      return left === undefined || left === n.left ? n : withFinger(n, left)
    },
    2048,
  )
}

function withFinger(note: TabNote, left: LeftFinger): TabNote {
  const { graces } = note
  if (!graces) return { ...note, left }
  const own = { place: note.place, left }
  return { ...note, left, graces: graces.map((g) => ({ ...g, left: graceFinger(own, g.place.fret) })) }
}

/** Values of one field that are locked, by what they belong to. */
function fixedBy<F extends LockField>(locks: readonly Lock[], field: F): Map<Id, LockValues[F]> {
  return new Map(locks.filter(isLockOf(field)).map((l) => [l.target, l.value as LockValues[F]] as const))
}

/** Measures that stand one after the other, as stretches of written time. */
function stretches(tune: TuneDoc, measures: ReadonlySet<Id>, { starts, length }: Timeline): Stretch[] {
  const found: { from: number; to: number }[] = []
  tune.measures.forEach((m, i) => {
    if (!measures.has(m.id)) return
    const from = starts[i]!
    const to = starts[i + 1] ?? length
    const last = found.at(-1)
    if (last?.to === from) last.to = to
    else found.push({ from, to })
  })
  return found
}
