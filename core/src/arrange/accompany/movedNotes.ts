import { openPitch, type Setup } from '../../instrument/setup.ts'
import type { Plan } from '../plan/plan.ts'
import { midiOf } from '../../music/pitch/pitch.ts'
import type { AccompanyRemark } from './remark.ts'

/** The lowest string goes down by this many semitones at most to get a note (drop tunings). Common practice. */
const DROP = 2

/** Melody notes that the instrument does not have, and where they went. */
export function movedNotes(
  setup: Setup,
  plan: Pick<Plan, 'melody' | 'slid' | 'transposed' | 'regions'>,
): AccompanyRemark[] {
  const lowest = openPitch(setup, setup.instrument.strings)
  return [...plan.melody, ...plan.slid].flatMap((n): AccompanyRemark[] => {
    // A section that is wanted in another octave is there on purpose.
    if (!n.moved || n.moved === 12 * (plan.regions[n.measure]?.octave ?? 0)) return []
    const missing = lowest - (midiOf(n.pitch) + plan.transposed)
    return [
      {
        kind: 'movedNote',
        measure: n.measure,
        octaves: n.moved / 12,
        lower: missing > 0 && missing <= DROP ? missing : 0,
      },
    ]
  })
}
