import { STEPS, type Pitch, type Step } from '../../music/pitch/pitch.ts'

/** How far an accidental reaches inside its measure (ABC standard 2.1, section 11.3; `pitch` is its default). */
export type Propagation = 'pitch' | 'octave' | 'not'

const SIGNS: Readonly<Record<string, number>> = { sharp: 1, flat: -1, natural: 0, dblsharp: 2, dblflat: -2 }

/** Spells notes as they sound: key signature, accidentals to the measure's end, ties over the bar line. */
export class AccidentalMemory {
  private signature = new Map<Step, number>()
  private inMeasure = new Map<string, number>()
  private readonly propagation: Propagation

  constructor(propagation: Propagation) {
    this.propagation = propagation
  }

  setSignature(accidentals: readonly { readonly acc: string; readonly note: string }[]): void {
    this.signature = new Map(accidentals.map((a) => [a.note.toUpperCase() as Step, SIGNS[a.acc] ?? 0]))
  }

  barLine(): void {
    this.inMeasure.clear()
  }

  /**
   * @param diatonic steps above middle C
   * @param sign abcjs's name of a written accidental
   * @param tied alteration of the note that this one is tied from
   */
  spell(diatonic: number, sign: string | undefined, tied?: number): Pitch {
    const octave = Math.floor(diatonic / 7) + 4
    const step = STEPS[((diatonic % 7) + 7) % 7]!
    const slot = this.propagation === 'octave' ? step + String(octave) : step
    if (sign !== undefined && sign in SIGNS) {
      const alter = SIGNS[sign]!
      if (this.propagation !== 'not') this.inMeasure.set(slot, alter)
      return { step, alter, octave }
    }
    const alter = tied ?? this.inMeasure.get(slot) ?? this.signature.get(step) ?? 0
    return { step, alter, octave }
  }
}
