import { midiOf } from '../../music/pitch/pitch.ts'
import { TUNE_VOICE_NAME } from '../tuneVoiceName.ts'
import { child } from './xmlTree.ts'
import { isTabBesideStaff, type XmlPart, type XmlScore } from './readParts.ts'
import type { XmlNote } from './readMeasure.ts'

/** A voice of a score: what can be taken for the melody. */
export interface ScoreVoice {
  readonly id: string
  readonly part: XmlPart
  /** What it is called: the part's name, and the voice where there are several. */
  readonly name: string
  /** Measure by measure, in order of time; what is struck together is one after the other. */
  readonly measures: readonly (readonly XmlNote[])[]
  readonly notes: number
}

/**
 * All voices of a score that hold notes, part by part. A tab beside a staff says the same again and is none. A score of rests has the
 * first part's first voice alone.
 */
export function voicesIn(score: XmlScore): ScoreVoice[] {
  const all = everyVoice(score)
  const sounding = all.filter((v) => v.notes > 0)
  return sounding.length > 0 ? sounding : all.slice(0, 1)
}

function everyVoice({ parts }: XmlScore): ScoreVoice[] {
  return parts.flatMap((part, p) => {
    const keys = new Map<string, (readonly XmlNote[])[]>()
    const staves = new Set(part.measures.flatMap((m) => m.notes.map((n) => n.staff)))
    part.measures.forEach((m, i) => {
      const own = new Map<string, XmlNote[]>()
      const ends = new Map<string, number>()
      let last = ''
      for (const note of m.notes) {
        if (isTabBesideStaff(part, note.staff)) continue
        let key = staves.size > 1 ? `${note.staff}/${note.voice}` : note.voice
        if (note.isChord && own.has(last)) key = last
        // What overlaps in one voice is a voice of its own.
        else while (!note.isGrace && note.tick < (ends.get(key) ?? 0)) key += "'"
        last = key
        own.set(key, [...(own.get(key) ?? []), note])
        ends.set(key, Math.max(ends.get(key) ?? 0, note.tick + note.ticks))
      }
      for (const [key, notes] of own) {
        const measures = keys.get(key) ?? part.measures.map((): readonly XmlNote[] => [])
        measures[i] = notes
        keys.set(key, measures)
      }
    })
    const voices = [...keys].map(([key, measures]) => ({
      key,
      measures,
      notes: measures.flat().filter((n) => n.pitch).length,
    }))
    return voices.map(({ key, measures, notes }, v) => ({
      id: `${part.id || String(p + 1)}:${key}`,
      part,
      name: [part.name || `${p + 1}`, ...(voices.length > 1 ? [`${v + 1}`] : [])].join(', '),
      measures,
      notes,
    }))
  })
}

/** The voice that most likely is the melody: one with words, one that is called so, else the highest of the first part. */
export function likelyMelody(voices: readonly ScoreVoice[]): ScoreVoice | undefined {
  const most = Math.max(0, ...voices.map((v) => v.notes))
  const full = voices.filter((v) => v.notes >= most / 4)
  const sung = voices.find((v) => v.measures.some((m) => m.some((n) => child(n.element, 'lyric'))))
  const named = voices.find((v) => TUNE_VOICE_NAME.test(v.part.name))
  const first = full.filter((v) => v.part === full[0]?.part)
  return sung ?? named ?? [...first].sort((a, b) => meanHeight(b) - meanHeight(a))[0]
}

function meanHeight({ measures }: ScoreVoice): number {
  const heights = measures.flat().flatMap((n) => (n.pitch ? [midiOf(n.pitch)] : []))
  return heights.reduce((sum, h) => sum + h, 0) / Math.max(1, heights.length)
}
