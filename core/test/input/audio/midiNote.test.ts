import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { midiNote } from '../../../src/input/audio/index.ts'

describe('a MIDI message', () => {
  // MIDI 1.0 Detailed Specification: 9n kk vv is a note-on; vv 0 is a note-off; 8n kk vv a note-off.
  it('begins a note exactly where it is a note-on with a velocity', () => {
    const byte = fc.integer({ min: 0, max: 127 })
    fc.assert(
      fc.property(fc.integer({ min: 0x80, max: 0xff }), byte, byte, (status, note, velocity) => {
        const on = status >= 0x90 && status <= 0x9f && velocity > 0
        expect(midiNote([status, note, velocity])).toBe(on ? note : undefined)
      }),
    )
  })

  it('that is cut off, or a clock, is none', () => {
    for (const data of [[], [0x90], [0x90, 60], [0xf8]]) expect(midiNote(data)).toBeUndefined()
  })
})
