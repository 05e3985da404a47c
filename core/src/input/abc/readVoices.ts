import type { AbcElement, AbcStaff, AbcTune } from 'abcjs/src/api/abc_tunebook.js'
import type { Id } from '../../document/ids.ts'
import { clefTranspose, readKey, readMetre } from './abcFields.ts'
import type { Propagation } from './accidentals.ts'
import { VoiceReader } from './readVoice.ts'
import type { VoiceReading } from './voiceReading.ts'
import { type BookTune } from './splitBook.ts'
import type { Report } from './voiceReading.ts'

export function readVoices(
  raw: AbcTune,
  source: BookTune,
  report: Report,
  newId: (prefix: string) => Id,
): VoiceReading[] {
  const readers: VoiceReader[] = []
  const staves: AbcStaff[] = []
  const propagation = /^%%propagate-accidentals\s+(not|octave|pitch)/m.exec(source.text)?.[1] as
    Propagation | undefined
  for (const line of raw.lines) {
    let index = 0
    for (const staff of line.staff ?? []) {
      for (const voice of staff.voices) {
        const known = readers[index]
        if (!known) {
          readers[index] = new VoiceReader(
            {
              voice: index,
              metre: readMetre(staff.meter ?? staves[0]?.meter) ?? { num: 4, den: 4 },
              key: readKey(staff.key),
              signature: staff.key?.accidentals ?? [],
              transpose: clefTranspose(staff.clef),
              propagation: propagation ?? 'pitch',
            },
            report,
            newId,
          )
          staves[index] = staff
        } else known.newLine(staff)
        voice.forEach((element: AbcElement) => readers[index]!.read(element))
        index++
      }
    }
  }
  return readers.map((r) => r.finish())
}
