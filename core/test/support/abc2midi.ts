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

/**
 * What abc2midi (Debian's abcmidi, an independent reader of ABC) plays: onsets and pitches of one tune.
 * Its note-ons are written a tick late, so onsets are rounded to 1/48 of a quarter by the caller.
 */
export function heardByAbc2midi(abc: string): HeardNote[] {
  const dir = mkdtempSync(join(tmpdir(), 'velvet-'))
  try {
    const source = join(dir, 'tune.abc')
    const target = join(dir, 'tune.mid')
    writeFileSync(source, abc.replace(/^(K:.*)$/m, '%%MIDI gchordoff\n$1\n%%MIDI gchordoff'))
    execFileSync('abc2midi', [source, '1', '-o', target], { stdio: 'pipe' })
    const midi = parseMidi(readFileSync(target))
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
  } finally {
    rmSync(dir, { recursive: true, force: true })
  }
}
