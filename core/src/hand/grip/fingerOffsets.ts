import type { Instrument } from '../../instrument/instrument.ts'

/** Scales shorter than this are played two frets a finger in lines. */
const SHORT_SCALE_MM = 450

/**
 * How far each finger stands from the index finger, in frets, in a hand at ease: a finger a fret on a guitar; about
 * two frets a finger in lines on a short neck (natural offsets 0, 2, 4, 5.5). Common practice, no source.
 */
export function fingerOffsets({ scaleLength }: Pick<Instrument, 'scaleLength'>): readonly number[] {
  return scaleLength < SHORT_SCALE_MM ? SHORT_NECK : LONG_NECK
}

const LONG_NECK = [0, 1, 2, 3]
const SHORT_NECK = [0, 2, 4, 5.5]
