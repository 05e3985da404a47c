import { handFault } from '../grip/handRules.ts'
import type { Pressed } from '../grip/pressed.ts'
import { positionOf } from '../grip/position.ts'
import type { Place, Setup } from '../neck/setup.ts'
import type { Frame } from '../shapes/textbook.ts'
import { packCandidates, voiceKey, type Candidate, type CandidateSet } from './candidate.ts'
import { staticCost, type Draft } from './staticCost.ts'
import { LEVEL_RULES } from './weights.ts'
import type { BassOption, Wish } from './wish.ts'

/** Positions at which a hand that presses nothing may wait. */
const HOVER_POSITIONS = [1, 2, 3, 4, 5, 7, 9]

const FINGERS = [1, 2, 3, 4] as const

/** A voice's note before fingers are chosen. */
interface Needed {
  readonly melody: Place | undefined
  readonly bass: BassOption | undefined
}

/**
 * All grips that meet a wish: each place of the melody with each place of the bass (and with the voice left out where
 * it is held over and may be cut, or where no bass is found), each legal choice of fingers, with and without the
 * frames of the chord. Hard rules only; nothing is dropped for taste.
 */
export function generate(setup: Setup, wish: Wish): CandidateSet {
  const found = new Map<string, Candidate>()
  for (const needed of combinations(wish)) {
    for (const draft of drafts(setup, wish, needed)) {
      const key = draftKey(draft)
      const candidate = finish(setup, wish, draft)
      const before = found.get(key)
      if (!before || candidate.fixed + candidate.perBeat < before.fixed + before.perBeat)
        found.set(key, candidate)
    }
  }
  return packCandidates(setup, [...found.values()])
}

function combinations(wish: Wish): Needed[] {
  const melodies: (Place | undefined)[] = wish.melody ? [...wish.melody.places] : [undefined]
  if (wish.melody && !wish.melody.onset) melodies.push(undefined)
  const basses: (BassOption | undefined)[] = wish.bass ? [...wish.bass.options, undefined] : [undefined]
  const result: Needed[] = []
  for (const melody of melodies) {
    for (const bass of basses)
      if (!melody || bass?.place.string !== melody.string) result.push({ melody, bass })
  }
  return result
}

function* drafts(setup: Setup, wish: Wish, needed: Needed): Generator<Draft> {
  const open = openStrings(needed)
  const { techniques } = setup.player
  const barreStrings = techniques.barre ? LEVEL_RULES[wish.level].barreStrings : 1
  for (const { melodyFinger, bassFinger, pressed } of fingerings(setup, needed, open, barreStrings)) {
    const base = { melody: needed.melody, melodyFinger, bass: needed.bass, bassFinger }
    if (pressed.length > 0) yield { ...base, pressed, frame: -1, position: positionOf(pressed) }
    else for (const position of HOVER_POSITIONS) yield { ...base, pressed, frame: -1, position }
    for (let frame = 0; frame < wish.frames.length; frame++) {
      const whole = keepShape(setup, wish.frames[frame]!, pressed, open, barreStrings)
      if (whole.length > pressed.length) yield { ...base, pressed: whole, frame, position: positionOf(whole) }
    }
  }
}

interface Fingering {
  readonly melodyFinger: number
  readonly bassFinger: number
  readonly pressed: readonly Pressed[]
}

/** Every legal choice of fingers for what sounds. */
function fingerings(
  setup: Setup,
  needed: Needed,
  open: readonly number[],
  barreStrings: number,
): Fingering[] {
  const melody = needed.melody
  const bass = needed.bass?.place
  const result: Fingering[] = []
  for (const melodyFinger of fingersFor(setup, melody)) {
    for (const bassFinger of fingersFor(setup, bass)) {
      const pressed: Pressed[] = []
      if (melody && melodyFinger > 0)
        pressed.push({ string: melody.string, fret: melody.fret, finger: melodyFinger })
      if (bass && bassFinger > 0) pressed.push({ string: bass.string, fret: bass.fret, finger: bassFinger })
      const barre = melody && bass && melodyFinger === bassFinger && melodyFinger > 0
      if (barre && bass.string - melody.string + 1 > barreStrings) continue
      if (pressed.length < 2 || !handFault(setup, setup.player.spans, pressed, open))
        result.push({ melodyFinger, bassFinger, pressed })
    }
  }
  return result
}

/** The sounding notes' fingers, then every finger of the shape that can stay beside them; barres as the level allows. */
function keepShape(
  setup: Setup,
  frame: Frame,
  sounding: readonly Pressed[],
  open: readonly number[],
  barreStrings: number,
): readonly Pressed[] {
  let pressed = sounding
  for (const group of frame.fingers) {
    const { techniques } = setup.player
    const strings = group.at(-1)!.string - group[0]!.string + 1
    if (strings > 1 && (!techniques.barre || (strings > barreStrings && !frame.pinned))) continue
    if (group[0]!.finger === 4 && !techniques.littleFinger) continue
    const rest = group.filter(
      (p) => !sounding.some((s) => s.string === p.string && s.fret === p.fret && s.finger === p.finger),
    )
    if (rest.length === 0 || !rest.every((p) => canStay(p, group, sounding, open))) continue
    const more = [...pressed, ...rest]
    if (!handFault(setup, setup.player.spans, more, open)) pressed = more
  }
  return pressed
}

/** A finger of the shape stays unless its string must sound otherwise or the finger itself is needed elsewhere. */
function canStay(
  p: Pressed,
  group: readonly Pressed[],
  sounding: readonly Pressed[],
  open: readonly number[],
): boolean {
  if (open.includes(p.string)) return false
  return sounding.every((s) => {
    if (s.string === p.string && s.fret <= p.fret) return false
    return s.finger !== p.finger || group.some((g) => g.string === s.string && g.fret === s.fret)
  })
}

function openStrings(needed: Needed): number[] {
  return [needed.melody, needed.bass?.place].flatMap((p) => (p && p.fret === 0 ? [p.string] : []))
}

function fingersFor(setup: Setup, place: Place | undefined): readonly number[] {
  if (!place || place.fret === 0) return [0]
  return setup.player.techniques.littleFinger ? FINGERS : FINGERS.slice(0, 3)
}

function finish(setup: Setup, wish: Wish, draft: Draft): Candidate {
  let fixed = 0
  let perBeat = 0
  staticCost(setup, wish, draft, (_, cost, each) => {
    if (each) perBeat += cost
    else fixed += cost
  })
  return {
    pressed: draft.pressed,
    position: draft.position,
    melody: draft.melody ? voiceKey(draft.melody.string, draft.melody.fret, draft.melodyFinger) : 0,
    bass: draft.bass ? voiceKey(draft.bass.place.string, draft.bass.place.fret, draft.bassFinger) : 0,
    frame: draft.frame,
    fixed,
    perBeat,
  }
}

function draftKey(draft: Draft): string {
  const held = draft.pressed.map((p) => p.string * 1000 + p.fret * 10 + p.finger).sort((a, b) => a - b)
  return `${held.join()}|${draft.melody?.string}|${draft.bass?.place.string}|${draft.pressed.length ? 0 : draft.position}`
}
