import { QUARTER, type Ticks } from '../../music/time/ticks.ts'
import type { Midi } from '../../music/pitch/pitch.ts'
import type { SoundingNote } from '../chordsHeard.ts'
import type { ParsedMidi } from './parsedMidi.ts'

/** A note as it was recorded, not drawn to any grid. */
export type RecordedNote = SoundingNote

/** The notes of one channel of one track. */
export interface MidiVoice {
  readonly id: string
  /** The track's name; empty where it has none. */
  readonly name: string
  readonly channel: number
  readonly notes: readonly RecordedNote[]
}

/** What a file holds, on the time line of its ticks. */
export interface MidiContent {
  readonly title: string
  readonly voices: readonly MidiVoice[]
  readonly tempos: readonly { readonly at: Ticks; readonly bpm: number }[]
  readonly metres: readonly { readonly at: Ticks; readonly num: number; readonly den: number }[]
  readonly keys: readonly { readonly at: Ticks; readonly fifths: number; readonly minor: boolean }[]
  readonly texts: readonly { readonly at: Ticks; readonly text: string }[]
  readonly lyrics: readonly { readonly at: Ticks; readonly text: string }[]
  readonly end: Ticks
  /** Notes that nothing ends, and notes of drums, which have no pitch. */
  readonly hanging: number
  readonly drums: number
}

/** The channel of drums in General MIDI, counted from 0. */
const DRUMS = 9

/** What a file holds, voice by voice. */
export function midiContent({ quarter, tracks }: ParsedMidi): MidiContent {
  const tickOf = (at: number): Ticks => Math.round((at * QUARTER) / quarter)
  const out = {
    voices: [] as MidiVoice[],
    tempos: [] as { at: Ticks; bpm: number }[],
    metres: [] as { at: Ticks; num: number; den: number }[],
    keys: [] as { at: Ticks; fifths: number; minor: boolean }[],
    texts: [] as { at: Ticks; text: string }[],
    lyrics: [] as { at: Ticks; text: string }[],
  }
  let [title, end, hanging, drums] = ['', 0, 0, 0]
  tracks.forEach((track, t) => {
    let now = 0
    let name = ''
    const channels = new Map<number, RecordedNote[]>()
    const open = new Map<number, number[]>()
    const close = (channel: number, midi: Midi, at: number) => {
      const began = open.get(channel * 128 + midi)?.shift()
      if (began === undefined || at <= began) return
      const own = channels.get(channel) ?? []
      own.push({ from: tickOf(began), to: tickOf(at), midi })
      channels.set(channel, own)
    }
    for (const event of track) {
      now += event.deltaTime
      const at = tickOf(now)
      if (event.type === 'noteOn' && event.velocity > 0) {
        if (event.channel === DRUMS) drums++
        else {
          const key = event.channel * 128 + event.noteNumber
          open.set(key, [...(open.get(key) ?? []), now])
        }
      } else if (event.type === 'noteOff' || event.type === 'noteOn')
        close(event.channel, event.noteNumber, now)
      else if (event.type === 'trackName') name ||= textOf(event.text)
      else if (event.type === 'setTempo' && event.microsecondsPerBeat > 0)
        out.tempos.push({ at, bpm: 60_000_000 / event.microsecondsPerBeat })
      else if (event.type === 'timeSignature')
        out.metres.push({ at, num: event.numerator, den: event.denominator })
      else if (event.type === 'keySignature')
        out.keys.push({ at, fifths: event.key, minor: event.scale === 1 })
      else if (event.type === 'lyrics') out.lyrics.push({ at, text: textOf(event.text) })
      else if (event.type === 'text') out.texts.push({ at, text: textOf(event.text) })
    }
    for (const [key, began] of open)
      for (const _ of [...began]) {
        hanging++
        close(Math.floor(key / 128), key % 128, now)
      }
    end = Math.max(end, tickOf(now))
    if (t === 0) title = name
    for (const [channel, notes] of [...channels].sort(([a], [b]) => a - b))
      out.voices.push({
        id: `${t}.${channel}`,
        name,
        channel,
        notes: notes.sort((a, b) => a.from - b.from || b.midi - a.midi),
      })
  })
  const inTime = <T extends { at: Ticks }>(list: T[]): T[] => list.sort((a, b) => a.at - b.at)
  return {
    title:
      out.voices.length > 0 && out.voices.every((v) => v.name === title && tracks.length > 1) ? '' : title,
    voices: out.voices,
    tempos: inTime(out.tempos),
    metres: inTime(out.metres),
    keys: inTime(out.keys),
    texts: inTime(out.texts),
    lyrics: inTime(out.lyrics),
    end,
    hanging,
    drums,
  }
}

/** A text of a file: UTF-8 where it is, else a letter a byte. */
function textOf(raw: string): string {
  const bytes = Uint8Array.from(raw, (c) => c.charCodeAt(0))
  const plain = (text: string) =>
    [...text]
      .filter((c) => c >= ' ')
      .join('')
      .trim()
  try {
    return plain(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    return plain(new TextDecoder('latin1').decode(bytes))
  }
}
