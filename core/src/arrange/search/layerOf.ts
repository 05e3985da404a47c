import { knownIn } from '../../invariant.ts'
import { leftFinger } from '../../hand/grip/pressed.ts'
import { bassPitchClass } from '../../music/harmony/chordSymbol.ts'
import type { Layer } from '../../document/arrangement.ts'
import type { Lock } from '../../document/locks.ts'
import {
  isArrival,
  type CostTerm,
  type Grip,
  type PressedPlace,
  type Role,
  type TabNote,
} from '../../document/tab.ts'
import { articulating } from '../ornament/articulate.ts'
import type { LeftOrnament, Unpicked } from '../ornament/ornamentPage.ts'
import { durationOf } from '../../document/durationOf.ts'
import type { Id } from '../../document/ids.ts'
import type { Pos, TuneDoc } from '../../document/tune.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import { pitchAt, type Setup } from '../../instrument/setup.ts'
import { assigningPicking } from '../../hand/picking/assignPicking.ts'
import type { PickingHand } from '../../hand/picking/pickedOnset.ts'
import { pickedOnset, pickingHand } from '../plan/pickingOf.ts'
import { mod12 } from '../../music/pitch/pitch.ts'
import type { PlannedInner } from '../plan/innerLine.ts'
import type { Plan, Slice } from '../plan/plan.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import {
  keyFinger,
  keyFret,
  keyPlace,
  keyString,
  type Candidate,
  type CandidateSet,
  type VoiceKey,
} from './candidate.ts'
import { bassNoteId, chordNoteId, gripId, innerNoteId, melodyNoteId } from '../../document/noteIds.ts'
import { withEndingChords } from './endingChord.ts'
import type { Solution } from './solve.ts'
import { staticCost } from './staticCost.ts'
import { stepBetween } from './steps.ts'
import { transitionTerms } from './transition.ts'

/** Writes a solution down as notes and grips. Ids follow from what a note plays, so that re-solving keeps them. */
export function* writing(
  plan: Plan,
  solution: Solution,
  tune: TuneDoc,
  setup: Setup,
  locks: readonly Lock[],
): Turns<{ layer: Layer; ornamentsLeft: readonly LeftOrnament[] }> {
  const found = yield* writtenSlices(plan, solution, tune, setup, 0, plan.slices.length)
  const locked = new Set(locks.map((l) => l.target))
  const { onsets, grips } = withEndingChords(found, plan, tune, setup, locked)
  const written = { notes: onsets.flatMap((o) => o.notes), grips }
  yield
  const { notes, spans, left, ...played } = yield* articulating(tune, setup, plan, written, locks)
  yield
  let at = 0
  const articulated = onsets.map((o) => ({ t: o.t, notes: notes.slice(at, (at += o.notes.length)) }))
  return {
    layer: { notes: yield* picked(plan, tune, setup, articulated), grips: played.grips, spans, locks: [] },
    ornamentsLeft: left,
  }
}

/** The notes and grips of the slices from `from` to `to`, exclusive. */
export function layerOfSlices(
  plan: Plan,
  solution: Solution,
  tune: TuneDoc,
  setup: Setup,
  from: number,
  to: number,
): Pick<Layer, 'notes' | 'grips'> {
  const { onsets, grips } = finish(writtenSlices(plan, solution, tune, setup, from, to))
  return { notes: finish(picked(plan, tune, setup, onsets)), grips }
}

/** Notes struck at one slice. */
interface Onset {
  readonly t: number
  readonly notes: readonly Unpicked[]
}

function* writtenSlices(
  plan: Plan,
  solution: Solution,
  tune: TuneDoc,
  setup: Setup,
  from: number,
  to: number,
): Turns<{ onsets: Onset[]; grips: Grip[] }> {
  const writer = new LayerWriter(plan, solution, tune, setup)
  const slices = Array.from({ length: to - from }, (_, k) => from + k)
  const onsets = yield* mapInTurns(slices, (t) => ({ t, notes: writer.notesAt(t) }))
  const grips = yield* mapInTurns(slices, (t) => writer.gripAt(t))
  return { onsets: onsets.filter(({ notes }) => notes.length > 0), grips }
}

/** The notes with their picking hand; what the fretting hand sounds alone takes no stroke. */
function* picked(plan: Plan, tune: TuneDoc, setup: Setup, onsets: readonly Onset[]): Turns<TabNote[]> {
  const isStruck = (n: Unpicked) => !isArrival(n.attack) || n.graces !== undefined
  const heard = yield* mapInTurns(onsets, ({ t, notes }) => ({ t, notes: notes.filter(isStruck) }), 2048)
  const struck = heard.filter(({ notes }) => notes.length > 0)
  yield
  const signs = yield* signsOf(plan, tune, setup, struck)
  yield
  const signOf = new Map(
    struck.flatMap(({ notes }, k) => notes.map((n, i) => [n.id, signs[k]![i]!] as const)),
  )
  yield
  const signed = mapInTurns(
    onsets,
    ({ notes }) => notes.map((n): TabNote => ({ ...n, right: signOf.get(n.id) ?? 'none' })),
    2048,
  )
  return (yield* signed).flat()
}

/** The picking hand's part, region by region: each under its own school. */
function* signsOf(plan: Plan, tune: TuneDoc, setup: Setup, onsets: readonly Onset[]): Turns<PickingSign[][]> {
  const signs: PickingSign[][] = []
  for (let from = 0; from < onsets.length;) {
    const hand = pickingHandAt(plan, setup, onsets[from]!.t)
    let to = from + 1
    while (to < onsets.length && sameHand(hand, pickingHandAt(plan, setup, onsets[to]!.t))) to++
    const part = yield* mapInTurns(onsets.slice(from, to), ({ t, notes }) => {
      const slice = plan.slices[t]!
      const tick = slice.start - plan.timeline.starts[slice.measure]!
      return pickedOnset(notes, tune.measures[slice.measure]!, tick, slice.seconds)
    })
    for (const s of yield* assigningPicking(part, hand)) signs.push(s)
    from = to
  }
  return signs
}

function pickingHandAt(plan: Plan, setup: Setup, t: number): PickingHand {
  const { school, style } = plan.slices[t]!
  return pickingHand(style, school, setup)
}

const sameHand = (a: PickingHand, b: PickingHand) => a.school === b.school && a.strokes === b.strokes

/** Notes of this many seconds and more are played with tremolo on doubled strings. */
const TREMOLO_S = 0.9

class LayerWriter {
  private readonly lastMeasure: number

  constructor(
    private readonly plan: Plan,
    private readonly solution: Solution,
    private readonly tune: TuneDoc,
    private readonly setup: Setup,
  ) {
    this.lastMeasure = tune.measures.length - 1
  }

  private at(t: number): Candidate {
    return this.solution.sets[t]!.list[this.solution.choice[t]!]!
  }

  private posOf(tick: Ticks, measure: number): Pos {
    return { measure: this.tune.measures[measure]!.id, tick: tick - this.plan.timeline.starts[measure]! }
  }

  notesAt(t: number): Unpicked[] {
    const slice = this.plan.slices[t]!
    const c = this.at(t)
    const pos = this.posOf(slice.start, slice.measure)
    const notes: Unpicked[] = []
    if (slice.melodyOnset) notes.push(this.melodyNote(slice, c, pos))
    if (slice.bassOnset && c.bass !== 0) {
      const planned = this.plan.bass[slice.bass]!
      const until = this.soundsUntil(t, planned.until, (set, j) => set.bass[j] !== 0)
      notes.push(
        planned.part
          ? {
              ...this.note(melodyNoteId(planned.part.sourceId), pos, until - slice.start, 'harmony', c.bass),
              sourceId: planned.part.sourceId,
            }
          : this.note(bassNoteId(pos), pos, until - slice.start, 'bass', c.bass),
      )
    }
    if (slice.innerOnset && c.inner !== 0) {
      const planned = this.plan.inner[slice.inner]!
      const until = this.soundsUntil(t, this.clearOfMelody(slice, planned, c.inner), (set, j) =>
        this.keeps(set.list[j]!, c.inner),
      )
      notes.push(this.note(innerNoteId(pos), pos, until - slice.start, planned.role, c.inner))
    }
    if (slice.innerOnset && c.chord.length > 0) {
      const planned = this.plan.inner[slice.inner]!
      const bass = this.plan.harmony[planned.segment]!.sounding
      c.chord.forEach((key, nth) => {
        const until = this.soundsUntil(t, this.clearOfMelody(slice, planned, key), (set, j) =>
          this.keeps(set.list[j]!, key),
        )
        const low = nth === 0 && bass && mod12(pitchAt(this.setup, keyPlace(key))) === bassPitchClass(bass)
        notes.push(this.note(chordNoteId(pos, nth), pos, until - slice.start, low ? 'bass' : 'harmony', key))
      })
    }
    return notes
  }

  private melodyNote(slice: Slice, c: Candidate, pos: Pos): Unpicked {
    const note = this.plan.melody[slice.melody]!
    const seconds = (note.duration / (slice.end - slice.start)) * this.lasting(slice)
    const trembles = this.setup.instrument.doubling > 1 && seconds >= TREMOLO_S && !slice.rules.ring
    return {
      ...this.note(melodyNoteId(note.sourceId), pos, note.duration, 'melody', c.melody),
      sourceId: note.sourceId,
      attack: trembles ? 'tremolo' : 'pluck',
      ...(slice.rules.ring ? { letRing: true as const } : {}),
    }
  }

  /** The end of a further voice: at the latest where the melody comes down to it. */
  private clearOfMelody(slice: Slice, { until, kind }: PlannedInner, key: VoiceKey): Ticks {
    if (kind === 'double') return until
    const { melody, melodyMidi } = this.plan
    const midi = pitchAt(this.setup, keyPlace(key))
    for (let m = Math.max(0, slice.melody); m < melody.length && melody[m]!.start < until; m++)
      if (melody[m]!.start > slice.start && melodyMidi[m]! <= midi) return melody[m]!.start
    return until
  }

  /** Seconds that a slice lasts. */
  private lasting(slice: Slice): number {
    const next = this.plan.slices[knownIn(this.plan.sliceAt, slice.start) + 1]
    return next?.seconds ?? slice.seconds
  }

  private note(id: Id, pos: Pos, ticks: Ticks, role: Role, key: VoiceKey): Unpicked {
    return {
      id,
      pos,
      dur: durationOf(ticks),
      role,
      notationVoice: role === 'melody' ? 1 : 2,
      place: keyPlace(key),
      left: leftFinger(keyFinger(key)),
      attack: 'pluck',
      optional: false,
    }
  }

  /** The end of a note: where the hand lets it go, at most where it should end. */
  private soundsUntil(from: number, until: Ticks, sounds: (set: CandidateSet, j: number) => boolean): Ticks {
    const { slices } = this.plan
    for (let t = from + 1; t < slices.length; t++) {
      if (slices[t]!.start >= until) break
      if (!sounds(this.solution.sets[t]!, this.solution.choice[t]!)) return slices[t]!.start
    }
    return until
  }

  /** True where a grip lets a string go on: the finger stays, or nothing touches the open string, and it is not struck. */
  private keeps(c: Candidate, key: VoiceKey): boolean {
    const string = keyString(key)
    const fret = keyFret(key)
    const others = [c.melody, c.bass, c.inner, ...c.chord]
    if (others.some((k) => k !== 0 && keyString(k) === string && k !== key)) return false
    if (others.some((k, i) => k === key && i >= 2)) return false
    const on = c.pressed.filter((p) => p.string === string)
    if (fret === 0) return on.length === 0
    return on.length === 1 && on[0]!.fret === fret && on[0]!.finger === keyFinger(key)
  }

  gripAt(t: number): Grip {
    const slice = this.plan.slices[t]!
    const c = this.at(t)
    const next = this.plan.slices[t + 1]
    const shape = this.solution.requirements[t]!.heldShapes[c.heldShape]?.name
    const pos = this.posOf(slice.start, slice.measure)
    return {
      id: gripId(pos),
      pos,
      until: next
        ? this.posOf(next.start, next.measure)
        : {
            measure: this.tune.measures[this.lastMeasure]!.id,
            tick: this.tune.measures[this.lastMeasure]!.length,
          },
      pressed: c.pressed.map((p) => ({
        string: p.string,
        fret: p.fret,
        finger: leftFinger(p.finger) as PressedPlace['finger'],
      })),
      position: c.position,
      ...(shape ? { shape } : {}),
      costs: costsOf(this.plan, this.solution, this.setup, t),
    }
  }
}

/** Every term that the chosen grip was charged, dearest first. */
export function costsOf(plan: Plan, solution: Solution, setup: Setup, t: number): CostTerm[] {
  return costsOfChoice(plan, solution, setup, t, (s) => solution.choice[s]!)
}

/** The same for any choice of candidates. */
export function costsOfChoice(
  plan: Plan,
  { requirements, sets }: Pick<Solution, 'requirements' | 'sets'>,
  setup: Setup,
  t: number,
  choice: (slice: number) => number,
): CostTerm[] {
  const slice = plan.slices[t]!
  const terms: CostTerm[] = []
  const { draft } = sets[t]!.list[choice(t)]!
  staticCost(setup, requirements[t]!, draft, (term, cost, perBeat, quantity, unit) => {
    const total = perBeat ? cost * slice.beats : cost
    if (total !== 0)
      terms.push({
        term,
        cost: total,
        ...(quantity === undefined ? {} : { quantity }),
        ...(unit ? { unit } : {}),
      })
  })
  if (t > 0 && plan.follows[slice.measure])
    terms.push(
      ...transitionTerms(sets[t - 1]!, choice(t - 1), sets[t]!, choice(t), stepBetween(plan, t - 1, t)),
    )
  return terms.sort((a, b) => b.cost - a.cost)
}
