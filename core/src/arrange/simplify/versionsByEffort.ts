import { effortOf } from '../../hand/effort/effort.ts'
import { widestReach } from '../../hand/grip/handRules.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Layer, Region } from '../../document/arrangement.ts'
import type { Lock } from '../../document/locks.ts'
import {
  isAccompaniment,
  isSolo,
  LEVELS,
  type Level,
  type Omission,
  type Ornament,
} from '../../document/style.ts'
import { isArrival } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import { ornamentOf, regionAt, splitRegion, tidyRegions } from '../../document/regions.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { hasBassStrings, refusalOf, styleRules } from '../plan/styleRules.ts'
import { ArrangeError, arranging, finish } from '../whole/arrange.ts'
import { newMemory, type SolveMemory } from '../search/prepare.ts'

/** One thing that is simplified, or added. */
export type Change =
  | { readonly kind: 'plain' | Omission }
  | { readonly kind: 'level'; readonly level: Level }
  | { readonly kind: 'ornament'; readonly ornament: Ornament }
  | { readonly kind: 'octave'; readonly octave: -1 | 1 }

/** How many notes of each role some measures have. */
export interface NoteCount {
  readonly melody: number
  readonly bass: number
  readonly harmony: number
  readonly fill: number
  /** Sounded by the fretting hand alone, and short notes. */
  readonly ornaments: number
}

/** One version of some measures. */
export interface EffortVersion {
  /** What differs from the version at hand; empty for that one. */
  readonly changes: readonly Change[]
  /** The regions that make it. */
  readonly regions: readonly Region[]
  /** Mean effort of the measures, and the tempo at which the first gives out. */
  readonly effort: number
  readonly ceiling: number | undefined
  /** Widest stretch in mm, and how many grips lay a finger across strings. */
  readonly stretchMm: number
  readonly barres: number
  readonly notes: NoteCount
  /** True where every note is one of the version at hand, and none is missing. */
  readonly sameNotes: boolean
  readonly layer: Layer
}

/** Measures by index, both inclusive. */
export interface MeasureRange {
  readonly from: number
  readonly to: number
}

/** A version that is easier by less than this is no help. */
const LEAST_STEP = 0.05

/**
 * Versions of some measures ordered by effort, the version at hand among them: easier ones by leaving out one thing more
 * at a time (ornaments, fills, basses, chords, barres) and by lower levels; fuller ones by higher levels and more
 * ornaments; whole sections also an octave up or down. Each is arranged anew and measured; of the easier ones only those
 * stay that are, and that keep the melody.
 */
export function* versionsByEffort(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  locks: readonly Lock[],
  range: MeasureRange,
  memory: SolveMemory = newMemory(),
): Generator<number, EffortVersion[]> {
  const at = (i: number): Id => tune.measures[i]!.id
  const tidy = tidyRegions(tune, regions)
  let cut = splitRegion(tune, tidy, at(range.from))
  const after = tune.measures[range.to + 1]
  if (after) cut = splitRegion(tune, cut, after.id)
  const found: EffortVersion[] = []
  const now = attempt(tune, setup, cut, [], locks, range, memory)
  if (!now) return []
  const wanted = candidates(tune, setup, cut, range, now, cut.length === tidy.length)
  for (const [i, { changes, next }] of wanted.entries()) {
    yield i / wanted.length
    const version = attempt(tune, setup, next, changes, locks, range, memory)
    if (version) found.push(version)
  }
  const music = musicOf(tune, setup, now.layer, range)
  const compared = found.map((r) => ({ ...r, sameNotes: musicOf(tune, setup, r.layer, range) === music }))
  const easier = compared.filter(
    (r) => r.effort < now.effort - LEAST_STEP && r.notes.melody === now.notes.melody,
  )
  const fuller = compared.filter((r) => isFuller(r.changes) && r.effort > now.effort + LEAST_STEP)
  return spaced([...easier, { ...now, changes: [] }, ...fuller].sort((a, b) => a.effort - b.effort))
}

/** What sounds in some measures, wherever and however it is played. */
function musicOf(tune: TuneDoc, setup: Setup, { notes }: Layer, { from, to }: MeasureRange): string {
  const at = new Map(tune.measures.slice(from, to + 1).map((m, i) => [m.id, i]))
  return notes
    .flatMap((n) => {
      const measure = at.get(n.pos.measure)
      if (measure === undefined) return []
      const midi = pitchAt(setup, n.place) + (n.bend ?? 0)
      return [[measure, n.pos.tick, midi, n.role].join(' ')]
    })
    .sort()
    .join()
}

const isFuller = (changes: readonly Change[]) =>
  changes.some((c) => c.kind === 'level' || c.kind === 'ornament')

/** Of versions of the same effort the one with the most notes. */
function spaced(versions: readonly EffortVersion[]): EffortVersion[] {
  const kept: EffortVersion[] = []
  for (const version of versions) {
    const last = kept.at(-1)
    if (!last || version.effort - last.effort >= LEAST_STEP) kept.push(version)
    else if (
      last.changes.length > 0 &&
      (version.changes.length === 0 || sum(version.notes) > sum(last.notes))
    )
      kept[kept.length - 1] = version
  }
  return kept
}

const sum = ({ melody, bass, harmony, fill }: NoteCount) => melody + bass + harmony + fill

interface Candidate {
  readonly changes: readonly Change[]
  readonly next: readonly Region[]
}

/** What is left out, the least of the music first. */
const STEPS: readonly Omission[] = ['stretch', 'fills', 'bass', 'chords', 'barre']

function slidesIn(tune: TuneDoc, { notes }: Layer, { from, to }: MeasureRange): boolean {
  const ids = new Set(tune.measures.slice(from, to + 1).map((m) => m.id))
  return notes.some((n) => n.attack === 'slide' && n.role === 'melody' && ids.has(n.pos.measure))
}

/** The versions that are tried: one thing less at a time, then levels down and up. */
function candidates(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  { from, to }: MeasureRange,
  now: EffortVersion,
  wholeSections: boolean,
): Candidate[] {
  const ornamented = now.notes.ornaments > 0
  const inside = new Set<number>()
  for (let m = from; m <= to; m++) inside.add(regionAt(tune, regions, tune.measures[m]!.id))
  const own = regions.filter((_, i) => inside.has(i))
  const change = (edit: (r: Region) => Region): readonly Region[] =>
    regions.map((r, i) => (inside.has(i) ? edit(r) : r))
  const result: Candidate[] = []
  const steps = STEPS.filter((o) => own.some((r) => omits(r, o, setup)))
  const plain: Change[] = ornamented ? [{ kind: 'plain' }] : []
  if (ornamented) result.push({ changes: plain, next: change((r) => ({ ...r, ornament: 0 })) })
  if (slidesIn(tune, now.layer, { from, to }))
    result.push({ changes: [{ kind: 'slides' }], next: change((r) => without(r, ['slides'], false)) })
  steps.forEach((_, k) => {
    const less = steps.slice(0, k + 1)
    const changes: Change[] = [...plain, ...less.map((kind): Change => ({ kind }))]
    result.push({ changes, next: change((r) => without(r, less, ornamented)) })
    // One thing alone keeps the rest as it is.
    if (k > 0 || ornamented)
      result.push({ changes: [{ kind: steps[k]! }], next: change((r) => without(r, [steps[k]!], false)) })
  })
  // Within a section the melody would leap to another octave and back: no help.
  if (wholeSections && own.every((r) => isSolo(r.style) && r.octave === undefined))
    for (const octave of [1, -1] as const)
      result.push({ changes: [{ kind: 'octave', octave }], next: change((r) => ({ ...r, octave })) })
  const highest = Math.max(...own.map((r) => r.level))
  for (const level of LEVELS) {
    if (level === highest || own.some((r) => refusalOf(r.style, level, setup.instrument))) continue
    result.push({ changes: [{ kind: 'level', level }], next: change((r) => atLevel(r, level)) })
    if (level < highest && ornamented)
      result.push({
        changes: [...plain, { kind: 'level', level }],
        next: change((r) => ({ ...atLevel(r, level), ornament: 0 })),
      })
  }
  const density = Math.max(...own.map((r) => ornamentOf(r)))
  if (own.some((r) => !isAccompaniment(r.style)))
    for (const ornament of [2, 3] as const)
      if (ornament > density)
        result.push({ changes: [{ kind: 'ornament', ornament }], next: change((r) => ({ ...r, ornament })) })
  return result
}

/** A pattern of the teacher's own was chosen for a level: another level plays its usual one. */
function atLevel(region: Region, level: Level): Region {
  const { pattern: _, ...rest } = region
  return { ...rest, level }
}

const without = (region: Region, less: readonly Omission[], plain: boolean): Region => ({
  ...region,
  without: [...new Set([...(region.without ?? []), ...less])],
  ...(plain ? { ornament: 0 as const } : {}),
})

/** True where a region has what is to be left out. */
function omits({ style, level, without: gone = [] }: Region, what: Omission, setup: Setup): boolean {
  if (gone.includes(what)) return false
  if (what === 'slides') return false
  if (what === 'stretch') return style !== 'bottleneck'
  if (what === 'barre') return style !== 'bottleneck' && setup.player.techniques.barre && level > 1
  if (isAccompaniment(style)) return what === 'fills' && level >= 4
  if (!isSolo(style)) return false
  const rules = styleRules(style, level, setup.instrument, gone)
  if (what === 'fills') return rules.fill !== undefined || rules.thick !== undefined
  if (what === 'chords') return rules.chord !== undefined || rules.double !== undefined
  return hasBassStrings(setup.instrument) && rules.bass !== 'none' && rules.bass !== 'chord'
}

function attempt(
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  changes: readonly Change[],
  locks: readonly Lock[],
  range: MeasureRange,
  memory: SolveMemory,
): EffortVersion | undefined {
  try {
    const { layer, plan } = finish(arranging(tune, setup, regions, { locks, memory }))
    const efforts = effortOf(tune, setup, layer, plan.timeline).slice(range.from, range.to + 1)
    const ceilings = efforts.flatMap((e) => (e.ceiling ? [e.ceiling.bpm] : []))
    const ids = new Set(tune.measures.slice(range.from, range.to + 1).map((m) => m.id))
    const grips = layer.grips.filter((g) => ids.has(g.pos.measure))
    const mean = efforts.reduce((s, e) => s + e.effort, 0) / efforts.length
    return {
      changes,
      regions: tidyRegions(tune, regions),
      effort: Math.round(mean * 100) / 100,
      ceiling: ceilings.length > 0 ? Math.min(...ceilings) : undefined,
      stretchMm: Math.round(Math.max(0, ...grips.map((g) => widestReach(setup, pressedOf(g.pressed))))),
      barres: grips.filter((g) => new Set(g.pressed.map((p) => p.finger)).size < g.pressed.length).length,
      notes: countOf(layer, ids),
      sameNotes: true,
      layer,
    }
  } catch (error) {
    if (error instanceof ArrangeError) return undefined
    throw error
  }
}

function countOf({ notes }: Layer, measures: ReadonlySet<Id>): NoteCount {
  const count = { melody: 0, bass: 0, harmony: 0, fill: 0, ornaments: 0 }
  for (const n of notes) {
    if (!measures.has(n.pos.measure)) continue
    count[n.role]++
    count.ornaments += (n.graces?.length ?? 0) + (isArrival(n.attack) && !n.graces ? 1 : 0)
  }
  return count
}
