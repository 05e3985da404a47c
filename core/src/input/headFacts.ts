import { LIMITS, METRE_UNITS } from '../document/limits.ts'
import { keyOf, type Key } from '../music/pitch/key.ts'
import type { Metre } from '../music/time/metre.ts'
import { readChordSymbol } from '../music/harmony/chordSymbol.ts'

/** What a text says of its tune at its head, as far as read. */
export interface HeadFacts {
  title?: string
  subtitle?: string
  artist?: string
  key?: Key
  /** Beats a minute. */
  bpm?: number
  metre?: Metre
  capo?: number
  tuning?: string
  strum?: string
}

type Fact = keyof HeadFacts

/** Names of facts as they head a line or a directive. */
const FACT_NAMES: Readonly<Record<string, Fact>> = {
  title: 'title',
  t: 'title',
  song: 'title',
  subtitle: 'subtitle',
  st: 'subtitle',
  artist: 'artist',
  by: 'artist',
  author: 'artist',
  composer: 'artist',
  lyricist: 'artist',
  words: 'artist',
  music: 'artist',
  'words and music': 'artist',
  'words & music': 'artist',
  'written by': 'artist',
  key: 'key',
  tempo: 'bpm',
  bpm: 'bpm',
  time: 'metre',
  'time signature': 'metre',
  metre: 'metre',
  meter: 'metre',
  capo: 'capo',
  tuning: 'tuning',
  strum: 'strum',
  strumming: 'strum',
  'strum pattern': 'strum',
  'strumming pattern': 'strum',
}

/** True for a name that heads a fact of the song. */
export const isFactName = (name: string): boolean => name.toLowerCase() in FACT_NAMES

const ROMAN = ['', 'i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii', 'viii', 'ix', 'x', 'xi', 'xii']
const WORDS = [
  'no',
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
]

/** The fret of "2", "2nd fret", "III", "third fret", "none"; undefined for anything else. */
export function capoFret(text: string): number | undefined {
  const word = text
    .trim()
    .toLowerCase()
    .replace(/^(?:on|at|in|fret|the|:|=|\s)+/, '')
  if (/^(none|no\b|without|open)/.test(word)) return 0
  const digits = /^(\d{1,2})(?:st|nd|rd|th|\.)?(?:\s*fret)?(?![\d/])/.exec(word)
  if (digits) return Number(digits[1])
  const first = /^[a-z]+/.exec(word)?.[0] ?? ''
  const roman = first === '' ? -1 : ROMAN.indexOf(first)
  if (roman > 0) return roman
  const spoken = WORDS.indexOf(first)
  return spoken > 0 ? spoken : undefined
}

/** The key of "G", "Am", "F# minor", "D dorian"; undefined for anything else. */
export function songKey(text: string): Key | undefined {
  const found = /^\s*([A-G][#b♯♭]?)\s*(.*)$/.exec(text)
  if (!found) return undefined
  const reading = readChordSymbol(found[1]!)
  if (reading.kind !== 'chord') return undefined
  const mode = found[2]!.trim().toLowerCase()
  const known = /^(?:min|m\b|m$|-|moll|mineur|menor)/.test(mode)
    ? 'minor'
    : (/^(dorian|mixolydian|phrygian|lydian)/.exec(mode)?.[1] as Key['mode'] | undefined)
  const key = keyOf(reading.chord.root, known ?? 'major')
  return Math.abs(key.fifths) <= 7 ? key : undefined
}

/** The metre of "3/4", "C", "C|"; undefined for one that nobody counts. */
export function songMetre(text: string): Metre | undefined {
  if (/^\s*C\|\s*$/.test(text)) return { num: 2, den: 2, display: 'cut' }
  if (/^\s*C\s*$/.test(text)) return { num: 4, den: 4, display: 'common' }
  const found = /^\s*(\d{1,2})\s*\/\s*(\d{1,2})/.exec(text)
  if (!found) return undefined
  const [num, den] = [Number(found[1]), Number(found[2])]
  const fits = num >= 1 && num <= LIMITS.metreBeats && (METRE_UNITS as readonly number[]).includes(den)
  return fits ? { num, den } : undefined
}

/** Beats a minute of "100", "♩ = 96", "about 120 bpm". */
const songTempo = (text: string): number | undefined => {
  const bpm = Number(/\d{2,3}(?:\.\d)?/.exec(text)?.[0] ?? Number.NaN)
  return bpm >= LIMITS.slowest && bpm <= LIMITS.fastest ? bpm : undefined
}

/**
 * Takes a fact down; false where its value is not understood. What is known already stays.
 * @param name as it heads the line or directive, in small letters
 */
export function takeFact(facts: HeadFacts, name: string, value: string): boolean {
  const fact = FACT_NAMES[name]
  if (!fact || value.trim() === '') return false
  const taken: HeadFacts[Fact] = (() => {
    switch (fact) {
      case 'key':
        return songKey(value)
      case 'bpm':
        return songTempo(value)
      case 'metre':
        return songMetre(value)
      case 'capo':
        return capoFret(value)
      default:
        return value.trim()
    }
  })()
  if (taken === undefined) return false
  if (fact === 'artist' && facts.artist !== undefined && facts.artist !== taken)
    facts.artist = `${facts.artist}, ${String(taken)}`
  else if (facts[fact] === undefined) Object.assign(facts, { [fact]: taken })
  return true
}

const HEADED = new RegExp(
  `^\\s*(${Object.keys(FACT_NAMES)
    .filter((n) => n.length > 2)
    .sort((a, b) => b.length - a.length)
    .join('|')})(?:\\s*[:=–-]\\s*|\\s+(?=[\\dIVX]|on\\b|at\\b))(.+)$`,
  'i',
)

/** Facts that may stand on one line, as in "Key: G  Capo: 2  Tempo: 96". */
const INLINE =
  /(?:^|[\s,;|(/·-])(key|capo|tempo|bpm|time|tuning)\s*(?:[:=]\s*|\s+(?=[\dIVX]|on\b|at\b))(.*?)(?=$|[,;|)·]|\s{2,}|\s+(?:key|capo|tempo|bpm|time|tuning)\b)/gi

/**
 * Takes down what a line says of the song ("Title: …", "Capo 2", "Key: G  Tempo: 96"); false for a line that says nothing
 * of it.
 */
export function takeFactLine(facts: HeadFacts, line: string): boolean {
  const bare = line.trim().replace(/^[[(]\s*|\s*[)\]]$/g, '')
  const many = [...bare.matchAll(INLINE)]
  const covered = many.reduce((n, m) => n + m[0].trim().length, 0)
  if (many.length > 0 && covered >= 0.6 * bare.replace(/\s/g, '').length) {
    const took = many.map((m) => takeFact(facts, m[1]!.toLowerCase(), m[2]!))
    if (took.every(Boolean)) return true
  }
  const found = HEADED.exec(bare)
  return found !== null && takeFact(facts, found[1]!.toLowerCase(), found[2]!)
}
