import { GUITAR, STANDARD_TUNING, type Instrument, type Tuning } from './instrument.ts'

/** Four doubled courses in fifths. Sizes of a usual instrument, no source. */
export const MANDOLIN: Instrument = {
  kind: 'mandolin',
  strings: 4,
  doubling: 2,
  scaleLength: 350,
  spacing: { nut: 7.6, bridge: 11.6 },
  frets: 20,
  bodyJoin: 12,
}

/** A fourth below the guitar on a longer neck. Sizes of a usual instrument, no source. */
export const BARITONE_GUITAR: Instrument = {
  kind: 'baritone',
  strings: 6,
  doubling: 1,
  scaleLength: 686,
  spacing: { nut: 7.4, bridge: 11 },
  frets: 20,
  bodyJoin: 14,
}

/** Four strings in fifths. Sizes of a usual instrument, no source. */
export const TENOR_GUITAR: Instrument = {
  kind: 'tenor',
  strings: 4,
  doubling: 1,
  scaleLength: 584,
  spacing: { nut: 7.4, bridge: 10.6 },
  frets: 19,
  bodyJoin: 14,
}

export const INSTRUMENTS = {
  guitar: { instrument: GUITAR, usual: STANDARD_TUNING },
  mandolin: { instrument: MANDOLIN, usual: [76, 69, 62, 55] },
  baritone: { instrument: BARITONE_GUITAR, usual: [59, 54, 50, 45, 40, 35] },
  tenor: { instrument: TENOR_GUITAR, usual: [69, 62, 55, 48] },
} as const satisfies Record<Instrument['kind'], { instrument: Instrument; usual: Tuning }>

export type InstrumentKind = keyof typeof INSTRUMENTS
