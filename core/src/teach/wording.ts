import type { Attack } from '../model/arrangement.ts'
import type { Mark } from '../model/marks.ts'
import type { PickingSign } from '../neck/hand.ts'
import type { Finger } from './lessonStep.ts'

/** How lesson steps are said in one language: templates, whose braces are filled. None holds a full stop. */
export interface Wording {
  readonly measure: string
  /** Strings that nobody plays in a measure. */
  readonly silent: string
  readonly count: { readonly beat: string; readonly syllable: string; readonly share: string }
  readonly fingers: Readonly<Record<Finger, string>>
  readonly picking: Readonly<Record<Exclude<PickingSign, 'none'>, string>>
  readonly hand: {
    readonly stays: string
    readonly lifts: string
    readonly lands: string
    readonly barre: string
    readonly slides: string
    readonly slidesBarre: string
    readonly shift: string
  }
  /** How a note is sounded; several plucked at once are said together. */
  readonly attack: Readonly<Record<Attack, string>>
  readonly together: string
  readonly place: {
    readonly open: string
    readonly fret: string
    readonly harmonic: string
    readonly artificial: string
    readonly by: string
    readonly bent: string
    readonly graces: string
    readonly noFinger: string
    readonly picked: string
    readonly marked: string
  }
  readonly marks: Readonly<Record<Mark, string>>
  readonly ringing: string
}

export const ENGLISH: Wording = {
  measure: 'Measure {number}',
  silent: 'Not played here, touching does no harm: string {strings}',
  count: { beat: '{beat}', syllable: '{syllable} of {beat}', share: '{share} after {beat}' },
  fingers: {
    1: 'index finger',
    2: 'middle finger',
    3: 'ring finger',
    4: 'little finger',
    T: 'thumb over the neck',
  },
  picking: { p: 'thumb', i: 'index', m: 'middle', a: 'ring', down: 'downstroke', up: 'upstroke' },
  hand: {
    stays: 'Keep down: {fingers}',
    lifts: 'Lift: {fingers}',
    lands: 'Put the {finger} on string {string}, fret {fret}',
    barre: 'Lay the {finger} across strings {from} to {to} at fret {fret}',
    slides: 'Slide the {finger} along string {string} to fret {fret}',
    slidesBarre: 'Slide the {finger}, across strings {from} to {to}, to fret {fret}',
    shift: 'The hand goes to fret {to}',
  },
  attack: {
    pluck: 'Pluck {notes}',
    tremolo: 'Keep striking {notes}',
    brush: 'Brush {notes}',
    muted: 'Strike muted {notes}',
    bottle: 'Pluck under the bottleneck {notes}',
    hammer: 'Hammer on to {notes}',
    pull: 'Pull off to {notes}',
    slide: 'Slide on to {notes}',
    bend: 'Bend up at {notes}',
    release: 'Let back to {notes}',
  },
  together: 'Pluck together {notes}',
  place: {
    open: 'string {string} open',
    fret: 'string {string} at fret {fret}',
    harmonic: 'string {string} touched over fret {touched}',
    artificial: 'string {string} at fret {fret} and touched over fret {touched}',
    by: '{place} by the {finger}',
    bent: '{place} pushed up by {bend}',
    graces: '{place} from fret {frets}',
    noFinger: '{place} with a finger still to be chosen',
    picked: '{place} ({picking})',
    marked: '{place}, {mark}',
  },
  marks: {
    letRing: 'ringing',
    palmMute: 'palm on the strings',
    accent: 'firmly',
    staccato: 'short',
    fermata: 'held',
    vibrato: 'with vibrato',
    damp: 'stopped by the next',
    optional: 'or left out',
  },
  ringing: 'Let ring on: string {strings}',
}
