import type { Attack } from '../model/arrangement.ts'
import type { Mark } from '../model/marks.ts'
import type { PickingSign } from '../neck/hand.ts'
import type { Finger, FingerOn, StepNote } from './lessonStep.ts'
import { readBack } from './template.ts'
import type { Wording } from './wording.ts'

/** A note as somebody plays it who has only the words; its finger is the one that lies there by then. */
export type ReplayedNote = Omit<StepNote, 'artificial'>

export interface ReplayedStep {
  /** The title of the measure, as it is displayed. */
  readonly measure: string
  readonly count: string
  readonly notes: readonly ReplayedNote[]
  /** All fingers that are down. */
  readonly down: readonly FingerOn[]
}

/** The words ask for something that cannot be done or understood. */
export class ReplayError extends Error {
  override readonly name = 'ReplayError'
}

/**
 * Follows a script from its displayed text alone: two hands that do what each sentence says.
 * @throws ReplayError where a sentence is not understood, or asks for a finger that is not there or twice at once
 */
export function replay(text: string, words: Wording): ReplayedStep[] {
  const steps: ReplayedStep[] = []
  let measure = ''
  let down = new Map<Finger, FingerOn>()
  for (const line of text.split('\n')) {
    if (line === '' || readBack(words.silent, line)) continue
    const told = readBack('{count}: {rest}', line)
    if (!told) {
      if (!readBack(words.measure, line)) throw new ReplayError(`Not understood: ${line}`)
      measure = line
      continue
    }
    const step = followed(told.rest!, down, words)
    ;({ down } = step)
    steps.push({ measure, count: told.count!, notes: step.notes, down: [...down.values()] })
  }
  return steps
}

function followed(
  rest: string,
  before: ReadonlyMap<Finger, FingerOn>,
  words: Wording,
): { down: Map<Finger, FingerOn>; notes: ReplayedNote[] } {
  const down = new Map(before)
  const moved = new Set<Finger>()
  const notes: ReplayedNote[] = []
  const fingerOf = (name: string): Finger => keyOf(words.fingers, name) as Finger
  const move = (name: string, on: Omit<FingerOn, 'finger'>) => {
    const finger = fingerOf(name)
    if (moved.has(finger)) throw new ReplayError(`The ${name} is needed twice at once: ${rest}`)
    moved.add(finger)
    down.set(finger, { finger, ...on })
  }
  for (const sentence of rest.split(/\. ?/).filter((s) => s !== '')) {
    const { hand } = words
    let read = readBack(hand.stays, sentence)
    if (read) {
      for (const name of read.fingers!.split(', '))
        if (!down.has(fingerOf(name)))
          throw new ReplayError(`The ${name} is to stay and is not down: ${rest}`)
      continue
    }
    if ((read = readBack(hand.lifts, sentence))) {
      for (const name of read.fingers!.split(', ')) down.delete(fingerOf(name))
      continue
    }
    if (readBack(hand.shift, sentence) || readBack(words.ringing, sentence)) continue
    if ((read = readBack(hand.lands, sentence))) {
      move(read.finger!, { fret: +read.fret!, from: +read.string!, to: +read.string! })
      continue
    }
    if ((read = readBack(hand.barre, sentence))) {
      move(read.finger!, { fret: +read.fret!, from: +read.from!, to: +read.to! })
      continue
    }
    if ((read = readBack(hand.slides, sentence)) || (read = readBack(hand.slidesBarre, sentence))) {
      const own = down.get(fingerOf(read.finger!))
      const [from, to] = [+(read.from ?? read.string!), +(read.to ?? read.string!)]
      if (!own || own.from !== from || own.to !== to)
        throw new ReplayError(`The ${read.finger} is to slide and does not lie there: ${rest}`)
      move(read.finger!, { fret: +read.fret!, from, to })
      continue
    }
    const found = soundedIn(sentence, words)
    if (!found) throw new ReplayError(`Not understood: ${sentence}`)
    notes.push(...found.notes.map((n) => noteFrom(n, found.attack, down, words)))
  }
  return { down, notes }
}

function soundedIn(sentence: string, words: Wording): { attack: Attack; notes: string[] } | undefined {
  const together = readBack(words.together, sentence)
  if (together) return { attack: 'pluck', notes: together.notes!.split('; ') }
  // What begins like another is longer, and looked at first.
  const longest = Object.entries(words.attack).sort(([, a], [, b]) => b.length - a.length)
  for (const [attack, template] of longest) {
    const read = readBack(template, sentence)
    if (read) return { attack: attack as Attack, notes: read.notes!.split('; ') }
  }
  return undefined
}

/** Reads a note from the outside in, as its words were put around one another. */
function noteFrom(
  text: string,
  attack: Attack,
  down: ReadonlyMap<Finger, FingerOn>,
  { place, picking, marks, fingers }: Wording,
): ReplayedNote {
  const found: Mark[] = []
  let rest = text
  for (let said = lastMark(rest, marks); said !== ''; said = lastMark(rest, marks)) {
    found.unshift(keyOf(marks, said) as Mark)
    rest = rest.slice(0, rest.length - said.length - 2)
  }
  const picked = readBack(place.picked, rest)
  if (picked) rest = picked.place!
  const open = readBack(place.noFinger, rest)
  if (open) rest = open.place!
  const graced = readBack(place.graces, rest)
  if (graced) rest = graced.place!
  const bent = readBack(place.bent, rest)
  if (bent) rest = bent.place!
  const by = readBack(place.by, rest)
  if (by) rest = by.place!
  const at =
    readBack(place.artificial, rest) ??
    readBack(place.harmonic, rest) ??
    readBack(place.fret, rest) ??
    readBack(place.open, rest)
  if (!at) throw new ReplayError(`No place: ${text}`)
  const string = Number(at.string)
  const touched = at.touched === undefined ? undefined : Number(at.touched)
  const fret = at.fret !== undefined ? Number(at.fret) : (touched ?? 0)
  const finger = by
    ? (keyOf(fingers, by.finger!) as Finger)
    : fret > 0
      ? [...down.values()].find((f) => f.fret === fret && f.from <= string && string <= f.to)?.finger
      : undefined
  return {
    string,
    fret,
    ...(finger === undefined ? {} : { finger }),
    ...(picked ? { picking: keyOf(picking, picked.picking!) as PickingSign } : {}),
    attack,
    ...(touched === undefined ? {} : { touched }),
    ...(bent ? { bend: Number(bent.bend) } : {}),
    graces: graced ? graced.frets!.split(', ').map(Number) : [],
    marks: found,
  }
}

/** The mark that a text ends with, or nothing that is one. */
const lastMark = (text: string, marks: Wording['marks']): string =>
  Object.values(marks).find((m) => text.endsWith(`, ${m}`)) ?? ''

function keyOf(names: Readonly<Record<string, string>>, name: string): string | number {
  const key = Object.entries(names).find(([, n]) => n === name)?.[0]
  if (key === undefined) throw new ReplayError(`Nobody is called “${name}”.`)
  return /^\d$/.test(key) ? Number(key) : key
}
