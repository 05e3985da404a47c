import { message, type Message } from '../../messages/message.ts'
import type { Id } from '../../document/ids.ts'
import {
  ARRANGEMENT_SCHEMA,
  type ArrangementDoc,
  type Layer,
  type Region,
} from '../../document/arrangement.ts'
import { isAccompaniment, type Level, type Style } from '../../document/style.ts'
import type { School } from '../../document/school.ts'
import { ticksAt, type Timeline } from '../../document/form/timeline.ts'
import type { Pos, TuneDoc } from '../../document/tune.ts'
import { pitchText } from '../../music/pitch/pitch.ts'
import { rangeOf, type Setup } from '../../instrument/setup.ts'
import { plainPitch } from '../../music/pitch/pitch.ts'
import { measureNumbers } from '../../document/form/measureNumbers.ts'
import { planning, type Plan } from '../plan/plan.ts'
import type { Register } from '../plan/register.ts'
import { refusalOf } from '../plan/styleRules.ts'
import { withBassTune } from '../bassTune/withBassTune.ts'
import { slide } from '../slide/slide.ts'
import { straightAcross } from '../slide/straightAcross.ts'
import { accompany } from '../accompany/accompany.ts'
import type { LeftOrnament } from '../ornament/ornamentPage.ts'
import { movedNotes } from '../accompany/movedNotes.ts'
import type { AccompanyRemark } from '../accompany/remark.ts'
import { handsOf } from '../manual/handsOf.ts'
import { withoutIdleFingers } from '../manual/idleFingers.ts'
import { withLastChord } from './withLastChord.ts'
import { withRolls } from './withRolls.ts'
import { withClose } from './withClose.ts'
import { sameFingersBack } from '../manual/sameFingersBack.ts'
import { layingOverManualEdits } from '../manual/layOver.ts'
import { finish, within, scaled } from '../../turns.ts'
import { inputHash } from '../../document/freshness/inputHash.ts'
import { writing } from '../search/layerOf.ts'
import { LockConflict } from '../search/lockConflict.ts'
import { withLockedMeasures } from '../search/measureLocks.ts'
import { locksOfMeasures, ownLocks, typedPlaces, type PassingLock } from '../search/passingLocks.ts'
import { newMemory, prepare, type SolveMemory } from '../search/prepare.ts'
import { solve, type Solution } from '../search/solve.ts'

/** The tune cannot be arranged on this setup. `measure` is the number printed on the page. */
export class ArrangeError extends Error {
  override readonly name = 'ArrangeError'
  constructor(
    /** Why, with the way out. */
    readonly says: Message<'arranging'>,
    readonly measure?: number,
    /** The teacher's locks that contradict. */
    readonly locks: readonly Id[] = [],
  ) {
    super(`${says.code} ${JSON.stringify(says.values)}`)
  }
}

export interface Arranged {
  readonly layer: Layer
  readonly plan: Plan
  readonly solution: Solution
  /** Locks whose note or measure no longer exists. */
  readonly idleLocks: readonly Id[]
  /** What an accompaniment could not do as asked. */
  readonly remarks: readonly AccompanyRemark[]
  /** Ornaments of the source that are not played. */
  readonly ornamentsLeft: readonly LeftOrnament[]
}

/** What else an arrangement is made from, besides tune, setup and regions. */
export interface ArrangeOptions {
  readonly locks?: readonly PassingLock[]
  /** Candidates kept from an earlier solve with the same setup and pins. */
  readonly memory?: SolveMemory
}

/**
 * Arranges a tune: plan, then both hands. A generator that yields the share done and may be dropped at any yield.
 * @throws ArrangeError where the melody lies outside the instrument in every octave, the style is not for it, or locks
 * contradict
 */
export function* arranging(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  { locks = [], memory = newMemory() }: ArrangeOptions = {},
): Generator<number, Arranged> {
  const lockedRegions = withLockedMeasures(tune, regions, locks)
  // To a tab that is given nothing is added: no style can be wrong for it.
  const free = lockedRegions.filter((r) => !r.given)
  for (const { style, level } of free) refuse(style, level, setup)
  if (free.some((r) => r.style === 'bottleneck') && !straightAcross(setup))
    throw new ArrangeError(message('arranging.noOpenChord'))
  const silent = tune.events.every((e) => !e.pitch)
  // A blank page is arranged as it is: empty, to be written on.
  if (silent && tune.chords.length > 0 && free.some((r) => !isAccompaniment(r.style)))
    throw new ArrangeError(message('arranging.noMelody'))
  const planned = yield* within(0, planning(tune, setup, lockedRegions))
  const numbers = measureNumbers(tune.measures)
  if (!planned.ok) throw misfit(planned.register, setup, numbers)
  const { plan } = planned
  const measureIds = tune.measures.map((m) => m.id)
  const asked = [...locks, ...locksOfMeasures(locks)]
  const solved = function* (all: readonly PassingLock[]) {
    const prepared = yield* scaled(prepare(plan, setup, all, measureIds, memory), 0, PREPARING)
    return { prepared, solution: yield* scaled(solve(plan, prepared, memory.traces), PREPARING, 1) }
  }
  const typed = typedPlaces(locks)
  try {
    let found
    try {
      found = yield* solved([...asked, ...typed])
    } catch (error) {
      // What was typed need not be what this level would do: then it is laid over the rest as it is.
      if (!(error instanceof LockConflict) || !error.locks.some((l) => l.standsFor === 'typed')) throw error
      found = yield* solved(asked)
    }
    const { prepared, solution } = found
    const { layer, ornamentsLeft } = yield* within(1, writing(plan, solution, tune, setup, locks))
    const bottle = slide(tune, setup, plan)
    yield 1
    const backing = accompany(tune, setup, plan, lockedRegions)
    yield 1
    const low = yield* within(1, withBassTune({ tune, setup, regions: lockedRegions }, plan))
    const all = [bottle, low, backing].reduce<Layer>((sum, part) => joined(sum, part, plan.timeline), layer)
    const handAt = handsOf(tune, setup, lockedRegions, plan.timeline)
    const back = { ...all, locks, ...sameFingersBack({ ...all, locks }, handAt, plan.timeline, plan.harmony) }
    const whole = {
      ...all,
      ...back,
      grips: withoutIdleFingers(back, handAt, plan.timeline, plan.harmony),
    }
    const breathing = withRolls(whole, plan.regions, tune.measures, setup.instrument)
    const closed = withClose(
      withLastChord(breathing, lockedRegions, tune.measures, plan.timeline, plan.harmony, setup),
      regions,
      plan.timeline,
    )
    const context = { tune, setup, regions: lockedRegions }
    return {
      layer: yield* within(1, layingOverManualEdits(closed, context, locks)),
      plan,
      solution,
      idleLocks: prepared.locks.idle,
      remarks: [...movedNotes(setup, plan), ...backing.remarks],
      ornamentsLeft,
    }
  } catch (error) {
    if (!(error instanceof LockConflict)) throw error
    const number = numbers[error.measure]!
    const own = ownLocks(error.locks)
    throw new ArrangeError(conflictOf(number, own.length), number, own)
  }
}

/** Solo and accompanied parts in one layer, in order of time; a grip ends where the next begins. */
function joined(
  solo: Layer,
  backing: Pick<Layer, 'notes' | 'grips'> & Partial<Pick<Layer, 'spans'>>,
  timeline: Timeline,
): Layer {
  if (backing.notes.length === 0) return solo
  const byTime = (a: { pos: Pos }, b: { pos: Pos }) => ticksAt(timeline, a.pos) - ticksAt(timeline, b.pos)
  const grips = [...solo.grips, ...backing.grips].sort(byTime)
  return {
    ...solo,
    notes: [...solo.notes, ...backing.notes].sort(byTime),
    spans: [...solo.spans, ...(backing.spans ?? [])],
    grips: grips.map((g, i) => {
      const next = grips[i + 1]
      return next && ticksAt(timeline, next.pos) < ticksAt(timeline, g.until) ? { ...g, until: next.pos } : g
    }),
  }
}

/** Share of the work before the search. */
const PREPARING = 0.5

function conflictOf(number: number, locks: number): Message<'arranging'> {
  if (locks === 0) return message('arranging.neighbours', { number })
  return locks === 1
    ? message('arranging.oneLock', { number })
    : message('arranging.locks', { number, locks })
}

function refuse(style: Style, level: Level, setup: Setup): void {
  const refusal = refusalOf(style, level, setup.instrument)
  if (refusal) throw new ArrangeError(message(`arranging.${refusal}`))
}

function misfit(register: Register & { ok: false }, setup: Setup, numbers: readonly number[]): ArrangeError {
  const number = numbers[register.measure]!
  const range = rangeOf(setup)
  const named = (midi: number) => pitchText(plainPitch(midi, false))
  const values = { number, lowest: named(range.lowest), highest: named(range.highest) }
  return new ArrangeError(
    message(register.reason === 'wide' ? 'arranging.tooWide' : 'arranging.outOfReach', values),
    number,
  )
}

export { finish }

/** One region over the whole tune. */
export function wholeTune(tune: TuneDoc, style: Style, level: Level, school?: School): Region[] {
  const [from, to] = [tune.measures[0]!.id, tune.measures.at(-1)!.id]
  return [{ from, to, style, level, ...(school ? { school } : {}) }]
}

/** A new arrangement document around an arranged layer. */
export function arrangementOf(
  id: Id,
  name: string,
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  arranged: { readonly layer: Layer; readonly transposed: number },
): ArrangementDoc {
  return {
    schema: ARRANGEMENT_SCHEMA,
    id,
    rev: 1,
    name,
    tuneId: tune.id,
    tuneRev: tune.rev,
    inputHash: inputHash(tune, setup, regions, arranged.layer.locks),
    setup,
    regions,
    transposed: arranged.transposed,
    base: arranged.layer,
    variants: [],
  }
}
