import type { Bounce } from './bounce.ts'

const HEADER = 44
const BYTES = 2

/** Sound as the bytes of a WAV file: RIFF, PCM, one channel, 16 bits. */
export function wavOf({ sampleRate, samples }: Bounce): Uint8Array<ArrayBuffer> {
  const size = samples.length * BYTES
  const bytes = new Uint8Array(HEADER + size)
  const view = new DataView(bytes.buffer)
  const text = (at: number, letters: string) =>
    [...letters].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)))
  text(0, 'RIFF')
  view.setUint32(4, HEADER - 8 + size, true)
  text(8, 'WAVEfmt ')
  view.setUint32(16, 16, true)
  view.setUint16(20, 1, true)
  view.setUint16(22, 1, true)
  view.setUint32(24, sampleRate, true)
  view.setUint32(28, sampleRate * BYTES, true)
  view.setUint16(32, BYTES, true)
  view.setUint16(34, 8 * BYTES, true)
  text(36, 'data')
  view.setUint32(40, size, true)
  samples.forEach((x, i) => view.setInt16(HEADER + BYTES * i, x, true))
  return bytes
}
