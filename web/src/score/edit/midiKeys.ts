import type { Midi } from '@velvet-porch/core/music'
import { midiNote } from '@velvet-porch/core/input/audio'

/** Keyboards that are listened to, by name. */
export interface MidiKeys {
  readonly names: readonly string[]
  readonly close: () => void
}

/** True where this browser can listen to MIDI keyboards. */
export const offersMidi = (): boolean => typeof navigator.requestMIDIAccess === 'function'

/**
 * Listens to every MIDI keyboard that is plugged in. The browser asks for leave first.
 * @throws where leave is not given
 */
export async function listenToKeys(onNote: (note: Midi) => void): Promise<MidiKeys> {
  const access = await navigator.requestMIDIAccess()
  const inputs = [...access.inputs.values()]
  for (const input of inputs) {
    input.onmidimessage = ({ data }) => {
      const note = data ? midiNote(data) : undefined
      if (note !== undefined) onNote(note)
    }
  }
  return {
    names: inputs.map((i) => i.name ?? 'MIDI'),
    close: () => inputs.forEach((i) => (i.onmidimessage = null)),
  }
}
