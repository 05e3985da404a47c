import { OCTAVE, type LeftFinger, type PickingSign } from '@velvet-porch/core/instrument'
import { isArrival, MARKS, type Mark, type TabNote } from '@velvet-porch/core/document'
import type { EditCommand } from '@velvet-porch/core/edit'

/** Ways of sounding a written note that the writing bar has, each with its key. */
export const SOUNDS = [
  'hammer',
  'pull',
  'slide',
  'rise',
  'release',
  'bend',
  'harmonic',
  'grace',
  'tremolo',
  'muted',
  'brush',
  'bottle',
  ...MARKS,
] as const
export type Sound = (typeof SOUNDS)[number]

export const SOUND_KEYS: Readonly<Record<Sound, string>> = {
  hammer: 'H',
  pull: 'U',
  slide: 'S',
  rise: 'C',
  release: ';',
  bend: 'B',
  harmonic: 'N',
  grace: 'G',
  tremolo: 'Y',
  muted: 'X',
  brush: 'J',
  bottle: 'Alt+K',
  letRing: 'L',
  palmMute: 'K',
  staccato: 'D',
  fermata: 'R',
  rolled: 'Alt+G',
  accent: 'E',
  vibrato: 'V',
  damp: 'Z',
  slideFromBelow: 'Alt+S',
  slideFromAbove: 'Alt+A',
  slideOffUp: 'Alt+W',
  slideOffDown: 'Alt+X',
  optional: 'O',
}

const isMark = (sound: Sound): sound is Mark => (MARKS as readonly string[]).includes(sound)

/** True where a note is sounded in this way. */
export function soundsSo(note: TabNote, sound: Sound): boolean {
  if (isMark(sound)) return note[sound] === true
  if (sound === 'harmonic') return note.place.harmonic !== undefined || note.place.artificial === true
  if (sound === 'grace') return note.graces !== undefined
  if (sound === 'bend') return note.bend !== undefined && !isArrival(note.attack)
  if (sound === 'rise') return note.attack === 'bend'
  return note.attack === sound && note.graces === undefined
}

/** The kind of edit that sounds a note in a way. */
export function soundKind(sound: Sound): EditCommand['do'] {
  if (isMark(sound)) return 'mark'
  return sound === 'harmonic' || sound === 'grace' || sound === 'bend' ? sound : 'attack'
}

/** Sounds a note in a way, or plainly again where it already is. */
export function soundEdit(note: TabNote, sound: Sound): EditCommand {
  const on = !soundsSo(note, sound)
  if (isMark(sound)) return { do: 'mark', note: note.id, mark: sound, on }
  switch (sound) {
    case 'harmonic':
      return { do: 'harmonic', note: note.id, kind: on ? naturalFirst(note) : 'none' }
    case 'grace':
      return { do: 'grace', note: note.id, fret: on ? Math.max(0, note.place.fret - 1) : undefined }
    case 'bend':
      // A whole step, then half a step, then straight again.
      return { do: 'bend', note: note.id, semitones: note.bend === undefined ? 1 : note.bend === 1 ? 2 : 0 }
    case 'rise':
      return { do: 'attack', note: note.id, attack: on ? 'bend' : 'pluck' }
    default:
      return { do: 'attack', note: note.id, attack: on ? sound : 'pluck' }
  }
}

/** Sounds notes in a way, or all of them plainly again where all already are. */
export function soundEdits(notes: readonly TabNote[], sound: Sound): EditCommand[] {
  const all = notes.every((n) => soundsSo(n, sound))
  return notes.filter((n) => all || !soundsSo(n, sound)).map((n) => soundEdit(n, sound))
}

/** A note high enough to have the string sing in parts is tried as a natural harmonic first. */
const naturalFirst = ({ place }: TabNote) =>
  place.fret >= OCTAVE / 2 || place.fret === 0 ? 'natural' : 'artificial'

/** Fingers of the fretting hand, each with its key; the thumb over the neck is for the low strings. */
export const LEFT_FINGERS: readonly LeftFinger[] = [1, 2, 3, 4, 'T']
export const leftKey = (finger: LeftFinger): string => `Shift+${finger === 'T' ? 5 : finger}`
export const PICKS: readonly PickingSign[] = ['p', 'i', 'm', 'a']
export const STROKES: readonly PickingSign[] = ['down', 'up']

export const leftEdits =
  (finger: LeftFinger) =>
  (notes: readonly TabNote[]): EditCommand[] =>
    notes.map((n) => ({ do: 'left', note: n.id, finger }))

/** Cents by which a key moves a note under the bottleneck. */
const CENTS_A_KEY = 5

/** Stops notes under the bottleneck a little lower or higher. */
export const offsetEdits =
  (way: -1 | 1) =>
  (notes: readonly TabNote[]): EditCommand[] =>
    notes.map((n) => ({
      do: 'offset',
      note: n.id,
      cents: (n.place.offsetCents ?? 0) + way * CENTS_A_KEY,
    }))

export const rightEdits =
  (sign: PickingSign) =>
  (notes: readonly TabNote[]): EditCommand[] =>
    notes.map((n) => ({ do: 'right', note: n.id, sign }))

export const eraseEdits = (notes: readonly TabNote[]): EditCommand[] =>
  notes.map((n) => ({ do: 'erase', note: n.id }))
