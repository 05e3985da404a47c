import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseMidi } from 'midi-file'

export interface HeardNote {
  /** In quarter notes from the start of the played tune. */
  readonly onset: number
  readonly midi: number
}

/** The MIDI file that abc2midi (Debian's abcmidi) makes of one tune of a text. */
export function madeByAbc2midi(abc: string, number = '1'): Uint8Array {
  const dir = mkdtempSync(join(tmpdir(), 'velvet-'))
  try {
    writeFileSync(join(dir, 'tune.abc'), abc)
    execFileSync('abc2midi', [join(dir, 'tune.abc'), number, '-o', join(dir, 'tune.mid')], { stdio: 'pipe' })
    return readFileSync(join(dir, 'tune.mid'))
  } finally {
    rmSync(dir, { recursive: true, force: true })
  }
}

/**
 * What abc2midi (Debian's abcmidi, an independent reader of ABC) plays: onsets and pitches of one tune.
 * Its note-ons are written a tick late, so onsets are rounded to 1/48 of a quarter by the caller.
 */
export function heardByAbc2midi(abc: string): HeardNote[] {
  const bytes = madeByAbc2midi(abc.replace(/^(K:.*)$/m, '%%MIDI gchordoff\n$1\n%%MIDI gchordoff'))
  const midi = parseMidi(bytes)
  const division = midi.header.ticksPerBeat!
  const notes: HeardNote[] = []
  for (const track of midi.tracks) {
    let at = 0
    for (const event of track) {
      at += event.deltaTime
      if (event.type === 'noteOn' && event.velocity > 0)
        notes.push({ onset: at / division, midi: event.noteNumber })
    }
  }
  return notes.sort((a, b) => a.onset - b.onset || a.midi - b.midi)
}
