import { openShapeFor } from '../../chords/textbook.ts'
import type { Region } from '../../document/arrangement.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { openPitch, pitchAt, placesOf, type Setup } from '../../instrument/setup.ts'
import { message, type Message } from '../../messages/message.ts'
import { bassPitchClass, transposeChord } from '../../music/harmony/chordSymbol.ts'
import { keyText, transposeKey, type Key } from '../../music/pitch/key.ts'
import { midiOf, mod12, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import type { Plan } from './plan.ts'
import { isSolo } from '../../document/style.ts'
import { hasBassStrings, MELODY_ON_TOP, styleRules } from './styleRules.ts'

/** Another key, octave and capo in which a melody lies where its style or level wants it. */
export interface BetterKey {
  /** Notes that lie elsewhere now, of all. */
  readonly away: number
  readonly of: number
  readonly why: 'innerStrings' | 'highFrets' | 'rootTaken'
  /** The whole move from the tune as it is written: semitones without the octave, octaves, fret of the capo. */
  readonly shift: number
  readonly octave: number
  readonly capo: number
  /** What sounds then. */
  readonly key: Key
  /** Notes that would lie elsewhere still. */
  readonly left: number
}

/** Up to this share of notes elsewhere nothing is said; a first level is told of every note above its frets. */
const TOLERATED = 0.1

/** Frets over the capo that a first level uses, and that the others use without a word. */
const FIRST_FRETS = 4
const USUAL_FRETS = 12

const MOST_CAPO = 5

/** Prices of a proposal: of a chord without an open shape, of each fret of capo, each semitone of the move. No source. */
const PRICE = { closedChord: 6, capo: 0.6, semitone: 0.12, away: 40 }

/**
 * Looks for a better key where the tune's own does not let its melody lie on strings 1 and 2 (chord melody, arpeggio), or below
 * fret 5 (level 1): the one with most open chords and the least capo.
 * @returns undefined where the key will do, or none is better
 */
export function betterKey(
  tune: TuneDoc,
  setup: Setup,
  plan: Pick<Plan, 'melody' | 'melodyMidi' | 'harmony' | 'regions' | 'transposed'>,
): BetterKey | undefined {
  const region = plan.regions.find((r) => r !== undefined)
  if (!region || region.given || plan.melody.length === 0 || !hasBassStrings(setup.instrument))
    return undefined
  const written = plan.melody.map((n) => midiOf(n.pitch))
  const roots = rootsUnder(plan, region, setup)
  const blocked = blockedAt(setup, roots)
  const now = awayAt(setup, region, plan.melodyMidi) + blocked
  const isTooHigh =
    region.level === 1 && plan.melodyMidi.some((midi) => midi > openPitch(setup, 1) + FIRST_FRETS)
  if (now <= TOLERATED * written.length && !isTooHigh && blocked === 0) return undefined
  const options = proposals(setup, plan, region, written, roots)
  const best = options.reduce((a, b) => (b.price < a.price ? b : a))
  // A tune that is wider than the first frets fits no key whole: there the best of them is told.
  const anyBetter = isTooHigh || blocked > 0
  if (best.left >= now || (!anyBetter && best.left > TOLERATED * written.length)) return undefined
  const { price: _, ...found } = best
  return {
    ...found,
    away: now,
    of: written.length,
    why: isTooHigh
      ? 'highFrets'
      : blocked > 0
        ? 'rootTaken'
        : MELODY_ON_TOP.has(region.style)
          ? 'innerStrings'
          : 'highFrets',
    key: transposeKey(tune.measures[0]!.key, found.shift),
  }
}

/** Notes of a melody that lie beyond what style and level want. */
function awayAt(setup: Setup, { style, level }: Region, melody: readonly Midi[]): number {
  // On the first frets the two highest strings alone have too few notes: a wide tune needs all but the lowest.
  const low = MELODY_ON_TOP.has(style) ? openPitch(setup, level === 1 ? 5 : 2) : -Infinity
  const high = openPitch(setup, 1) + (level === 1 ? FIRST_FRETS : USUAL_FRETS)
  return melody.filter((midi) => midi < low || midi > high).length
}

/** A melody note with the root of the chord that comes with it. */
interface RootUnder {
  readonly melody: Midi
  readonly root: PitchClass
}

/** Melody notes at changes of chord, where a first level plays a bass under them. */
function rootsUnder(
  { melody, melodyMidi, harmony }: Pick<Plan, 'melody' | 'melodyMidi' | 'harmony'>,
  { style, level }: Region,
  { instrument }: Setup,
): RootUnder[] {
  const hasBass = isSolo(style) && level === 1 && BY_CHORD.has(styleRules(style, level, instrument).bass)
  if (!hasBass) return []
  return harmony.flatMap(({ start, sounding }): RootUnder[] => {
    const at = melody.findIndex((n) => n.start <= start && n.start + n.duration > start)
    return sounding && at >= 0 ? [{ melody: melodyMidi[at]!, root: bassPitchClass(sounding) }] : []
  })
}

/** Basses that follow the chords. */
const BY_CHORD: ReadonlySet<string> = new Set(['chord', 'strong', 'beats'])

/** Melody notes whose string is the only one that has the root within the first frets: the hand would have to go up for it. */
function blockedAt(setup: Setup, roots: readonly RootUnder[]): number {
  const { strings } = setup.instrument
  const frets = Array.from({ length: FIRST_FRETS + 1 }, (_, fret) => fret)
  return roots.filter(({ melody, root }) => {
    const own = placesOf(setup, melody).filter((p) => p.fret <= FIRST_FRETS)
    const low = Array.from({ length: strings - 3 }, (_, i) => strings - i).filter((string) =>
      frets
        .map((fret) => pitchAt(setup, { string, fret }))
        .some((midi) => midi < melody && mod12(midi) === root),
    )
    return own.length > 0 && low.length > 0 && low.every((string) => own.every((p) => p.string === string))
  }).length
}

function proposals(
  setup: Setup,
  plan: Pick<Plan, 'harmony' | 'transposed'>,
  region: Region,
  written: readonly Midi[],
  roots: readonly RootUnder[],
) {
  const chords = plan.harmony.flatMap((h) => (h.sounding ? [h.sounding] : []))
  const found: { shift: number; octave: number; capo: number; left: number; price: number }[] = []
  for (let shift = -6; shift <= 6; shift++)
    for (let capo = 0; capo <= MOST_CAPO; capo++) {
      const there = { ...setup, capo: setup.capo.map(() => capo) }
      const closed = chords.filter((chord) => {
        const shape = transposeChord(chord, shift - plan.transposed - capo, shift - capo < 0)
        return openShapeFor(shape, there) === undefined
      }).length
      for (const octave of [-1, 0, 1]) {
        const by = shift + 12 * octave - plan.transposed
        const left =
          awayAt(
            there,
            region,
            written.map((midi) => midi + shift + 12 * octave),
          ) +
          blockedAt(
            there,
            roots.map(({ melody, root }) => ({ melody: melody + by, root: mod12(root + by) })),
          )
        const price =
          (PRICE.closedChord * closed) / Math.max(1, chords.length) +
          PRICE.capo * capo +
          PRICE.semitone * Math.abs(shift) +
          (PRICE.away * left) / written.length
        found.push({ shift, octave, capo, left, price })
      }
    }
  return found
}

/** The proposal in words. */
export function betterKeyMessage({ away, of, why, key, capo }: BetterKey): Message<'accompanying'> {
  const sounding = keyText(key)
  return capo === 0
    ? message(`accompanying.${why}`, { count: away, of, key: sounding })
    : message(`accompanying.${why}Capo`, { count: away, of, key: sounding, capo })
}
