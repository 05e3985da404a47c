import type { Quantising } from './quantise.ts'

/** How a MIDI file is read where it leaves it open. */
export interface MidiChoices extends Partial<Quantising> {
  /** The voice that is the melody; absent: the likeliest. */
  readonly melody?: string
  /** Quarter notes before the first bar line; absent: as the file most likely has them. */
  readonly pickup?: number
}
