import { present } from '../../invariant.ts'
import { type Finger, type PlacedFinger, heldOn } from '../../hand/moves/placedFinger.ts'
import type { Attack, GraceNote } from '../../document/tab.ts'
import type { Mark } from '../../document/marks.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import { readBack } from '../text/template.ts'
import { capital } from '../text/words/capital.ts'
import type { Wording } from '../text/words/wording.ts'
import { fingerNamed, nameKey, ReplayError, type ReplayedNote } from './replayed.ts'

/** What one sentence sounds, and the fingers that come down with the sound. */
export interface SoundedNotes {
  readonly notes: readonly ReplayedNote[]
  readonly hammers: readonly { readonly finger: Finger; readonly fret: number; readonly string: number }[]
}

/** @throws ReplayError where the sentence is not understood */
export function soundedIn(
  sentence: string,
  down: ReadonlyMap<Finger, PlacedFinger>,
  words: Wording,
): SoundedNotes {
  const chain = sentence.split(words.then).map((text, i) => (i === 0 ? text : capital(text)))
  const read = chain.flatMap((text) => {
    const way = wayIn(text, words)
    if (!way) throw new ReplayError(`Not understood: ${sentence}`)
    return way.notes.flatMap((n) => notesFrom(n, way, down, words))
  })
  const hammers = read.flatMap(({ attack, by, fret, string }) =>
    attack === 'hammer' && by !== undefined ? [{ finger: by, fret, string }] : [],
  )
  return { notes: chain.length === 1 ? read.map(plainNote) : [chained(read)], hammers }
}

/** A way of sounding, and the texts of the notes that are sounded so. */
interface Way {
  readonly attack: Attack
  readonly optional: boolean
  readonly notes: string[]
}

function wayIn(sentence: string, words: Wording): Way | undefined {
  const together = readBack(words.together, sentence)
  if (together) return { attack: 'pluck', optional: false, notes: present(together.notes).split('; ') }
  const left = readBack(words.optional, sentence)
  // What begins like another is longer, and looked at first.
  const longest = Object.entries(words.attack).sort(([, a], [, b]) => b.length - a.length)
  for (const [attack, template] of longest) {
    const read = readBack(template, left?.grace ?? sentence)
    if (read)
      return {
        attack: attack as Attack,
        optional: left !== undefined,
        notes: present(read.notes).split('; '),
      }
  }
  return undefined
}

/** A note with the finger that is named with it, and whether it may be left out. */
interface ReadNote extends ReplayedNote {
  readonly by?: Finger
  readonly leave: boolean
}

const plainNote = ({ by: _, leave: __, ...note }: ReadNote): ReplayedNote => note

/** Quick notes one after the other are one note with short ones before it; it is struck where the first of them is. */
function chained(notes: readonly ReadNote[]): ReplayedNote {
  const { picking: _, ...last } = plainNote(notes.at(-1)!)
  const { picking } = notes[0]!
  return {
    ...last,
    ...(picking === undefined ? {} : { picking }),
    graces: notes.slice(0, -1).map(({ fret, by, attack, leave }) => ({
      fret,
      ...(by === undefined ? {} : { finger: by }),
      attack: attack as GraceNote['attack'],
      ...(leave ? { optional: true } : {}),
    })),
  }
}

/** The notes of one text: one, or neighbouring strings as the hand holds them. */
function notesFrom(
  text: string,
  item: Way,
  down: ReadonlyMap<Finger, PlacedFinger>,
  words: Wording,
): ReadNote[] {
  const { place, picking } = words
  const picked = readBack(place.picked, text)
  const read = readBack(place.strings, picked?.place ?? text)
  if (!read || !/^\d+$/.test(present(read.to))) return [noteFrom(text, item, down, words)]
  const strings = Array.from(
    { length: +present(read.from) - +present(read.to) + 1 },
    (_, i) => +present(read.from) - i,
  )
  return strings.map((string): ReadNote => {
    const held = heldOn([...down.values()], string)
    return {
      string,
      fret: held?.fret ?? 0,
      ...(held ? { finger: held.finger } : {}),
      ...(picked ? { picking: nameKey(picking, present(picked.picking)) as PickingSign } : {}),
      attack: item.attack,
      leave: item.optional,
      graces: [],
      marks: [],
    }
  })
}

/** Reads a note from the outside in, as its words were put around one another. */
function noteFrom(
  text: string,
  { attack, optional }: Way,
  down: ReadonlyMap<Finger, PlacedFinger>,
  words: Wording,
): ReadNote {
  const { place, picking, marks } = words
  const found: Mark[] = []
  let rest = text
  // Marks stand outermost, so that a comma elsewhere is none.
  for (let said = lastMark(rest, marks); said !== ''; said = lastMark(rest, marks)) {
    found.unshift(nameKey(marks, said) as Mark)
    rest = rest.slice(0, rest.length - said.length - 2)
  }
  const picked = readBack(place.picked, rest)
  if (picked) rest = present(picked.place)
  const called = readBack(place.named, rest)
  if (called) rest = present(called.place)
  const open = readBack(place.noFinger, rest)
  if (open) rest = present(open.place)
  const bent = readBack(place.bent, rest)
  if (bent) rest = present(bent.place)
  const beside = (['short', 'beyond'] as const).find((side) => readBack(place[side], rest))
  if (beside) rest = present(present(readBack(place[beside], rest)).place)
  const by = readBack(place.by, rest)
  if (by) rest = present(by.place)
  const at =
    readBack(place.artificial, rest) ??
    readBack(place.harmonic, rest) ??
    readBack(place.fret, rest) ??
    readBack(place.open, rest)
  if (!at) throw new ReplayError(`No place: ${text}`)
  const string = Number(at.string)
  const touched = at.touched === undefined ? undefined : Number(at.touched)
  const fret = at.fret !== undefined ? Number(at.fret) : (touched ?? 0)
  const named = by ? fingerNamed(words, present(by.finger)) : undefined
  const finger = named ?? (fret > 0 ? fingerAt(down, string, fret) : undefined)
  return {
    string,
    fret,
    ...(finger === undefined ? {} : { finger }),
    ...(named === undefined ? {} : { by: named }),
    leave: optional,
    ...(picked ? { picking: nameKey(picking, present(picked.picking)) as PickingSign } : {}),
    attack,
    ...(touched === undefined ? {} : { touched }),
    ...(beside ? { beside } : {}),
    ...(bent ? { bend: Number(present(bent.to).replace('½', '.5')) - fret } : {}),
    graces: [],
    marks: found,
  }
}

/** The finger at a place, whatever lies higher up on its string. */
const fingerAt = (
  down: ReadonlyMap<Finger, PlacedFinger>,
  string: number,
  fret: number,
): Finger | undefined =>
  heldOn(
    [...down.values()].filter((f) => f.fret === fret),
    string,
  )?.finger

/** The mark that a text ends with, or nothing that is one. */
const lastMark = (text: string, marks: Wording['marks']): string =>
  Object.values(marks).find((m) => text.endsWith(`, ${m}`)) ?? ''
