import { seededChance } from '../../../e2e/chance.ts'
import type { TuneDoc } from '@velvet-porch/core/document'
import { readAbc } from '@velvet-porch/core/input/abc'

/** Keys of the generated tunes: tonic, mode in ABC, scale in ABC letters from the tonic up, chords by degree. */
const KEYS = [
  ['C', 'C', 'CDEFGAB', 'C Dm Em F G7 Am'],
  ['G', 'G', 'GABcdef', 'G Am Bm C D7 Em'],
  ['D', 'D', 'DEFGABc', 'D Em F#m G A7 Bm'],
  ['A', 'A', 'ABcdefg', 'A Bm C#m D E7 F#m'],
  ['E', 'E', 'EFGABcd', 'E F#m G#m A B7 C#m'],
  ['Am', 'Am', 'ABcdefg', 'Am Bdim C Dm Em F'],
  ['Em', 'Em', 'EFGABcd', 'Em F#dim G Am Bm C'],
  ['Dm', 'Dm', 'DEFGABc', 'Dm Edim F Gm Am Bb'],
  ['Ddor', 'Ddor', 'DEFGABc', 'Dm Em F G Am C'],
  ['Amix', 'Amix', 'ABcdefg', 'A Bm D D Em G'],
] as const

/** Chord degrees (index into the key's chords) of eight measures. */
const PROGRESSIONS = [
  [0, 0, 3, 0, 0, 3, 4, 0],
  [0, 5, 3, 4, 0, 5, 4, 0],
  [0, 3, 0, 4, 3, 0, 4, 0],
  [0, 4, 5, 3, 1, 4, 4, 0],
  [0, 0, 4, 4, 3, 3, 4, 0],
] as const

/** Rhythms of one measure in eighths. */
const RHYTHMS: Readonly<Record<string, readonly (readonly number[])[]>> = {
  '4/4': [
    [2, 2, 2, 2],
    [2, 1, 1, 2, 2],
    [3, 1, 2, 2],
    [1, 1, 1, 1, 2, 2],
    [4, 2, 2],
    [1, 1, 1, 1, 1, 1, 1, 1],
  ],
  '3/4': [
    [2, 2, 2],
    [4, 2],
    [3, 1, 2],
    [2, 1, 1, 2],
  ],
  '6/8': [
    [1, 1, 1, 1, 1, 1],
    [2, 1, 2, 1],
    [3, 1, 1, 1],
    [2, 1, 3],
  ],
  '2/4': [
    [2, 2],
    [1, 1, 1, 1],
    [2, 1, 1],
  ],
}

/**
 * A made-up tune: eight measures in two phrases, chord tones on the strong places and steps between, the first phrase
 * taken up again, ending on the tonic. The seed decides key, metre, tempo and everything else.
 */
export function generatedAbc(seed: number): string {
  const next = seededChance(seed * 7919 + 13)
  const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!
  const [name, key, scale, chordText] = KEYS[seed % KEYS.length]!
  const chords = chordText.split(' ')
  const metre = Object.keys(RHYTHMS)[Math.floor(seed / KEYS.length) % 4]!
  const progression = pick(PROGRESSIONS)
  const rhythms = RHYTHMS[metre]!
  const motif = Array.from({ length: 4 }, () => pick(rhythms))
  let at = 7 + Math.floor(next() * 5)
  const bars = progression.map((degree, m) => {
    const chordTones = [degree, degree + 2, degree + 4]
    const last = m === progression.length - 1
    const rhythm = last ? [metre === '2/4' ? 4 : metre === '4/4' ? 8 : 6] : motif[m % 4]!
    let inBar = 0
    const notes = rhythm.map((eighths) => {
      const strong = inBar % (metre === '6/8' ? 3 : 2) === 0
      inBar += eighths
      if (last) at = at > 10 ? 14 : 7
      else if (strong) at = nearest(chordTones, at + Math.round(next() * 4 - 2))
      else at += next() < 0.5 ? 1 : -1
      at = Math.min(15, Math.max(4, at))
      return noteText(scale, at) + (eighths === 1 ? '' : String(eighths))
    })
    return `"${chords[degree]!}"${notes.join(' ')}`
  })
  const tempo = 80 + 10 * Math.floor(next() * 7)
  const tune = `|:${bars.slice(0, 4).join('|')}:|\n|:${bars.slice(4).join('|')}:|\n`
  return `X:${seed + 1}\nT:Made ${seed + 1}, ${name}\nM:${metre}\nL:1/8\nQ:1/4=${tempo}\nK:${key}\n${tune}`
}

/** The scale step nearest to a place that belongs to the chord. */
function nearest(degrees: readonly number[], place: number): number {
  let best = place
  let least = Infinity
  for (let step = place - 3; step <= place + 3; step++) {
    const inChord = degrees.some((d) => (((d - step) % 7) + 7) % 7 === 0)
    if (inChord && Math.abs(step - place) < least) {
      least = Math.abs(step - place)
      best = step
    }
  }
  return best
}

/** A scale step as ABC: step 7 is the tonic of the written octave. */
function noteText(scale: string, step: number): string {
  const octave = Math.floor(step / 7) - 1
  const letter = scale[((step % 7) + 7) % 7]!
  let shift = octave
  let base = letter
  if (shift > 0 && base === base.toUpperCase()) {
    base = base.toLowerCase()
    shift--
  } else if (shift < 0 && base === base.toLowerCase()) {
    base = base.toUpperCase()
    shift++
  }
  return base + (shift > 0 ? "'".repeat(shift) : ','.repeat(-shift))
}

export function generatedTunes(count: number): TuneDoc[] {
  return Array.from({ length: count }, (_, seed) => {
    const tune = readAbc(generatedAbc(seed), () => `made${seed}`)[0]?.tune
    if (!tune) throw new Error(`tune ${seed} cannot be read`)
    return tune
  })
}
