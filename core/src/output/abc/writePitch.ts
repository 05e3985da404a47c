import { signatureAlter } from '../../music/pitch/key.ts'
import type { Pitch, Step } from '../../music/pitch/pitch.ts'

const SIGNS: Readonly<Record<string, string>> = { '-2': '__', '-1': '_', '0': '=', '1': '^', '2': '^^' }

/**
 * Writes pitches in ABC with the accidentals that they need. An accidental is written where readers disagree too, on
 * whether the last one holds in every octave or in its own alone (ABC 2.1, section 11.3), so that all read the same.
 */
export class PitchWriter {
  private fifths = 0
  private readonly inMeasure = new Map<string, number>()

  setKey(fifths: number): void {
    this.fifths = fifths
  }

  barLine(): void {
    this.inMeasure.clear()
  }

  /** @example new PitchWriter().write({ step: 'F', alter: 1, octave: 5 }) // '^f' */
  write({ step, alter, octave }: Pitch): string {
    const usual = signatureAlter(this.fifths, step)
    const own = step + String(octave)
    const known = [this.inMeasure.get(step) ?? usual, this.inMeasure.get(own) ?? usual]
    const sign = known.every((k) => k === alter) ? '' : SIGNS[String(alter)]!
    if (sign !== '') {
      this.inMeasure.set(step, alter)
      this.inMeasure.set(own, alter)
    }
    return sign + letterOf(step, octave)
  }
}

/** The letter in its octave: capitals from middle C, commas below, small letters and apostrophes above. */
function letterOf(step: Step, octave: number): string {
  if (octave >= 5) return step.toLowerCase() + "'".repeat(octave - 5)
  return step + ','.repeat(4 - octave)
}
