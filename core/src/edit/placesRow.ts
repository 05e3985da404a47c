import { chordPitchClasses, readChordSymbol } from '../music/harmony/chordSymbol.ts'
import type { Role } from '../document/tab.ts'
import type { Pos, TuneDoc } from '../document/tune.ts'
import { lastFret, pitchAt, type Setup } from '../instrument/setup.ts'
import { mod12, pitchClass, readPitch, type Step } from '../music/pitch/pitch.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { LeftFinger, PickingSign } from '../instrument/hand.ts'
import { BAR_SIGN, rhythmTicks } from '../output/text/tabSigns.ts'
import type { NoteManner, TabEdit } from './edited.ts'

/** A place of a row, and how it is played there. */
export interface RowPlace {
  readonly string: number
  /** Where it sounds: of a bend above the fret that is stopped. */
  readonly fret: number
  readonly played?: readonly NoteManner[]
}

/** One moment of a row of places: what is struck together, or silence. */
export interface RowStep {
  readonly places: readonly RowPlace[]
  /** How long it lasts, where the row says so; absent: as the pen. */
  readonly ticks?: Ticks
  /** True where a bar line stands before it: it begins the next measure. */
  readonly bar?: true
}

/** What of a row cannot be taken; `at` counts characters from 0. */
export interface RowFault {
  readonly kind:
    | 'noString'
    | 'notFret'
    | 'beyondNeck'
    | 'otherNote'
    | 'otherChord'
    | 'noNote'
    | 'notJoined'
    | 'noBend'
    | 'twice'
  readonly at: number
  readonly text: string
  readonly string?: number
  readonly fret?: number
}

export interface PlacesRow {
  readonly steps: readonly RowStep[]
  readonly faults: readonly RowFault[]
}

const WORD = /\S+/g

/** A length from here on: `q`, `e.`, `h`. */
const LENGTH = /^[whqestf]\.{0,2}$/

/** Between places that are struck together; a plus inside braces is a sign of cents. */
const TOGETHER = /\+(?![^{]*\})/

/**
 * Reads a row of places as a teacher says them: the string once, then its frets one after the other.
 *
 * `4:` chooses a string, `7` is a fret on it, `-` a silence, `6.3+2.1` places together, `|` the next measure, `q` `e.` a length from
 * there on. The signs are those of text tab: `2h4p2` hammered and pulled, `5/7` `7\5` slid, `/7` slid into, `7b` bent a tone, `7b8`
 * bent to fret 8, `7~` vibrato, `x` muted, `<12>` a harmonic, `3?` may be left out. `7(1)` names the finger, `7(1p)` the picking
 * finger too, `(d)` `(u)` a stroke, `7(B)` the bottleneck, `7{-20}` the bottleneck so many cents beside its fret. `2=E` says which note it should be, `5.0+2.1=Am` which chord.
 * @example readPlacesRow('e 4: 0 2h3 | q 5: 3(3p)=C - 6.3+2.0', guitarSetup())
 */
export function readPlacesRow(text: string, setup: Setup): PlacesRow {
  const steps: RowStep[] = []
  const faults: RowFault[] = []
  let string: number | undefined
  let ticks: Ticks | undefined
  let bar = false
  const add = (places: readonly RowPlace[]) => {
    steps.push({ places, ...(ticks === undefined ? {} : { ticks }), ...(bar ? { bar } : {}) })
    bar = false
  }
  const last = () => steps.at(-1)?.places[0]
  for (const match of text.matchAll(WORD)) {
    const at = match.index
    let word = match[0]
    if (LENGTH.test(word)) {
      ticks = rhythmTicks(word)
      continue
    }
    if (/^\|+$/.test(word)) {
      bar = steps.length > 0
      continue
    }
    const chosen = /^(\d+):(.*)$/.exec(word)
    if (chosen) {
      string = Number(chosen[1])
      if (string < 1 || string > setup.instrument.strings) {
        faults.push({ kind: 'noString', at, text: chosen[1]! })
        string = undefined
      }
      word = chosen[2]!
      if (word === '') continue
    }
    if (word === '-') {
      add([])
      continue
    }
    const together = word.split(TOGETHER)
    if (together.length === 1) {
      for (const piece of chainOf(word)) {
        const part = partOf(piece, string, setup, at, faults, last())
        if (part?.claim !== undefined) claimed({ ...part, claim: part.claim }, [part.place], at)
        if (part) add([part.place])
      }
      continue
    }
    const parts = together.map((part) => partOf(part, string, setup, at, faults, undefined))
    const places = parts.flatMap((p) => p?.place ?? [])
    parts.forEach((part, i) => {
      if (part?.claim === undefined) return
      claimed({ ...part, claim: part.claim }, i === parts.length - 1 ? places : [part.place], at)
    })
    if (new Set(places.map((p) => p.string)).size < places.length)
      faults.push({ kind: 'twice', at, text: word })
    else if (places.length > 0) add(places)
  }
  return { steps, faults }

  function claimed(part: Part & { readonly claim: string }, together: readonly OnNeck[], at: number): void {
    const kind = claimFault(part, together, setup)
    if (kind) faults.push({ kind, at, text: part.text, string: part.place.string, fret: part.place.fret })
  }
}

/** A note of a chain without its lead. */
const PIECE = /(?:\d\.)?(?:<\d{1,2}>|\d{1,2}|x)(?:b\d{0,2})?(?:\{[^}]*\})?~?\??(?:\([^)]*\))?(?:=[^\s/\\]*)?/
  .source

/** The notes of a word that are joined on one string: "2h4p2" is 2, h4, p2. Anything else is one word. */
const chainOf = (word: string): readonly string[] =>
  new RegExp(`^[hp/\\\\]?${PIECE}(?:[hp/\\\\]${PIECE})+$`).test(word)
    ? (word.match(new RegExp(`[hp/\\\\]?${PIECE}`, 'g')) ?? [word])
    : [word]

type OnNeck = RowPlace

/** A place, with what it is claimed to be. */
interface Part {
  readonly text: string
  readonly place: OnNeck
  readonly claim?: string
}

/** A place with its signs: lead, string, fret or harmonic, bend, cents beside the fret, vibrato, left out, fingers, claim. */
const PART =
  /^(?<lead>[hp/\\])?(?:(?<string>\d)\.)?(?:<(?<node>\d{1,2})>|(?<fret>\d{1,2})|(?<muted>x))(?<bend>b(?<to>\d{1,2})?)?(?:\{(?<beside>[+-]?\d{1,2})\})?(?<shake>~)?(?<maybe>\?)?(?:\((?<hands>[1-4T0Bpimadu]{1,2})\))?(?:=(?<claim>.+))?$/

/** How far a bend goes that names no fret. */
const WHOLE_TONE = 2

const ATTACKS = { h: 'hammer', p: 'pull', '/': 'slide', '\\': 'slide' } as const

function partOf(
  text: string,
  string: number | undefined,
  setup: Setup,
  at: number,
  faults: RowFault[],
  before: OnNeck | undefined,
): Part | undefined {
  const g = PART.exec(text)?.groups
  const fault = (kind: RowFault['kind'], more: Partial<RowFault> = {}) => {
    faults.push({ kind, at, text, ...more })
    return undefined
  }
  if (!g) return fault('notFret')
  const on = g['string'] === undefined ? string : Number(g['string'])
  if (on === undefined || on < 1 || on > setup.instrument.strings) return fault('noString')
  const stopped = Number(g['node'] ?? g['fret'] ?? 0)
  // A bend is written where it sounds; the finger stops the string below it.
  const up = !g['bend'] ? 0 : g['to'] === undefined ? WHOLE_TONE : Number(g['to']) - stopped
  const fret = stopped + up
  if (g['bend'] && (stopped === 0 || up < 1)) return fault('noBend', { string: on, fret: stopped })
  const place = { string: on, fret }
  if (fret > lastFret(setup, on)) return fault('beyondNeck', place)
  const played = mannersOf(g, place, up, before)
  if (!played) return fault('notJoined', place)
  const { claim } = g
  return {
    text,
    place: { ...place, ...(played.length > 0 ? { played } : {}) },
    ...(claim === undefined ? {} : { claim }),
  }
}

const FINGERS: Readonly<Record<string, LeftFinger>> = { 0: 0, 1: 1, 2: 2, 3: 3, 4: 4, T: 'T' }
const PICKING: Readonly<Record<string, PickingSign>> = {
  p: 'p',
  i: 'i',
  m: 'm',
  a: 'a',
  d: 'down',
  u: 'up',
}

/** How a place is played, by its signs; undefined where it is joined to no note before it on its string. */
function mannersOf(
  g: Readonly<Record<string, string | undefined>>,
  { string }: OnNeck,
  bend: number,
  before: OnNeck | undefined,
): NoteManner[] | undefined {
  const manners: NoteManner[] = []
  const lead = g['lead'] as keyof typeof ATTACKS | undefined
  const joined = before?.string === string
  if (lead && (lead === 'h' || lead === 'p') && !joined) return undefined
  // A slide without a note before it on its string comes from nowhere.
  if (lead && joined) manners.push({ do: 'attack', attack: ATTACKS[lead] })
  else if (lead)
    manners.push({ do: 'mark', mark: lead === '/' ? 'slideFromBelow' : 'slideFromAbove', on: true })
  const beside = g['beside'] === undefined ? 0 : Number(g['beside'])
  const onBar = g['beside'] !== undefined || (g['hands'] ?? '').includes(BAR_SIGN)
  // What the bottleneck slides on to stays under it.
  if (onBar && !(lead && joined)) manners.push({ do: 'attack', attack: 'bottle' })
  if (beside) manners.push({ do: 'offset', cents: beside })
  if (g['muted']) manners.push({ do: 'attack', attack: 'muted' })
  if (g['node']) manners.push({ do: 'harmonic', kind: 'natural' })
  if (g['bend']) manners.push({ do: 'bend', semitones: bend })
  if (g['shake']) manners.push({ do: 'mark', mark: 'vibrato', on: true })
  if (g['maybe']) manners.push({ do: 'mark', mark: 'optional', on: true })
  for (const letter of g['hands'] ?? '') {
    const finger = FINGERS[letter]
    const sign = PICKING[letter]
    if (finger !== undefined && finger !== 0) manners.push({ do: 'left', finger })
    else if (sign) manners.push({ do: 'right', sign })
  }
  return manners
}

/**
 * What is wrong with a claim. A note name is held against its own place; a chord's name, at the end of places struck
 * together, against all of them: each is to be one of the chord's notes.
 */
function claimFault(
  { place, claim }: Part & { readonly claim: string },
  together: readonly OnNeck[],
  setup: Setup,
): RowFault['kind'] | undefined {
  const note = noteClass(claim)
  if (note === mod12(pitchAt(setup, place))) return undefined
  const read = readChordSymbol(claim)
  if (read.kind !== 'chord') return note === undefined ? 'noNote' : 'otherNote'
  if (note !== undefined && together.length < 2) return 'otherNote'
  const tones = chordPitchClasses(read.chord)
  return together.every((p) => tones.includes(mod12(pitchAt(setup, p)))) ? undefined : 'otherChord'
}

function noteClass(name: string): number | undefined {
  const pitch = readPitch(name)
  if (pitch) return pitchClass(pitch)
  const parts = /^([A-Ga-g])(#|b|♯|♭)?$/.exec(name)
  if (!parts) return undefined
  const alter = !parts[2] ? 0 : parts[2] === '#' || parts[2] === '♯' ? 1 : -1
  return pitchClass({ step: parts[1]!.toUpperCase() as Step, alter })
}

/**
 * A row as edits from a moment on, each step as long as it says, else as the pen's value; what does not fit into a measure
 * begins the next one, so does what stands behind a bar line. The highest place on the upper strings is the melody.
 * @returns the edits, and the moment after the last; undefined where the tune ends before the row
 */
export function rowEdits(
  { steps }: Pick<PlacesRow, 'steps'>,
  tune: TuneDoc,
  setup: Setup,
  from: Pos,
  ticks: Ticks,
): { readonly edits: readonly TabEdit[]; readonly end: Pos } | undefined {
  const upper = Math.ceil(setup.instrument.strings / 2)
  const edits: TabEdit[] = []
  let measure = tune.measures.findIndex((m) => m.id === from.measure)
  let { tick } = from
  for (const { places, ticks: own, bar } of steps) {
    const length = own ?? ticks
    if (bar && tick > 0) {
      measure++
      tick = 0
    }
    while (measure < tune.measures.length && tick > 0 && tick + length > tune.measures[measure]!.length) {
      measure++
      tick = 0
    }
    const m = tune.measures[measure]
    if (!m) return undefined
    const high = [...places].sort((a, b) => pitchAt(setup, b) - pitchAt(setup, a))
    high.forEach(({ string, fret, played }, i) => {
      const role: Role = i === 0 && string <= upper ? 'melody' : string > upper ? 'bass' : 'harmony'
      edits.push({
        do: 'fret',
        at: { measure: m.id, tick },
        string,
        fret,
        ticks: Math.min(length, m.length - tick),
        role,
        ...(played ? { played } : {}),
      })
    })
    tick += length
  }
  const last = tune.measures[measure]
  if (!last) return undefined
  const next = tune.measures[measure + 1]
  const end =
    tick < last.length || !next
      ? { measure: last.id, tick: Math.min(tick, last.length - 1) }
      : { measure: next.id, tick: 0 }
  return { edits, end }
}
