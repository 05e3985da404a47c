import { type Arrival, type GraceNote, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import { pitchAt, type Place, type Setup } from '../../instrument/setup.ts'
import { spellInKey, type Key } from '../../music/pitch/key.ts'
import type { Pitch } from '../../music/pitch/pitch.ts'
import type { Ticks } from '../../music/time/ticks.ts'
import { el, escaped, leaf } from '../markup.ts'
import type { JoinEnd, Joins } from './joins.ts'
import type { Syllable } from './syllables.ts'
import type { Sounded, VoiceSign } from './voices.ts'

/** How the signs of a voice are written on a staff. */
export interface VoiceWriting {
  /** Ticks as units of the file. */
  readonly units: (ticks: Ticks) => number
  readonly voice: number
  /** Absent in a part of one staff. */
  readonly staff?: number
  readonly isTab: boolean
  readonly stem?: 'up' | 'down' | 'none'
  readonly joins: Joins
  readonly setup?: Setup | undefined
  /** Absent where nothing is sung on the voice. */
  readonly words?: ReadonlyMap<Id, readonly Syllable[]>
}

/** What a sign has beside itself: its beams and where its tuplet begins and ends. */
export interface SignPlace {
  readonly beams: readonly string[]
  readonly beginsTuplet: boolean
  readonly endsTuplet: boolean
  /** True where a slur of the tune begins or ends here. */
  readonly slur: { readonly begins: boolean; readonly ends: boolean }
  readonly key: Key
  /** The accidental to be printed at a pitch, if any; asked once for each, in order of time. */
  readonly accidentalOf: (pitch: Pitch) => number | undefined
}

/** Note values by their denominators, as MusicXML names them. */
export const TYPES: Readonly<Record<number, string>> = {
  1: 'whole',
  2: 'half',
  4: 'quarter',
  8: 'eighth',
  16: '16th',
  32: '32nd',
  64: '64th',
  128: '128th',
}

const ACCIDENTALS: Readonly<Record<number, string>> = {
  [-2]: 'flat-flat',
  [-1]: 'flat',
  0: 'natural',
  1: 'sharp',
  2: 'double-sharp',
}

/** A sign of a voice as elements: its short notes first, then each note of a chord, or a rest. */
export function signXml(sign: VoiceSign, place: SignPlace, writing: VoiceWriting): string {
  const duration = leaf('duration', writing.units(sign.ticks))
  if (sign.sounded.length === 0) {
    const body = bodyXml(sign, place, writing, { notations: [], isFirst: true })
    return el('note', {}, el('rest', {}), duration, ...body)
  }
  const graces = sign.tiedFrom ? '' : gracesXml(sign, place, writing)
  const notes = sign.sounded.map((sounded, i) => {
    const { pitch, note } = sounded
    const isFirst = i === 0
    const accidental = sign.tiedFrom ? undefined : place.accidentalOf(pitch)
    return el(
      'note',
      {},
      ...(isFirst ? [] : [el('chord', {})]),
      pitchXml(pitch),
      duration,
      ...(sign.tiedFrom ? [el('tie', { type: 'stop' })] : []),
      ...(sign.tiedTo ? [el('tie', { type: 'start' })] : []),
      ...bodyXml(sign, place, writing, {
        accidental,
        note,
        isFirst,
        notations: notationsOf(sign, sounded, place, writing, isFirst),
      }),
      ...(isFirst && sign.event ? lyricsXml(writing.words?.get(sign.event.id)) : []),
      note?.palmMute ? el('play', {}, el('mute', {}, 'palm')) : '',
    )
  })
  return graces + notes.join('')
}

interface NoteBody {
  readonly accidental?: number | undefined
  readonly note?: TabNote | undefined
  readonly notations: readonly string[]
  /** True for a rest and for the first note of a chord: it carries what the chord has once. */
  readonly isFirst: boolean
}

/** What a note or rest has behind its duration, in the order of the schema. */
function bodyXml(
  { base, dots, tuplet, sounded }: VoiceSign,
  { beams, beginsTuplet, endsTuplet }: SignPlace,
  { voice, staff, isTab, stem }: VoiceWriting,
  { accidental, note, notations, isFirst }: NoteBody,
): string[] {
  const all = [
    ...notations,
    ...(isFirst && !isTab && beginsTuplet ? [el('tuplet', { type: 'start', number: 1 })] : []),
    ...(isFirst && !isTab && endsTuplet ? [el('tuplet', { type: 'stop', number: 1 })] : []),
  ]
  return [
    leaf('voice', voice),
    leaf('type', TYPES[base] ?? '64th'),
    ...Array.from({ length: dots }, () => el('dot', {})),
    accidental !== undefined && !isTab ? leaf('accidental', ACCIDENTALS[accidental] ?? 'natural') : '',
    tuplet
      ? el('time-modification', {}, leaf('actual-notes', tuplet.actual), leaf('normal-notes', tuplet.normal))
      : '',
    stem && sounded.length > 0 ? leaf('stem', stem) : '',
    headXml(note),
    staff === undefined ? '' : leaf('staff', staff),
    ...(isFirst ? beams.map((b, i) => (b === '' ? '' : el('beam', { number: i + 1 }, b))) : []),
    all.length > 0 ? el('notations', {}, ...all) : '',
  ]
}

export const pitchXml = ({ step, alter, octave }: Pitch): string =>
  el('pitch', {}, leaf('step', step), ...(alter === 0 ? [] : [leaf('alter', alter)]), leaf('octave', octave))

const headXml = (note: TabNote | undefined): string =>
  note?.attack === 'muted'
    ? el('notehead', {}, 'x')
    : note?.optional
      ? el('notehead', { parentheses: 'yes' }, 'normal')
      : ''

function notationsOf(
  { tiedFrom, tiedTo, event }: VoiceSign,
  { note }: Sounded,
  { slur }: SignPlace,
  { isTab, joins }: VoiceWriting,
  first: boolean,
): string[] {
  const out: string[] = []
  if (tiedFrom) out.push(el('tied', { type: 'stop' }))
  if (tiedTo) out.push(el('tied', { type: 'start' }))
  // A slide is drawn as a line, any other join as a slur of its own.
  const isJoined = note !== undefined && joins.of.get(note.id)?.some((j) => j.kind !== 'slide') === true
  if (first && slur.ends && !isJoined) out.push(el('slur', { type: 'stop', number: 1 }))
  if (first && slur.begins && !isJoined) out.push(el('slur', { type: 'start', number: 1 }))
  if (first && event && !isTab) out.push(...ornamentsXml(event.ornaments, note !== undefined))
  if (!note || tiedFrom) return out
  const ends = joins.of.get(note.id) ?? []
  out.push(...joinsXml(ends))
  const ornaments = [
    ...(note.attack === 'tremolo' ? [el('tremolo', { type: 'single' }, '3')] : []),
    ...(note.vibrato ? [el('wavy-line', { type: 'start' }), el('wavy-line', { type: 'stop' })] : []),
  ]
  if (ornaments.length > 0 && !isTab) out.push(el('ornaments', {}, ...ornaments))
  // What the fretting hand does stands in the tab; how a note sounds, on the staff.
  const technical = isTab ? technicalXml(note, note.place, note.left, ends) : strokeXml(note)
  if (technical.length > 0) out.push(el('technical', {}, ...technical))
  if (isTab) return out
  const articulations = [
    ...(note.accent ? [el('accent', {})] : []),
    ...(note.staccato ? [el('staccato', {})] : []),
    ...(note.slideFromBelow ? [el('scoop', {})] : []),
    ...(note.slideFromAbove ? [el('plop', {})] : []),
    ...(note.slideOffUp ? [el('doit', {})] : []),
    ...(note.slideOffDown ? [el('falloff', {})] : []),
    ...(note.damp ? [el('other-articulation', {}, 'damp')] : []),
  ]
  if (articulations.length > 0) out.push(el('articulations', {}, ...articulations))
  if (note.fermata) out.push(el('fermata', {}))
  if (note.rolled || note.attack === 'brush')
    out.push(el('arpeggiate', { direction: note.right === 'up' ? 'down' : 'up' }))
  if (note.letRing) out.push(el('other-notation', { type: 'single' }, 'let ring'))
  return out
}

/** Ornaments of a source by their names in ABC, as MusicXML names them; any other is kept by its name. */
export const ORNAMENT_ELEMENTS: Readonly<Record<string, string>> = {
  trill: 'trill-mark',
  turn: 'turn',
  mordent: 'mordent',
  uppermordent: 'inverted-mordent',
}

/** @param isTab true where the tab says itself what is held beyond its length */
function ornamentsXml(ornaments: readonly string[], isTab: boolean): string[] {
  const signs = ornaments
    .filter((o) => o !== 'fermata')
    .map((o) => {
      const name = ORNAMENT_ELEMENTS[o]
      return name ? el(name, {}) : el('other-ornament', {}, escaped(o))
    })
  return [
    ...(signs.length > 0 ? [el('ornaments', {}, ...signs)] : []),
    ...(!isTab && ornaments.includes('fermata') ? [el('fermata', {})] : []),
  ]
}

const OFF_STAFF: Readonly<Record<Arrival, string | undefined>> = {
  hammer: 'hammer-on',
  pull: 'pull-off',
  slide: undefined,
  bend: undefined,
  release: undefined,
}

/** Slurs and slides of joins, on either staff. */
const joinsXml = (ends: readonly JoinEnd[]): string[] =>
  ends.map(({ kind, end, number }) =>
    kind === 'slide'
      ? el('slide', { type: end, number, 'line-type': 'solid' })
      : // Slurs of the tune have the first number.
        el('slur', { type: end, number: Math.min(6, number + 1) }),
  )

function strokeXml({ right, attack }: TabNote): string[] {
  const out: string[] = []
  if (right === 'down') out.push(el('down-bow', {}))
  if (right === 'up') out.push(el('up-bow', {}))
  if (attack === 'brush') out.push(el('other-technical', {}, 'brush'))
  return out
}

function technicalXml(
  note: TabNote,
  place: Place,
  left: TabNote['left'],
  ends: readonly JoinEnd[],
): string[] {
  const { right, attack, bend = 0 } = note
  const out = [...placeXml(place, left)]
  if (right !== 'none' && right !== 'down' && right !== 'up') out.push(leaf('pluck', right))
  out.push(...hammersXml(ends))
  if (bend !== 0 || attack === 'release')
    out.push(
      el(
        'bend',
        {},
        leaf('bend-alter', bend),
        ...(attack === 'release' ? [el('release', {})] : attack === 'bend' ? [] : [el('pre-bend', {})]),
      ),
    )
  if (attack === 'bottle') out.push(el('other-technical', {}, 'bottleneck'))
  return out
}

const hammersXml = (ends: readonly JoinEnd[]): string[] =>
  ends.flatMap(({ kind, end, number }) => {
    const name = OFF_STAFF[kind]
    return name
      ? [el(name, { type: end, number }, ...(end === 'start' ? [kind === 'hammer' ? 'H' : 'P'] : []))]
      : []
  })

/** String, fret, finger and harmonic of a place. */
const placeXml = (place: Place, left: TabNote['left']): string[] => [
  ...(left === 0 ? [] : [leaf('fingering', left)]),
  leaf('string', place.string),
  leaf('fret', place.fret),
  ...(place.harmonic || place.artificial
    ? [el('harmonic', {}, el(place.artificial ? 'artificial' : 'natural', {}), el('sounding-pitch', {}))]
    : []),
]

/** What a short note sounds, spelled in a key. */
export const gracePitch = (setup: Setup, at: Place, key: Key): Pitch => spellInKey(pitchAt(setup, at), key)

/** The short notes before a sign. */
function gracesXml({ sounded, event }: VoiceSign, place: SignPlace, writing: VoiceWriting): string {
  const grace = (pitch: Pitch, notations: readonly string[], optional = false): string => {
    const accidental = place.accidentalOf(pitch)
    return el(
      'note',
      {},
      el('grace', { slash: 'yes' }),
      pitchXml(pitch),
      leaf('voice', writing.voice),
      leaf('type', 'eighth'),
      accidental !== undefined && !writing.isTab
        ? leaf('accidental', ACCIDENTALS[accidental] ?? 'natural')
        : '',
      optional ? el('notehead', { parentheses: 'yes' }, 'normal') : '',
      ...(writing.staff === undefined ? [] : [leaf('staff', writing.staff)]),
      ...(notations.length > 0 ? [el('notations', {}, ...notations)] : []),
    )
  }
  const { setup, isTab, joins } = writing
  const ofTab = sounded.flatMap(({ note }) => {
    if (!note?.graces || !setup) return []
    return note.graces.map((g: GraceNote, i) => {
      const ends = joins.ofGraces.get(note.id)?.[i] ?? []
      const technical = isTab ? [el('technical', {}, ...placeXml(g.place, g.left), ...hammersXml(ends))] : []
      return grace(gracePitch(setup, g.place, place.key), [...joinsXml(ends), ...technical], g.optional)
    })
  })
  const isAlone = sounded.every(({ note }) => !note)
  return [...ofTab, ...(isAlone && event ? event.graces.map((p) => grace(p, [])) : [])].join('')
}

/** The syllables under a note, verse by verse. */
const lyricsXml = (syllables: readonly Syllable[] = []): string[] =>
  syllables.map(({ verse, syllabic, text: sung }) =>
    el('lyric', { number: verse }, leaf('syllabic', syllabic), leaf('text', sung)),
  )
