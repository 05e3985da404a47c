import type { Level, Omission, SoloStyle, Style } from '../../document/style.ts'
import type { Instrument } from '../../instrument/instrument.ts'

/** Where a bass is struck: at each chord, on the first beat, on strong beats, on every beat. */
export type BassGrid = 'none' | 'chord' | 'measure' | 'strong' | 'beats'

/** Where a further voice is struck with the melody. */
export type VoiceGrid = 'changes' | 'strong' | 'beats' | 'halves' | 'all'

/** Whole voicings under the melody: where, and how many voices at most, melody included. */
export interface ChordRule {
  readonly at: VoiceGrid
  /** Where the chord changes and on the first beat. */
  readonly voices: number
  /** Elsewhere: the music breathes. */
  readonly lighter: number
  /** Between two beats: what goes with the melody there, under it the chord rings on. */
  readonly between: number
  /** Beats of a note from which on its chord is struck again half way through. */
  readonly againIn?: number
}

/** Chord tones between the notes of the melody. */
export interface FillRule {
  readonly grid: 'beat' | 'half'
  /** Beats that the melody leaves between two notes where there are any. */
  readonly gap: number
  /** True where the fingers go through a figure, over the strings on both sides of the melody. */
  readonly figure: boolean
}

/** What a style plays at a level besides the melody. */
export interface StyleRules {
  readonly bass: BassGrid
  /** True where basses between the roots take other tones of the chord. */
  readonly alternates: boolean
  /** True where a bass before a change of chord may step to the next root. */
  readonly passes: boolean
  /** True where the bass is a pedal on the key's tonic or fifth, whatever the chord. */
  readonly pedal: boolean
  /** Chord tones between: on beats or half beats, where the melody leaves at least `gap` beats between two notes. */
  readonly fill: FillRule | undefined
  /** Strokes over the chord between the phrases, as a flat pick answers the tune. */
  readonly strums: Omit<FillRule, 'figure'> | undefined
  readonly chord: ChordRule | undefined
  /** A second voice in thirds and sixths. */
  readonly double: VoiceGrid | undefined
  /** One more chord tone struck with the melody: where the harmony changes and on the first beat, on every beat, on longer notes between too. */
  readonly thick: 'changes' | 'beats' | 'halves' | undefined
  /** How the music comes to rest: on the root alone under the melody, or on a chord of so many voices, melody included. */
  readonly ending: 'root' | number
  /** Full chords under a note of so many beats are rolled. */
  readonly rolls: number | undefined
  /** Consecutive notes on different strings, each ringing into the next. */
  readonly ring: boolean
  /** Fast notes off the beat stay on the string of the note before them, where a flat pick would have to cross on its way up. */
  readonly pairs: boolean
}

const NOTHING: StyleRules = {
  bass: 'none',
  alternates: false,
  passes: false,
  pedal: false,
  fill: undefined,
  strums: undefined,
  chord: undefined,
  double: undefined,
  thick: undefined,
  ending: 'root',
  rolls: undefined,
  ring: false,
  pairs: false,
}

const rules = (some: Partial<StyleRules>): StyleRules => ({ ...NOTHING, ...some })
const gaps = (grid: FillRule['grid'], gap: number): FillRule => ({ grid, gap, figure: false })
const figure = (grid: FillRule['grid'], gap = 0): FillRule => ({ grid, gap, figure: true })
const strokes = (grid: FillRule['grid'], gap: number): StyleRules['strums'] => ({ grid, gap })

/**
 * What each level of each style plays. Every level contains what the one below it plays, or more of it. The hand's own
 * limits by level (frets, barres, frames) stand in `LEVEL_RULES`.
 */
export const STYLE_RULES: Readonly<Record<SoloStyle, Readonly<Record<Level, StyleRules>>>> = {
  'melody-bass': {
    1: rules({ bass: 'chord' }),
    2: rules({ bass: 'strong' }),
    3: rules({ bass: 'strong', alternates: true, fill: gaps('beat', 3) }),
    4: rules({ bass: 'strong', alternates: true, passes: true, fill: gaps('beat', 3), thick: 'changes' }),
    5: rules({ bass: 'strong', alternates: true, passes: true, fill: gaps('beat', 2), thick: 'beats' }),
  },
  'alternating-bass': {
    1: rules({ bass: 'strong', alternates: true }),
    2: rules({ bass: 'beats', alternates: true }),
    3: rules({ bass: 'beats', alternates: true, fill: gaps('beat', 2), thick: 'changes' }),
    4: rules({ bass: 'beats', alternates: true, passes: true, fill: gaps('half', 2), thick: 'changes' }),
    5: rules({ bass: 'beats', alternates: true, passes: true, fill: gaps('half', 1), thick: 'changes' }),
  },
  arpeggio: {
    1: rules({ bass: 'chord', fill: figure('beat') }),
    2: rules({ bass: 'strong', fill: figure('beat') }),
    3: rules({ bass: 'strong', alternates: true, fill: figure('half'), thick: 'changes' }),
    4: rules({ bass: 'strong', alternates: true, passes: true, fill: figure('half'), thick: 'changes' }),
    5: rules({ bass: 'strong', alternates: true, passes: true, fill: figure('half'), thick: 'beats' }),
  },
  'chord-melody': {
    1: rules({ bass: 'chord' }),
    2: rules({ chord: { at: 'changes', voices: 3, lighter: 3, between: 3 } }),
    3: rules({ chord: { at: 'strong', voices: 3, lighter: 3, between: 3 } }),
    4: rules({ chord: { at: 'beats', voices: 4, lighter: 3, between: 3 }, rolls: 3 }),
    5: rules({ chord: { at: 'halves', voices: 4, lighter: 3, between: 2 }, rolls: 3 }),
  },
  drone: {
    1: rules({ bass: 'measure', pedal: true }),
    2: rules({ bass: 'measure', pedal: true, thick: 'changes' }),
    3: rules({ bass: 'strong', pedal: true, thick: 'changes', fill: gaps('beat', 2) }),
    4: rules({ bass: 'beats', pedal: true, thick: 'beats', fill: gaps('half', 2) }),
    5: rules({ bass: 'beats', pedal: true, thick: 'beats', fill: gaps('half', 1) }),
  },
  'cross-string': {
    1: rules({ ring: true }),
    2: rules({ ring: true }),
    3: rules({ ring: true, bass: 'chord' }),
    4: rules({ ring: true, bass: 'measure', fill: figure('beat', 2) }),
    5: rules({ ring: true, bass: 'strong', fill: figure('half', 2) }),
  },
  'double-stops': {
    1: rules({ double: 'strong' }),
    2: rules({ double: 'beats' }),
    3: rules({ double: 'halves', fill: figure('beat', 3) }),
    4: rules({ double: 'all', fill: figure('beat', 2) }),
    5: rules({ double: 'all', fill: figure('half', 2), bass: 'chord' }),
  },
  'flatpicked-lead': {
    1: rules({}),
    2: rules({ strums: strokes('beat', 3) }),
    3: rules({ strums: strokes('beat', 2), thick: 'changes' }),
    4: rules({ strums: strokes('beat', 2), thick: 'beats' }),
    5: rules({ strums: strokes('half', 2), thick: 'beats', pairs: true }),
  },
}

/** Voices of the last chord by level. Common practice, no source. */
const ENDINGS: Readonly<Record<Level, StyleRules['ending']>> = { 1: 'root', 2: 3, 3: 4, 4: 4, 5: 4 }

/** A pick that goes across strings skips none on its way: it takes as many as lie there. */
const STRUMMED_ENDING = 6

/** Styles in which chords or figures sound under the melody: it belongs on the two highest strings. */
export const MELODY_ON_TOP: ReadonlySet<Style> = new Set(['arpeggio', 'chord-melody'])

/** Styles that an instrument without bass strings (four courses) plays. */
const WITHOUT_BASS_STRINGS: ReadonlySet<Style> = new Set([
  'chord-melody',
  'double-stops',
  'cross-string',
  'flatpicked-lead',
  'picking',
  'bass-brush',
  'strum',
])

/** What comes nearest on an instrument without bass strings: the tune with its own strokes, or the chords under a singer. Common practice, no source. */
const NEAREST: Readonly<Partial<Record<Style, Style>>> = {
  'melody-bass': 'double-stops',
  'alternating-bass': 'flatpicked-lead',
  arpeggio: 'cross-string',
  drone: 'double-stops',
  'bass-tune': 'flatpicked-lead',
  bottleneck: 'flatpicked-lead',
  shuffle: 'strum',
}

/**
 * A style that an instrument plays, for one that it may not: the style itself where it does.
 * @example styleOn('melody-bass', { strings: 4 }) // 'double-stops'
 */
export const styleOn = (style: Style, instrument: Pick<Instrument, 'strings'>): Style =>
  refusalOf(style, 2, instrument) === undefined ? style : (NEAREST[style] ?? 'flatpicked-lead')

/** Why a style at a level is not arranged for an instrument. */
export type StyleRefusal = 'bassStrings' | 'chordsAtLevelOne'

/** True for instruments whose lower strings can carry a bass of their own. */
export function hasBassStrings(instrument: Pick<Instrument, 'strings'>): boolean {
  return instrument.strings > 4
}

/** True where chords are struck over all strings, whatever tone lies lowest: strums without bass strings. Common practice, no source. */
export const strumsWhole = (style: Style, instrument: Pick<Instrument, 'strings'>): boolean =>
  style === 'strum' && !hasBassStrings(instrument)

/**
 * The only refusals there are: styles that need bass strings on an instrument without them, and chord melody at
 * level 1, which has no shapes to put under the tune.
 */
export function refusalOf(
  style: Style,
  level: Level,
  instrument: Pick<Instrument, 'strings'>,
): StyleRefusal | undefined {
  if (!hasBassStrings(instrument) && !WITHOUT_BASS_STRINGS.has(style)) return 'bassStrings'
  return style === 'chord-melody' && level === 1 ? 'chordsAtLevelOne' : undefined
}

/** What is played at a level on an instrument: without bass strings no bass, and without what an easier version omits. */
export function styleRules(
  style: SoloStyle,
  level: Level,
  instrument: Pick<Instrument, 'strings'>,
  without: readonly Omission[] = [],
): StyleRules {
  const all = STYLE_RULES[style][level]
  const bass = hasBassStrings(instrument) ? all.bass : 'none'
  const ending = ENDINGS[level]
  const strummed = style === 'flatpicked-lead' && ending !== 'root'
  const thinBass = without.includes('bass') && bass !== 'none'
  return {
    ...all,
    bass: thinBass ? (all.pedal ? 'measure' : 'chord') : bass,
    alternates: all.alternates && !thinBass,
    passes: all.passes && !thinBass,
    ending: without.includes('chords') ? 'root' : strummed ? STRUMMED_ENDING : ending,
    ...(without.includes('fills') ? { fill: undefined, strums: undefined, thick: undefined } : {}),
    ...(without.includes('chords') && all.chord
      ? { chord: { ...all.chord, voices: 2, lighter: 2, between: 2 } }
      : {}),
    ...(without.includes('chords') && all.double ? { double: 'strong' as const } : {}),
  }
}
