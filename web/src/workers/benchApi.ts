import { transfer } from 'comlink'
import type { PackedRecording } from '@velvet-porch/core/formats'
import type { Setup } from '@velvet-porch/core/instrument'
import {
  inputHash,
  type ArrangementDoc,
  type Id,
  type Layer,
  type Region,
  measureNumbers,
  toTaste,
  type TabNote,
  type TasteInForce,
  type TuneDoc,
} from '@velvet-porch/core/document'
import {
  fitTaste,
  noticesOf,
  type Comparison,
  type TasteDoc,
  type TasteFit,
  type TasteNotice,
} from '@velvet-porch/core/taste'
import {
  accompany,
  alternativesFor,
  arranging,
  ArrangeError,
  harmonise,
  versionsByEffort,
  leftOut,
  makePlan,
  betterKey,
  type BetterKey,
  movedNotes,
  newMemory,
  type AccompanyRemark,
  type Alternative,
  type Arranged,
  type HarmonyCandidate,
  type LeftOrnament,
  type LeftOut,
  type PassingLock,
  type MeasureRange,
  type Plan,
  type EffortVersion,
  type SolveMemory,
} from '@velvet-porch/core/arrange'
import { audit, type AuditReport } from '@velvet-porch/core/audit'
import { finishedTabOf, tabJson } from '@velvet-porch/core/output'
import type { ReadingNeeds, TextUnderstood, TuneUnderstood } from '@velvet-porch/core/input/any'
import { finish } from '@velvet-porch/core/turns'
import { readingAbc, type TuneReading } from '@velvet-porch/core/input/abc'
import { breathe, inTurns } from './inTurns.ts'
import { message, type Message } from '@velvet-porch/core/messages'
import { newId } from '../newId.ts'

export type ArrangeReply =
  | {
      readonly kind: 'done'
      readonly layer: Layer
      readonly transposed: number
      readonly ms: number
      /** Locks whose note is not played any more. */
      readonly idleLocks: readonly Id[]
    }
  | { readonly kind: 'cancelled' }
  | {
      readonly kind: 'failed'
      readonly says: Message<'arranging'>
      readonly measure?: number
      /** Locks that contradict. */
      readonly locks: readonly Id[]
    }
  /** The worker was lost over it. */
  | { readonly kind: 'lost'; readonly error: unknown }

/** What is to be arranged. */
export interface ArrangeOrder {
  readonly tune: TuneDoc
  readonly setup: Setup
  readonly regions: readonly Region[]
  readonly locks: readonly PassingLock[]
}

/** Why a document cannot be used. */
export interface DocumentRefusal {
  readonly reason: string
  /** True where nothing is wrong with it: a newer version of the app wrote it. */
  readonly newer: boolean
}

/** What lies in a zip with everything; or why it is none. */
export type Unpacked =
  | { readonly text: Uint8Array<ArrayBuffer>; readonly recordings: readonly PackedRecording[] }
  | { readonly says: Message<'files'> }

/** Why a stored tune, or its arrangement, cannot be used; neither where both can. */
export interface CheckReply {
  readonly tune?: DocumentRefusal
  readonly arrangement?: DocumentRefusal
}

/** Who reads a text, and how what it leaves open is taken. */
export type ReadingOrder = Omit<ReadingNeeds, 'newId'>

/** A reading without its tune where storage would not take it, and why. */
function kept<R extends TuneReading | TuneUnderstood>(
  reading: R,
  check: (tune: TuneDoc) => DocumentRefusal | undefined,
): R {
  const refusal = reading.tune && check(reading.tune)
  if (!refusal) return reading
  const refused = {
    severity: 'error',
    line: 1,
    column: 1,
    says: message('reading.notKept', { reason: refusal.reason }),
  } as const
  return { ...reading, tune: undefined, problems: [...reading.problems, refused] }
}

/** Onsets of one measure, or one of them. */
export interface AlternativesTarget {
  readonly measure: number
  /** Ticks from the start of the measure; absent for the whole of it. */
  readonly tick?: number
}

let cancelled = new Set<number>()

/** Why a document cannot be read; nothing where it can. */
function refusalOf(read: () => unknown): DocumentRefusal | undefined {
  try {
    read()
    return undefined
  } catch (error) {
    const { message, newer = false } = error as Error & { readonly newer?: boolean }
    return { reason: message, newer }
  }
}

/** Ways that are offered for a moment or a measure. */
const MOST_WAYS = 8

/** More candidate sets than this are not kept: a long tune in several styles. */
const MOST_SETS = 3000

/** Candidates of the setup that was last worked on, and the last result: a small change starts from them. */
let warm: { readonly setup: string; readonly memory: SolveMemory } | undefined
let last: { readonly hash: string; readonly tune: string; readonly arranged: Arranged } | undefined

function memoryFor({ tune, setup, regions }: ArrangeOrder): SolveMemory {
  const key = JSON.stringify([setup, tune.pins ?? [], regions.map((r) => r.taste?.shapes ?? [])])
  if (warm?.setup !== key || warm.memory.sets.size > MOST_SETS) warm = { setup: key, memory: newMemory() }
  return warm.memory
}

const arrangingOf = (order: ArrangeOrder) =>
  arranging(order.tune, order.setup, order.regions, { locks: order.locks, memory: memoryFor(order) })

const hashOf = ({ tune, setup, regions, locks }: ArrangeOrder) => inputHash(tune, setup, regions, locks)

/** The result for an order: the last one where it is the same. */
function arrangedAs(order: ArrangeOrder): Arranged {
  const hash = hashOf(order)
  if (last?.hash !== hash || last.tune !== order.tune.id)
    last = { hash, tune: order.tune.id, arranged: finish(arrangingOf(order)) }
  return last.arranged
}

/** Everything that the bench's worker can be asked. */
export const benchApi = {
  /** Reads ABC, tune by tune; every tune gets a fresh id, and none is returned that storage would not take. */
  async read(text: string): Promise<TuneReading[]> {
    const { readTuneDoc } = await import('@velvet-porch/core/schema')
    const readings = await inTurns(readingAbc(text, newId))
    return readings.map(({ tune, problems }) =>
      kept<TuneReading>({ tune, problems }, (read) => refusalOf(() => readTuneDoc(read))),
    )
  },

  /** Checks what storage holds of a tune and its arrangement; why either cannot be used, or nothing. */
  async check(tune: unknown, arrangement: unknown): Promise<CheckReply> {
    const { readTuneDoc, readArrangementDoc } = await import('@velvet-porch/core/schema')
    const ofTune = refusalOf(() => readTuneDoc(tune))
    if (ofTune) return { tune: ofTune }
    const ofTab =
      arrangement === undefined
        ? undefined
        : refusalOf(() => readArrangementDoc(arrangement, tune as TuneDoc))
    return ofTab ? { arrangement: ofTab } : {}
  },

  /** Reads a text of any kind, tune by tune; none is returned that storage would not take. */
  async understand(text: string, order: ReadingOrder): Promise<TextUnderstood> {
    const { readTuneDoc } = await import('@velvet-porch/core/schema')
    const { readingAny } = await import('@velvet-porch/core/input/any')
    const { kind, tunes } = await inTurns(readingAny(text, { ...order, newId }))
    return { kind, tunes: tunes.map((t) => kept(t, (tune) => refusalOf(() => readTuneDoc(tune)))) }
  },

  /**
   * Everything as a zip, with pieces that are read without the app.
   * @param text the whole, as its rows were written
   */
  async pack(
    text: Blob,
    recordings: readonly PackedRecording[],
    onProgress: (share: number) => void,
  ): Promise<Uint8Array<ArrayBuffer>> {
    const { zippingShelf } = await import('@velvet-porch/core/formats')
    const whole = new Uint8Array(await text.arrayBuffer())
    const bytes = new Uint8Array(await inTurns(zippingShelf(whole, recordings), { onProgress }))
    return transfer(bytes, [bytes.buffer])
  },

  /** The text of such a zip that brings everything back, and its recordings; or why there is none. */
  async unpack(zip: Uint8Array): Promise<Unpacked> {
    const { backupInZip, recordingsInZip, ShelfZipError } = await import('@velvet-porch/core/formats')
    try {
      const text = new Uint8Array(backupInZip(zip))
      return transfer({ text, recordings: recordingsInZip(zip) }, [text.buffer])
    } catch (error) {
      if (error instanceof ShelfZipError) return { says: error.says }
      throw error
    }
  },

  /** Arranges a tune, telling its progress (0 to 1) and stopping soon after `cancel(job)`. */
  async arrange(
    job: number,
    order: ArrangeOrder,
    onProgress: (share: number) => void,
  ): Promise<ArrangeReply> {
    const started = performance.now()
    try {
      const run = arrangingOf(order)
      const arranged = await inTurns(run, { onProgress, isStopped: () => cancelled.has(job) })
      if (!arranged) return { kind: 'cancelled' }
      const { layer, plan, idleLocks } = arranged
      last = { hash: hashOf(order), tune: order.tune.id, arranged }
      const ms = performance.now() - started
      return { kind: 'done', layer, transposed: plan.transposed, ms, idleLocks }
    } catch (error) {
      if (error instanceof ArrangeError)
        return {
          kind: 'failed',
          says: error.says,
          locks: error.locks,
          ...(error.measure === undefined ? {} : { measure: error.measure }),
        }
      throw error
    } finally {
      cancelled = new Set([...cancelled].filter((c) => c > job))
    }
  },

  /** Other ways to play an onset or a measure of an arrangement, next best first. */
  alternatives(order: ArrangeOrder, target: AlternativesTarget): Alternative[] {
    const { plan, solution } = arrangedAs(order)
    const slices = slicesOf(plan, target)
    return slices ? alternativesFor(order.tune, order.setup, plan, solution, slices, MOST_WAYS) : []
  },

  /** Three harmonies for a bare melody. */
  harmonise(tune: TuneDoc): HarmonyCandidate[] {
    return harmonise(tune)
  },

  /** Judges a finished arrangement from its notes alone. */
  audit(tune: TuneDoc, doc: ArrangementDoc): AuditReport | undefined {
    const planned = makePlan(tune, doc.setup, doc.regions)
    return planned.ok
      ? audit(finishedTabOf(tabJson(tune, doc.setup, planned.plan, doc.base, [], 0)))
      : undefined
  },

  /** What of the source's two parts an arrangement leaves out. */
  leftOut(tune: TuneDoc, doc: ArrangementDoc): LeftOut[] {
    const planned = makePlan(tune, doc.setup, doc.regions)
    return planned.ok ? leftOut(planned.plan, doc.base, tune) : []
  },

  /** Another key and capo, where this one does not let the melody lie as style and level want it. */
  betterKey(tune: TuneDoc, doc: ArrangementDoc): BetterKey | null {
    const planned = makePlan(tune, doc.setup, doc.regions)
    return planned.ok ? (betterKey(tune, doc.setup, planned.plan) ?? null) : null
  },

  /** What an accompaniment could not do as asked. */
  remarks(tune: TuneDoc, doc: ArrangementDoc): readonly AccompanyRemark[] {
    const planned = makePlan(tune, doc.setup, doc.regions)
    if (!planned.ok) return []
    const { plan } = planned
    return [...movedNotes(doc.setup, plan), ...accompany(tune, doc.setup, plan, doc.regions).remarks]
  },

  /** Ornaments of the source that an arrangement does not play: known from the arranging itself. */
  ornamentsLeft(tune: TuneDoc, { setup, regions, base }: ArrangementDoc): readonly LeftOrnament[] {
    return arrangedAs({ tune, setup, regions, locks: base.locks }).ornamentsLeft
  },

  /** Easier and fuller versions of some measures, by effort. */
  async versions(order: ArrangeOrder, range: MeasureRange): Promise<EffortVersion[]> {
    const { tune, setup, regions, locks } = order
    const run = versionsByEffort(tune, setup, regions, locks, range, memoryFor(order))
    for (let item = run.next(); ; item = run.next()) {
      if (item.done) return item.value
      await breathe()
    }
  },

  /** What the corrections that are kept in a taste say. */
  notices(taste: TasteDoc): TasteNotice[] {
    return noticesOf(taste)
  },

  /** What corrections come to. */
  fit(comparisons: readonly Comparison[]): TasteFit {
    return fitTaste(comparisons)
  },

  /** An arrangement as it would be to another taste, and the measures (as they are printed) in which it would be otherwise. */
  async tasteChange(
    tune: TuneDoc,
    { setup, regions, base }: ArrangementDoc,
    taste: TasteInForce | undefined,
  ): Promise<TasteChange> {
    const order = { tune, setup, regions: toTaste(regions, taste), locks: base.locks }
    const { layer } = await inTurns(arrangingOf(order))
    const known = new Map(base.notes.map((n) => [n.id, soundOf(n)]))
    const there = new Set(layer.notes.map((n) => n.id))
    const otherwise = new Set([
      ...layer.notes.filter((n) => known.get(n.id) !== soundOf(n)).map((n) => n.pos.measure),
      ...base.notes.filter((n) => !there.has(n.id)).map((n) => n.pos.measure),
    ])
    const numbers = measureNumbers(tune.measures)
    return { layer, measures: tune.measures.flatMap((m, i) => (otherwise.has(m.id) ? [numbers[i]!] : [])) }
  },

  cancel(job: number): void {
    cancelled.add(job)
  },
}

/** What another taste would make of a tab. */
export interface TasteChange {
  readonly layer: Layer
  readonly measures: readonly number[]
}

const soundOf = ({ place, left }: TabNote) => `${place.string} ${place.fret} ${place.harmonic ?? ''} ${left}`

function slicesOf(plan: Plan, { measure, tick }: AlternativesTarget) {
  const from = plan.firstSlice[measure]
  const to = plan.firstSlice[measure + 1] ?? plan.slices.length
  if (from === undefined || to <= from) return undefined
  if (tick === undefined) return { from, to }
  const at = plan.sliceAt.get(plan.timeline.starts[measure]! + tick)
  return at === undefined ? undefined : { from: at, to: at + 1 }
}

export type BenchApi = typeof benchApi
