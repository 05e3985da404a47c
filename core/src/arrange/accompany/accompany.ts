import { present } from '../../invariant.ts'
import { fingerOffsets } from '../../hand/grip/fingerOffsets.ts'
import { positionOf } from '../../hand/grip/position.ts'
import { measureAt } from '../../document/form/timeline.ts'
import { pressedOf } from '../../hand/grip/pressed.ts'
import type { Region } from '../../document/arrangement.ts'
import { isAccompaniment, type Accompaniment, type Level } from '../../document/style.ts'
import { BACKING_VOICE, type Grip, type TabNote } from '../../document/tab.ts'
import { sameContent } from '../../document/content.ts'
import { USUAL_SCHOOL, type School } from '../../document/school.ts'
import type { Pos, TuneDoc } from '../../document/tune.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import { assignPicking } from '../../hand/picking/assignPicking.ts'
import { pickedLine, pickingHand } from '../plan/pickingOf.ts'
import type { Plan } from '../plan/plan.ts'
import { durationOf } from '../../document/durationOf.ts'
import { type Ticks } from '../../music/time/ticks.ts'
import { playedNext } from '../../document/form/playedNext.ts'
import { withApproaches, type ApproachRules } from './approach.ts'
import type { AccompanyOnset, HeldHand } from './onset.ts'
import { fitsMetre, type Pattern } from './pattern.ts'
import { usualPattern } from './patternLibrary.ts'
import { endingOnset, patternOnsets, type HeldHarmony } from './patternOnsets.ts'
import { readPattern } from './patternText.ts'
import { strumsWhole } from '../plan/styleRules.ts'
import { regionShapes } from './regionShapes.ts'
import type { AccompanyRemark } from './remark.ts'
import { withPhraseFills } from './phraseFill.ts'
import { withTurnaround } from './turnaround.ts'
import { saidBasses } from './saidBasses.ts'
import { shuffleOnsets } from './shuffleOnsets.ts'

/** Notes and grips of the accompanied measures, and what could not be done as asked. */
export interface Accompanied {
  readonly notes: readonly TabNote[]
  readonly grips: readonly Grip[]
  readonly remarks: readonly AccompanyRemark[]
}

/** From this level on the basses walk from chord to chord, where the school does not say otherwise. */
const RUNS_FROM_LEVEL = 4

/** From this level on the rests of the singer are filled. */
const FILLS_FROM_LEVEL = 5

/** What of a plan an accompaniment is made from. */
export type AccompanyPlan = Pick<
  Plan,
  'timeline' | 'unfolded' | 'harmony' | 'keys' | 'pins' | 'regions' | 'sung' | 'secondsBetween'
>

/** Lays an accompaniment under every region whose style is one: shapes by the shortest path, the pattern on the beats. */
export function accompany(
  tune: TuneDoc,
  setup: Setup,
  plan: AccompanyPlan,
  regions: readonly Region[],
): Accompanied {
  const parts = regions.flatMap((region) =>
    isAccompaniment(region.style) ? [accompanyRegion(tune, setup, plan, region, region.style)] : [],
  )
  return {
    notes: parts.flatMap((p) => p.notes),
    grips: parts.flatMap((p) => p.grips),
    remarks: parts.flatMap((p) => p.remarks),
  }
}

function accompanyRegion(
  tune: TuneDoc,
  setup: Setup,
  plan: AccompanyPlan,
  region: Region,
  style: Accompaniment,
): Accompanied {
  const { timeline, harmony, keys, sung, secondsBetween } = plan
  const first = timeline.indexOf.get(region.from) ?? 0
  const last = timeline.indexOf.get(region.to) ?? tune.measures.length - 1
  const from = timeline.starts[first]!
  const to = timeline.starts[last]! + tune.measures[last]!.length
  if (!harmony.some((h) => h.end > from && h.start < to && h.shape))
    return { notes: [], grips: [], remarks: [{ kind: 'noChords', measure: first }] }
  const school = region.school ?? USUAL_SCHOOL
  const { shapes, lacking } = regionShapes(
    setup,
    plan,
    region,
    school,
    { from, to },
    strumsWhole(style, setup.instrument),
  )
  const held: HeldHarmony = { setup, harmony, shapes }
  const remarks = lacking.map(({ start, symbol }): AccompanyRemark => ({
    kind: 'noShape',
    measure: measureAt(timeline, start),
    chord: symbol,
  }))
  const patterns = patternFinder(region, style, setup.instrument.strings, remarks)
  const laid: AccompanyOnset[] = []
  for (let index = first; index <= last; index++) {
    // A locked measure keeps what it was, whatever its section plays.
    if (plan.regions[index] !== region) continue
    const measure = tune.measures[index]!
    const part =
      style === 'shuffle'
        ? shuffleOnsets(held, timeline, { index, measure }, region.level, school.root)
        : patternOnsets(
            held,
            timeline,
            { index, measure, turn: index - first, pattern: patterns(measure.metre, index) },
            school.root,
            style === 'strum',
          )
    laid.push(...part.onsets)
    remarks.push(...part.remarks)
  }
  const orders = school.bassStrings ?? []
  const ordered = saidBasses(held, laid, orders)
  remarks.push(...ordered.remarks)
  const next = playedNext(plan.unfolded)
  const song = { measures: tune.measures, timeline, keys, sung, next, secondsBetween }
  const turned =
    style === 'shuffle'
      ? withTurnaround(
          held,
          timeline,
          { measures: tune.measures, keys },
          laid,
          [last - 1, last],
          region.level,
        )
      : ordered.onsets
  const fills = region.level >= FILLS_FROM_LEVEL && !region.without?.includes('fills')
  const approached = withApproaches(held, song, turned, {
    runs: region.without?.includes('fills') ? 'none' : runsOf(region.level, style, school),
    liftOff: school.liftOff === 'fast',
    said: orders,
  })
  const filled = fills ? withPhraseFills(held, song, approached, from, to, style === 'shuffle') : approached
  const onsets = last === tune.measures.length - 1 ? comingToRest(filled) : filled
  const signs = assignPicking(
    pickedLine(
      onsets.map(({ sounds, start, measure }) => ({ notes: sounds, at: start, measure })),
      tune.measures,
      plan,
    ),
    pickingHand(style, school, setup),
  )
  /** The tune ends on one chord, whatever its pattern: in its last measure, or where the last chord begins there. */
  function comingToRest(all: readonly AccompanyOnset[]): readonly AccompanyOnset[] {
    const end = timeline.starts[last]!
    const chord = harmony.findLast((h) => h.shape && h.start < to)
    const at = chord && chord.start > end ? chord.start : end
    const onset = endingOnset(held, last, at, style === 'picking', school.root)
    return onset && plan.regions[last] === region ? [...all.filter((o) => o.start < at), onset] : all
  }
  const pos = (at: Ticks, measure: number): Pos => ({
    measure: tune.measures[measure]!.id,
    tick: at - timeline.starts[measure]!,
  })
  return {
    notes: onsets.flatMap((o, i) =>
      notesOf(o, pos(o.start, o.measure), lengths(onsets, i, to), signs[i]!, style === 'picking'),
    ),
    grips: gripsOf(setup, onsets, to, (at) => pos(at, Math.min(last, measureAt(timeline, at)))),
    remarks: unique(remarks),
  }
}

/** Runs as the school says, else from a level on into the chords that they lead to by themselves. */
function runsOf(level: Level, style: Accompaniment, { runs }: School): ApproachRules['runs'] {
  if (runs) return runs === 'changes' ? 'all' : 'none'
  return style !== 'shuffle' && level >= RUNS_FROM_LEVEL ? 'cadences' : 'none'
}

/** The pattern of each measure: the region's where it fits, else the usual one of the metre, and that is said. */
function patternFinder(region: Region, style: Accompaniment, strings: number, remarks: AccompanyRemark[]) {
  const usual = new Map<string, Pattern>()
  const own = region.pattern && readPattern(region.pattern)
  return (metre: TuneDoc['measures'][number]['metre'], measure: number): Pattern => {
    const text = `${metre.num}/${metre.den}`
    if (own?.ok && fitsMetre(own.pattern, metre)) return own.pattern
    if (own && !own.ok) remarks.push({ kind: 'badPattern', measure, problem: own.problem })
    else if (own?.ok) {
      const wanted = `${own.pattern.metre.num}/${own.pattern.metre.den}`
      remarks.push({ kind: 'otherMetre', measure, metre: text, wanted })
    }
    let known = usual.get(text)
    if (!known) {
      const read = readPattern(
        usualPattern(style === 'shuffle' ? 'strum' : style, region.level, metre, strings),
      )
      if (!read.ok) throw new Error(read.problem.kind)
      usual.set(text, (known = read.pattern))
    }
    return known
  }
}

/** Ends of an onset's notes: the bass sounds until the next bass or chord, the others until the next onset. */
function lengths(onsets: readonly AccompanyOnset[], i: number, end: Ticks): { bass: Ticks; other: Ticks } {
  const here = onsets[i]!
  const other = (onsets[i + 1]?.start ?? end) - here.start
  const strings = new Set(here.sounds.map((s) => s.place.string))
  for (let k = i + 1; k < onsets.length; k++) {
    const next = onsets[k]!
    const cut =
      next.segment !== here.segment ||
      !sameHand(next.hand, here.hand) ||
      next.sounds.some((s) => s.role === 'bass' || strings.has(s.place.string))
    if (cut) return { bass: next.start - here.start, other }
  }
  return { bass: end - here.start, other }
}

function notesOf(
  onset: AccompanyOnset,
  pos: Pos,
  { bass, other }: { bass: Ticks; other: Ticks },
  signs: readonly PickingSign[],
  letRing: boolean,
): TabNote[] {
  return onset.sounds.map((s, i): TabNote => {
    const swept = s.attack === 'brush' || s.attack === 'muted'
    const ticks = s.role === 'bass' && !swept ? bass : other
    return {
      id: `a.${pos.measure}.${pos.tick}.${s.place.string}`,
      pos,
      dur: durationOf(ticks),
      role: s.role,
      notationVoice: BACKING_VOICE,
      place: s.place,
      left: s.finger,
      right: swept ? present(onset.stroke) : signs[i]!,
      attack: s.attack,
      ...(onset.accent ? { accent: true as const } : {}),
      ...(letRing && s.role !== 'fill' && !onset.palm ? { letRing: true as const } : {}),
      ...(onset.palm ? { palmMute: true as const } : {}),
      optional: s.optional,
    }
  })
}

/** A grip wherever the hand changes. */
function gripsOf(
  setup: Setup,
  onsets: readonly AccompanyOnset[],
  end: Ticks,
  pos: (at: Ticks) => Pos,
): Grip[] {
  const lines = fingerOffsets(setup.instrument)
  const changes: { start: Ticks; hand: HeldHand }[] = []
  for (const { start, hand } of onsets)
    if (!changes.length || !sameHand(changes.at(-1)!.hand, hand)) changes.push({ start, hand })
  return changes.map(({ start, hand }, i): Grip => {
    const at = pos(start)
    return {
      id: `g.${at.measure}.${at.tick}`,
      pos: at,
      until: pos(changes[i + 1]?.start ?? end),
      pressed: hand.pressed,
      position: positionOf(pressedOf(hand.pressed), lines),
      ...(hand.shape ? { shape: hand.shape } : {}),
      costs: [],
    }
  })
}

const sameHand = (a: HeldHand, b: HeldHand) =>
  a === b || (a.shape === b.shape && sameContent(a.pressed, b.pressed))

/** What is said of a chord or pattern is said once, at its first measure. */
function unique(remarks: readonly AccompanyRemark[]): AccompanyRemark[] {
  const seen = new Set<string>()
  return remarks.filter((r) => {
    const { measure: _, ...what } = r
    const key = JSON.stringify(what)
    return !seen.has(key) && seen.add(key)
  })
}
