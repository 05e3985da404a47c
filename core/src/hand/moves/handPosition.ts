import { fretFromNut } from '../../instrument/geometry.ts'
import { LEAN_LIMIT_MM } from '../../instrument/handLimits.ts'
import type { Setup } from '../../instrument/setup.ts'

/** How far from the nut a fret lies, in mm; frets count from the capo. */
export const positionMm = ({ instrument, capo }: Setup, fret: number): number =>
  fretFromNut(instrument.scaleLength, fret + capo[0]!)

/** How far a hand goes along the neck between two positions, in mm. */
export const positionWayMm = (setup: Setup, from: number, to: number): number =>
  Math.abs(positionMm(setup, to) - positionMm(setup, from))

/** True for a way that the hand must travel; shorter ones are leans, with the thumb where it is. */
export const isShift = (mm: number): boolean => mm > LEAN_LIMIT_MM
