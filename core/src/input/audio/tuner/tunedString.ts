import { centsBetween } from '../peaks.ts'
import { openPitch, type Setup } from '../../../instrument/setup.ts'
import { hertz, type Midi } from '../../../music/pitch/pitch.ts'
import { A4_RANGE } from './a4Range.ts'

/** How a tuner is set. */
export interface TunerSettings {
  /** Pitch of A4 in hertz. */
  readonly a4: number
  /** True where the capo lies on the neck while the strings are tuned. */
  readonly capoOn: boolean
  /** The string that is being tuned; undefined: the one that is heard. */
  readonly string?: number | undefined
}

/** What is to be done with the peg of a string. */
export type PegTurn = 'inTune' | 'tightenALittle' | 'tighten' | 'loosenALittle' | 'loosen' | 'otherString'

/** A string as a tuner hears it. */
export interface TunedString {
  readonly string: number
  /** What it is to sound. */
  readonly wanted: Midi
  /** How far it is off, in cents; positive is sharp. */
  readonly cents: number
  readonly turn: PegTurn
}

/** Cents within which a string is in tune: nobody hears less on a plucked string. Within the second it is nearly there. No source. */
const IN_TUNE = 3
const NEARLY = 25

/** A string that is asked for and sounds so far off (cents) is another one, or was let down on purpose. */
const OTHER_STRING = 350

/** The pitch that a string is to have. */
export const wantedPitch = (setup: Setup, string: number, { capoOn }: Pick<TunerSettings, 'capoOn'>): Midi =>
  capoOn ? openPitch(setup, string) : setup.tuning[string - 1]!

/** The same in hertz, where A4 is as it is set. */
export const wantedHertz = (setup: Setup, string: number, settings: Omit<TunerSettings, 'string'>): number =>
  (hertz(wantedPitch(setup, string, settings)) * settings.a4) / A4_RANGE.usual

/**
 * Which string is heard, and what is to be done with it.
 * @param heard hertz
 * @example tunedString(guitarSetup(), 108, { a4: 440, capoOn: false }) // string 5, 32 cents flat: tighten
 */
export function tunedString(setup: Setup, heard: number, settings: TunerSettings): TunedString {
  const off = (string: number) => centsBetween(heard, wantedHertz(setup, string, settings))
  const strings = setup.tuning.map((_, i) => i + 1)
  const nearest = strings.reduce((a, b) => (Math.abs(off(b)) < Math.abs(off(a)) ? b : a))
  const string = settings.string ?? nearest
  const cents = off(string)
  const rounded = Math.round(cents * 10) / 10
  const far = settings.string !== undefined && Math.abs(cents) > OTHER_STRING && nearest !== string
  return {
    string,
    wanted: wantedPitch(setup, string, settings),
    cents: rounded,
    turn: far ? 'otherString' : turnOf(rounded),
  }
}

function turnOf(cents: number): PegTurn {
  if (Math.abs(cents) <= IN_TUNE) return 'inTune'
  const little = Math.abs(cents) <= NEARLY
  return cents < 0 ? (little ? 'tightenALittle' : 'tighten') : little ? 'loosenALittle' : 'loosen'
}
