import { chordText, readChordSymbol } from '@velvet-porch/core/music'
import {
  guitarSetup,
  INSTRUMENTS,
  readTuning,
  setupOf,
  type InstrumentKind,
} from '@velvet-porch/core/instrument'
import type { Score } from '@velvet-porch/core/document'
import {
  arranging,
  ArrangeError,
  PATTERN_LIBRARY,
  readPattern,
  readStrum,
  wholeTune,
  writePattern,
} from '@velvet-porch/core/arrange'
import { applyEdit, readPlacesRow, rowEdits } from '@velvet-porch/core/edit'
import { finish } from '@velvet-porch/core/turns'
import { readOwnPattern } from '@velvet-porch/core/schema'
import { lockFrom } from '../../../../cli/src/lockFrom.ts'
import { UsageError } from '../../../../cli/src/usage.ts'
import { oneOf, type Chance } from '../../../../e2e/chance.ts'
import { mutateText } from '../mutateText.ts'
import { loss, refusal, type Complaint, type FuzzTarget } from '../target.ts'
import { arrangedSeeds } from './seeds.ts'

/** A target of short texts of one kind. */
const spoken = (
  name: string,
  seeds: readonly string[],
  words: readonly string[],
  read: (text: string) => readonly Complaint[],
): FuzzTarget<string> => ({
  name,
  seeds,
  mutate: (seed, chance) => mutateText(seed, seeds, words, chance),
  read,
})

interface OnGrid {
  readonly text: string
  readonly num: number
  readonly den: number
  readonly perBeat: number
}

/** A target of texts that are laid on the grid of a metre. */
const onGrid = (
  name: string,
  texts: readonly string[],
  words: readonly string[],
  read: (input: OnGrid) => readonly Complaint[],
): FuzzTarget<OnGrid> => ({
  name,
  seeds: texts.map((text) => ({ text, num: 4, den: 4, perBeat: 2 })),
  mutate: ({ text }, chance: Chance) => ({
    text: mutateText(text, texts, words, chance),
    num: oneOf(chance, [1, 2, 3, 4, 6, 7, 12, 32, 64]),
    den: oneOf(chance, [1, 2, 4, 8, 16, 32, 64]),
    perBeat: oneOf(chance, [1, 2, 3, 4, 8]),
  }),
  read,
})

export const strumTarget = onGrid(
  'strum',
  ['down down down-up down-up', 'd du ud u', 'down up down-up', 'd*! u! du', 'DUDU dudu', 'down-up-down-up'],
  ['down', 'up', 'du', '-', 'down-up', 'd*', 'u!', 'and', 'down '.repeat(70), 'du '.repeat(40)],
  ({ text, num, den, perBeat }) => {
    const reading = readStrum(text, { num, den }, perBeat)
    const placed =
      reading.kind === 'placed' ? [reading.placement] : reading.kind === 'ambiguous' ? reading.choices : []
    return placed.flatMap(({ pattern }) =>
      readPattern(pattern).ok ? [] : [refusal(`a strum that is no pattern: ${pattern.text}`)],
    )
  },
)

export const patternTarget = onGrid(
  'pattern',
  PATTERN_LIBRARY.map((p) => p.text),
  ['b', 'a', '^1', '6', 'D', 'u', 'd(2-3)', '*', '!', '_', '.', '|', ' ', 'd(9-1)', '^99', 'b1 '.repeat(60)],
  ({ text, num, den, perBeat }) => {
    const reading = readPattern({ metre: { num, den }, perBeat, text })
    if (!reading.ok) return []
    const written = writePattern(reading.pattern)
    const again = readPattern(written)
    if (!again.ok || JSON.stringify(again.pattern) !== JSON.stringify(reading.pattern))
      return [loss(`"${text}" becomes "${written.text}"`)]
    if (num > 32 || den > 32) return []
    try {
      readOwnPattern({ id: 'p', name: 'Mine', style: 'picking', ...written })
      return []
    } catch (error) {
      return [refusal((error as Error).message)]
    }
  },
)

export const chordTarget = spoken(
  'chord',
  ['C', 'F#m7b5', 'Bb/D', 'Gsus4', 'A7(b9)', 'Dm/maj7', 'Eadd9', 'N.C.', 'Cdim7', 'Abmaj13#11', 'C6/9', 'E5'],
  [
    'm',
    'maj',
    '7',
    'b5',
    '#9',
    'sus',
    'add',
    '/',
    'dim',
    '°',
    'ø',
    '+',
    '(',
    ')',
    '♭',
    '△',
    '/G#',
    'alt',
    'no3',
  ],
  (text) => {
    const reading = readChordSymbol(text)
    if (reading.kind !== 'chord') return []
    const { root, quality, intervals, bass } = reading.chord
    if (quality.length > 20 || intervals.some((i) => !Number.isInteger(i) || i < 0 || i > 24))
      return [refusal(`storage does not take "${text}"`)]
    const again = readChordSymbol(chordText(reading.chord))
    const same =
      again.kind === 'chord' &&
      JSON.stringify([again.chord.root, again.chord.intervals, again.chord.bass]) ===
        JSON.stringify([root, intervals, bass])
    return same ? [] : [loss(`"${text}" is written "${chordText(reading.chord)}"`)]
  },
)

const KINDS = Object.keys(INSTRUMENTS) as InstrumentKind[]

export const tuningTarget = spoken(
  'tuning',
  ['D A D G A D', 'E2 A2 D3 G3 B3 E4', 'DADF#AD', 'open G', 'g d a e', 'Eb-Ab-Db-Gb-Bb-Eb', 'standard'],
  ['C', 'F#', 'bb', '9', '-', ' ', 'drop', 'H', '♯', ','],
  (text) =>
    KINDS.flatMap((kind) => {
      const read = readTuning(kind, text)
      if (!('tuning' in read)) return []
      const { strings } = INSTRUMENTS[kind].instrument
      const whole = read.tuning.length === strings && read.tuning.every((p) => Number.isInteger(p) && p > 0)
      return whole ? [] : [refusal(`a tuning of ${read.tuning.join()} for ${strings} strings`)]
    }),
)

export const placesTarget = spoken(
  'places',
  [
    '4: 0 2 3 5: 3=C - 6.3+2.0',
    '1: 3 5 7 - 2: 8',
    '5.0+2.1=Am 6.3+3.0 4.0',
    '6.2=F# 1: 12 24',
    'e 5: 2h4p2 0 | q. 1: 7(1p) 3b5~? x <12>',
  ],
  [
    '+',
    'h',
    'p',
    '/',
    'b',
    '~',
    '?',
    '(1)',
    '|',
    'q',
    '=',
    '7:',
    '0:',
    '-',
    '6.',
    '.',
    '99',
    '=H',
    '5.3+5.5',
    '1.0+1.0',
    '2=E',
    ': ',
  ],
  (text) => {
    const setup = guitarSetup()
    const row = readPlacesRow(text, setup)
    // A word is a moment, and each note that is joined to it another; strings, lengths and bar lines are none.
    const words = (text.match(/\S+/g) ?? []).filter((w) => !/^(?:\d+:|\|+|[whqestf]\.{0,2})$/.test(w))
    const joined = words.map((w) => w.match(/(?<=[\dx>~?)])[hp/\\](?=[\d<x])/g)?.length ?? 0)
    const moments = words.length + joined.reduce((sum, n) => sum + n, 0)
    const complaints =
      row.faults.length === 0 && row.steps.length !== moments
        ? [loss(`${moments} moments, ${row.steps.length} steps`)]
        : []
    const { tune, arrangement } = arrangedSeeds()[0]!
    const first = tune.measures[0]!
    const made = rowEdits(row, tune, setup, { measure: first.id, tick: 0 }, 5040)
    let score: Score = { tune, arrangement }
    for (const edit of (made?.edits ?? []).slice(0, 12)) {
      const edited = applyEdit(score, edit)
      if (edited.ok) score = edited.score
    }
    return complaints
  },
)

export const lockTarget = spoken(
  'lock',
  [
    'measure 2 beat 1 melody string 3 fret 2 finger 1',
    'measure 1 beat 1 melody finger 3',
    'measure 3 beat 1 bass string 6 fret 3 finger T',
    'measure 2 beat 2 melody sounded hammer',
  ],
  [
    'measure',
    'beat',
    'string',
    'fret',
    'finger',
    'T',
    '4',
    '-1',
    '1.5',
    '99',
    'bass',
    'fill',
    'sounded',
    'pull',
    '1e9',
  ],
  (text) => {
    const { tune } = arrangedSeeds()[0]!
    try {
      const locks = lockFrom(text, tune, 'lock 1')
      finish(arranging(tune, setupOf('guitar'), wholeTune(tune, 'melody-bass', 1), { locks }))
    } catch (error) {
      if (!(error instanceof UsageError) && !(error instanceof ArrangeError)) throw error
    }
    return []
  },
)
