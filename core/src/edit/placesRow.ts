import { chordPitchClasses, readChordSymbol } from '../music/harmony/chordSymbol.ts'
import type { Role } from '../document/tab.ts'
import type { Pos, TuneDoc } from '../document/tune.ts'
import { lastFret, pitchAt, type Setup } from '../instrument/setup.ts'
import { mod12, pitchClass, readPitch, type Step } from '../music/pitch/pitch.ts'
import type { Ticks } from '../music/time/ticks.ts'
import type { TabEdit } from './edited.ts'

/** One moment of a row of places: what is struck together, or silence. */
export interface RowStep {
  readonly places: readonly { readonly string: number; readonly fret: number }[]
}

/** What of a row cannot be taken; `at` counts characters from 0. */
export interface RowFault {
  readonly kind: 'noString' | 'notFret' | 'beyondNeck' | 'otherNote' | 'otherChord' | 'noNote'
  readonly at: number
  readonly text: string
  readonly string?: number
  readonly fret?: number
}

export interface PlacesRow {
  readonly steps: readonly RowStep[]
  readonly faults: readonly RowFault[]
}

/** `4:` chooses a string, `7` is a fret on it, `-` a silence, `6.3+2.1` places together, `2=E` a fret with the note it should be, `5.0+2.1=Am` places with the chord that they are of. */
const WORD = /\S+/g

/**
 * Reads a row of places as a teacher says them: the string once, then its frets one after the other.
 * @example readPlacesRow('4: 0 2 3 5: 3=C - 6.3+2.0', guitarSetup())
 */
export function readPlacesRow(text: string, setup: Setup): PlacesRow {
  const steps: RowStep[] = []
  const faults: RowFault[] = []
  let string: number | undefined
  for (const match of text.matchAll(WORD)) {
    const at = match.index
    let word = match[0]
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
      steps.push({ places: [] })
      continue
    }
    const parts = word.split('+').map((part) => partOf(part, string, setup, at, faults))
    const places = parts.flatMap((p) => p?.place ?? [])
    parts.forEach((part, i) => {
      if (part?.claim === undefined) return
      const fault = claimFault(
        { ...part, claim: part.claim },
        i === parts.length - 1 ? places : [part.place],
        setup,
      )
      if (fault) faults.push({ kind: fault, at, text: part.text, ...part.place })
    })
    if (places.length > 0) steps.push({ places })
  }
  return { steps, faults }
}

type OnNeck = RowStep['places'][number]

/** A place, with what it is claimed to be. */
interface Part {
  readonly text: string
  readonly place: OnNeck
  readonly claim?: string
}

function partOf(
  text: string,
  string: number | undefined,
  setup: Setup,
  at: number,
  faults: RowFault[],
): Part | undefined {
  const parts = /^(?:(\d)\.)?(\d{1,2})(?:=(.+))?$/.exec(text)
  const fault = (kind: RowFault['kind'], more: Partial<RowFault> = {}) => {
    faults.push({ kind, at, text, ...more })
    return undefined
  }
  if (!parts) return fault('notFret')
  const on = parts[1] === undefined ? string : Number(parts[1])
  if (on === undefined || on < 1 || on > setup.instrument.strings) return fault('noString')
  const place = { string: on, fret: Number(parts[2]) }
  if (place.fret > lastFret(setup, on)) return fault('beyondNeck', place)
  return { text, place, ...(parts[3] === undefined ? {} : { claim: parts[3] }) }
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
 * A row as edits from a moment on, each step as long as the pen's value; what does not fit into a measure begins the
 * next one. The highest place on the upper strings is the melody.
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
  for (const { places } of steps) {
    while (measure < tune.measures.length && tick + ticks > tune.measures[measure]!.length) {
      measure++
      tick = 0
    }
    const m = tune.measures[measure]
    if (!m) return undefined
    const high = [...places].sort((a, b) => pitchAt(setup, b) - pitchAt(setup, a))
    high.forEach(({ string, fret }, i) => {
      const role: Role = i === 0 && string <= upper ? 'melody' : string > upper ? 'bass' : 'harmony'
      edits.push({ do: 'fret', at: { measure: m.id, tick }, string, fret, ticks, role })
    })
    tick += ticks
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
