import type { CostTerm, Grip, Layer, PressedPlace, TabNote } from '../model/arrangement.ts'
import type { Pos, TuneDoc } from '../model/tune.ts'
import type { LeftFinger } from '../neck/hand.ts'
import type { Setup } from '../neck/setup.ts'
import { assignPicking } from '../pick/assignPicking.ts'
import type { Plan } from '../plan/plan.ts'
import { WHOLE, type Ticks } from '../time/ticks.ts'
import { writtenValue } from '../time/writtenValue.ts'
import { keyFinger, keyFret, keyString, type Candidate } from './candidate.ts'
import type { Solution } from './solve.ts'
import { staticCost } from './staticCost.ts'
import { stepBetween } from './steps.ts'
import { transitionTerms } from './transition.ts'

/** Writes a solution down as notes and grips. Ids follow from what a note plays, so that re-solving keeps them. */
export function layerOf(plan: Plan, solution: Solution, tune: TuneDoc, setup: Setup): Layer {
  const chosen = solution.choice
  const at = (t: number): Candidate => solution.sets[t]!.list[chosen[t]!]!
  const posOf = (tick: Ticks, measure: number): Pos => ({
    measure: tune.measures[measure]!.id,
    tick: tick - plan.timeline.starts[measure]!,
  })
  const onsets: { t: number; notes: Omit<TabNote, 'right'>[] }[] = []
  plan.slices.forEach((slice, t) => {
    const c = at(t)
    const notes: Omit<TabNote, 'right'>[] = []
    if (slice.melodyOnset) {
      const note = plan.melody[slice.melody]!
      notes.push({
        id: `n.${note.sourceId}`,
        sourceId: note.sourceId,
        pos: posOf(slice.start, slice.measure),
        dur: written(note.duration),
        role: 'melody',
        notationVoice: 1,
        ...placed(c.melody),
        attack: 'pluck',
        optional: false,
      })
    }
    if (slice.bassOnset && c.bass !== 0) {
      const pos = posOf(slice.start, slice.measure)
      notes.push({
        id: `b.${pos.measure}.${pos.tick}`,
        pos,
        dur: written(soundsUntil(plan, solution, t) - slice.start),
        role: 'bass',
        notationVoice: 2,
        ...placed(c.bass),
        attack: 'pluck',
        optional: false,
      })
    }
    if (notes.length > 0) onsets.push({ t, notes })
  })
  const fingers = assignPicking(
    onsets.map(({ t, notes }) => ({
      notes: notes.map((n) => ({ string: n.place.string, role: n.role })),
      seconds: plan.slices[t]!.seconds,
    })),
  )
  return {
    notes: onsets.flatMap(({ notes }, k) => notes.map((n, i) => ({ ...n, right: fingers[k]![i]! }))),
    spans: [],
    grips: gripsOf(plan, solution, tune, setup, at, posOf),
    locks: [],
  }
}

function placed(key: number): { place: { string: number; fret: number }; left: LeftFinger } {
  return { place: { string: keyString(key), fret: keyFret(key) }, left: keyFinger(key) as LeftFinger }
}

function written(ticks: Ticks): TabNote['dur'] {
  return { ticks, ...writtenValue(ticks / WHOLE) }
}

/** A bass is written as long as the hand lets it sound. */
function soundsUntil(plan: Plan, solution: Solution, from: number): Ticks {
  const wish = plan.bass[plan.slices[from]!.bass]!
  for (let t = from + 1; t < plan.slices.length; t++) {
    const slice = plan.slices[t]!
    if (slice.start >= wish.until) break
    if (solution.sets[t]!.bass[solution.choice[t]!] === 0) return slice.start
  }
  return wish.until
}

function gripsOf(
  plan: Plan,
  solution: Solution,
  tune: TuneDoc,
  setup: Setup,
  at: (t: number) => Candidate,
  posOf: (tick: Ticks, m: number) => Pos,
): Grip[] {
  return plan.slices.map((slice, t) => {
    const c = at(t)
    const next = plan.slices[t + 1]
    const shape = solution.wishes[t]!.frames[c.frame]?.name
    const pos = posOf(slice.start, slice.measure)
    const lastMeasure = tune.measures.length - 1
    return {
      id: `g.${pos.measure}.${pos.tick}`,
      pos,
      until: next
        ? posOf(next.start, next.measure)
        : { measure: tune.measures[lastMeasure]!.id, tick: tune.measures[lastMeasure]!.length },
      pressed: c.pressed.map((p) => ({
        string: p.string,
        fret: p.fret,
        finger: p.finger as PressedPlace['finger'],
      })),
      position: c.position,
      ...(shape ? { shape } : {}),
      costs: costsOf(plan, solution, setup, t),
    }
  })
}

/** Every term that the chosen grip was charged, dearest first. */
export function costsOf(plan: Plan, solution: Solution, setup: Setup, t: number): CostTerm[] {
  const slice = plan.slices[t]!
  const wish = solution.wishes[t]!
  const c = solution.sets[t]!.list[solution.choice[t]!]!
  const terms: CostTerm[] = []
  const bassPlace = c.bass ? { string: keyString(c.bass), fret: keyFret(c.bass) } : undefined
  staticCost(
    setup,
    wish,
    {
      pressed: c.pressed,
      position: c.position,
      frame: c.frame,
      melody: c.melody ? { string: keyString(c.melody), fret: keyFret(c.melody) } : undefined,
      melodyFinger: keyFinger(c.melody),
      bassFinger: keyFinger(c.bass),
      bass:
        bassPlace &&
        wish.bass?.options.find(
          (o) => o.place.string === bassPlace.string && o.place.fret === bassPlace.fret,
        ),
    },
    (term, cost, perBeat, quantity, unit) => {
      const total = perBeat ? cost * slice.beats : cost
      if (total > 0)
        terms.push({
          term,
          cost: total,
          ...(quantity === undefined ? {} : { quantity }),
          ...(unit ? { unit } : {}),
        })
    },
  )
  if (t > 0 && plan.follows[slice.measure]) {
    terms.push(
      ...transitionTerms(
        solution.sets[t - 1]!,
        solution.choice[t - 1]!,
        solution.sets[t]!,
        solution.choice[t]!,
        stepBetween(plan, t - 1, t),
      ),
    )
  }
  return terms.sort((a, b) => b.cost - a.cost)
}
