/** Samples a second of the files made here. */
const WAV_RATE = 22_050

/** A mono WAV file of 16 bits: `sample` gives each sample, −1 to 1, by its time in seconds. */
export function wavFile(seconds: number, sample: (t: number) => number): Buffer {
  const count = Math.round(seconds * WAV_RATE)
  const file = Buffer.alloc(44 + 2 * count)
  file.write('RIFF', 0)
  file.writeUInt32LE(36 + 2 * count, 4)
  file.write('WAVEfmt ', 8)
  file.writeUInt32LE(16, 16)
  file.writeUInt16LE(1, 20)
  file.writeUInt16LE(1, 22)
  file.writeUInt32LE(WAV_RATE, 24)
  file.writeUInt32LE(2 * WAV_RATE, 28)
  file.writeUInt16LE(2, 32)
  file.writeUInt16LE(16, 34)
  file.write('data', 36)
  file.writeUInt32LE(2 * count, 40)
  for (let i = 0; i < count; i++)
    file.writeInt16LE(Math.round(32_000 * Math.max(-1, Math.min(1, sample(i / WAV_RATE)))), 44 + 2 * i)
  return file
}
