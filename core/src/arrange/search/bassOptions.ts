import { hasBassStrings } from '../plan/styleRules.ts'
import type { PlannedBass } from '../plan/bassLine.ts'
import { lastFret, openPitch, pitchAt, placesOf, type Place, type Setup } from '../../instrument/setup.ts'
import { mod12, type Midi, type PitchClass } from '../../music/pitch/pitch.ts'
import { WEIGHTS } from './weights.ts'

/** A place that would do for a bass, with the price of this choice. */
export interface BassOption {
  readonly place: Place
  readonly price: number
  readonly nonRoot: boolean
}

/** Pitch classes that a bass may take. */
export interface BassTones {
  readonly chord: readonly PitchClass[]
  readonly bass: PitchClass
  readonly root: PitchClass
  /** Tonic of the key: the pedal. */
  readonly tonic: PitchClass
  /** What a passing bass plays. */
  readonly passing: PitchClass | undefined
}

/**
 * All places below the melody that give the wished bass; root requirements without any get other chord tones, dearly.
 * @param lastEasy fret beyond which a bass is dear
 * @param melodyString where up to that fret the melody has this string alone
 */
export function bassOptions(
  setup: Setup,
  requirement: Pick<PlannedBass, 'kind' | 'part' | 'string'>,
  tones: BassTones,
  melody: Midi | undefined,
  last: number,
  lastEasy = Infinity,
  melodyString?: number,
): BassOption[] {
  if (requirement.part) return partOptions(setup, requirement.part.midi, last)
  const options: BassOption[] = []
  for (let string = setup.instrument.strings; string >= 1; string--) {
    const most = Math.min(last, lastFret(setup, string))
    for (let fret = 0; fret <= most; fret++) {
      const place = { string, fret }
      const midi = pitchAt(setup, place)
      if (melody !== undefined && midi >= melody) break
      const choice = choicePrice(requirement.kind, mod12(midi), fret, tones)
      if (choice === undefined) continue
      options.push({
        place,
        nonRoot: false,
        price:
          stringPrice(setup, string, requirement.string) +
          closePrice(midi, melody) +
          (fret > lastEasy ? WEIGHTS.bassBeyond : 0) +
          choice,
      })
    }
  }
  if (requirement.kind !== 'root') return options
  if (options.length === 0) return otherTones(setup, tones.chord, melody, WEIGHTS.nonRoot)
  // A beginner's hand does not go up the neck for a root whose string the tune has: the fifth or third stands in for it.
  const easy = options.filter((o) => o.place.fret <= lastEasy)
  return easy.length > 0 && easy.length < options.length && easy.every((o) => o.place.string === melodyString)
    ? [...options, ...otherTones(setup, tones.chord, melody, WEIGHTS.bassInstead)]
    : options
}

/** The second voice of the source keeps its pitch; it may lie over the melody. */
function partOptions(setup: Setup, midi: Midi, last: number): BassOption[] {
  const places = placesOf(setup, midi)
  const near = places.filter((p) => p.fret <= last)
  return (near.length > 0 ? near : places).map((place) => ({ place, price: 0, nonRoot: false }))
}

/** Price of a pitch class for a kind of bass; undefined where it will not do. */
function choicePrice(
  kind: PlannedBass['kind'],
  pc: PitchClass,
  fret: number,
  tones: BassTones,
): number | undefined {
  if (kind === 'root') return pc === tones.bass ? 0 : undefined
  if (kind === 'passing') return pc === tones.passing ? 0 : undefined
  if (kind === 'pedal') {
    const away = mod12(pc - tones.tonic)
    if (away !== 0 && away !== 7) return undefined
    return (away === 7 ? WEIGHTS.pedalFifth : 0) + (fret > 0 ? WEIGHTS.pedalFretted : 0)
  }
  if (kind === 'said' && pc === tones.bass) return 0
  if (!tones.chord.includes(pc)) return undefined
  if (kind === 'rootless') return pc === tones.root ? undefined : alternatePrice(mod12(pc - tones.root))
  return alternatePrice(mod12(pc - tones.root))
}

function otherTones(
  setup: Setup,
  chord: readonly PitchClass[],
  melody: Midi | undefined,
  price: number,
): BassOption[] {
  const options: BassOption[] = []
  const highest = hasBassStrings(setup.instrument) ? 4 : 2
  for (let string = setup.instrument.strings; string >= highest; string--) {
    for (let fret = 0; fret <= 4; fret++) {
      const midi = openPitch(setup, string) + fret
      if (chord.includes(mod12(midi)) && (melody === undefined || midi < melody))
        options.push({ place: { string, fret }, price, nonRoot: true })
    }
  }
  return options
}

function stringPrice(setup: Setup, string: number, said: number | undefined): number {
  if (said !== undefined) return string === said ? 0 : WEIGHTS.bassOffSaid
  if (!hasBassStrings(setup.instrument) || string >= 4) return 0
  return string === 3 ? WEIGHTS.bassOnThird : WEIGHTS.bassOnTreble
}

function closePrice(midi: Midi, melody: Midi | undefined): number {
  return melody !== undefined && melody - midi < 5 ? WEIGHTS.bassClose : 0
}

function alternatePrice(interval: number): number {
  if (interval === 7) return WEIGHTS.alternateFifth
  if (interval === 0) return WEIGHTS.alternateRoot
  if (interval === 3 || interval === 4) return WEIGHTS.alternateThird
  return WEIGHTS.alternateOther
}
