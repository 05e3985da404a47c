import { harmoniseIn } from '../../arrange/harmonise/harmonise.ts'
import type { Id } from '../../document/ids.ts'
import type { TuneDoc } from '../../document/tune.ts'
import { message, type Message } from '../../messages/message.ts'
import { measureLength } from '../../music/time/metre.ts'
import { QUARTER } from '../../music/time/ticks.ts'
import { writingAbc } from '../../output/abc/writeAbc.ts'
import type { Turns } from '../../turns.ts'
import type { Problem } from '../problem.ts'
import { TUNE_VOICE_NAME } from '../tuneVoiceName.ts'
import type { VoicesOffered } from '../voiceOffer.ts'
import type { MidiChoices } from './midiChoices.ts'
import { midiContent, type MidiContent, type MidiVoice } from './midiVoices.ts'
import { MidiTune } from './midiTune.ts'
import { MidiError, parsedMidi } from './parsedMidi.ts'
import { quantisedAsUsual, type Quantising, type Quantised } from './quantise.ts'

/** What a MIDI file is understood as. */
export interface MidiReading {
  readonly tune: TuneDoc | undefined
  readonly problems: readonly Problem[]
  readonly voices?: VoicesOffered
  /** How its notes were drawn to a grid. */
  readonly quantised?: MidiQuantised
}

/** How a file was drawn to a grid: what was asked for, and what came of it. */
export interface MidiQuantised extends Quantising, Omit<Quantised, 'notes'> {
  /** Quarter notes before the first bar line. */
  readonly pickup: number
  /** Quarter notes of a full measure. */
  readonly quarters: number
}

/** What is needed to read a file. */
export interface MidiNeeds {
  readonly newId: () => Id
  readonly title: string
  readonly choices?: MidiChoices
}

/** Reads a MIDI file of format 0 or 1. Never throws: what cannot be read is a problem. */
export function* readingMidi(
  bytes: Uint8Array,
  { newId, title, choices = {} }: MidiNeeds,
): Turns<MidiReading> {
  const problems: Problem[] = []
  const report = (severity: Problem['severity'], says: Message<'reading'>) =>
    problems.push({ severity, line: 0, column: 0, says })
  const refused = (says: Message<'reading'>): MidiReading => ({
    tune: undefined,
    problems: [{ severity: 'error', line: 0, column: 0, says }],
  })
  let content: MidiContent
  try {
    content = midiContent(parsedMidi(bytes))
  } catch (error) {
    if (error instanceof MidiError) return refused(error.says)
    throw error
  }
  yield
  const voices = content.voices.filter((v) => v.notes.length > 0)
  const melody = voices.find((v) => v.id === choices.melody) ?? likelyMelody(voices, content)
  if (!melody) return refused(message('reading.noNotes'))
  if (content.hanging > 0) report('warning', message('reading.hangingNotes', { count: content.hanging }))
  if (content.drums > 0) report('note', message('reading.drumsLeft'))
  const { quantising, drawn } = quantisedAsUsual(melody.notes, given(choices))
  if (drawn.loose > LOOSE_SHARE)
    report('warning', message('reading.offTheGrid', { percent: Math.round(drawn.loose * 100) }))
  if (drawn.together > 0) report('warning', message('reading.notesTogether', { count: drawn.together }))
  if (drawn.swing !== undefined) report('note', message('reading.swingStraightened'))
  yield
  const reading = new MidiTune(content, voices, melody, drawn, choices, quantising)
  const bare = reading.tune(newId(), content.title || title, report)
  yield
  const chords = bare.chords.length > 0 ? bare.chords : harmoniseIn(bare, 'family').chords
  const whole = { ...bare, chords }
  const tune: TuneDoc = { ...whole, abc: { text: yield* writingAbc(whole), spans: [] } }
  const { notes: _, ...found } = drawn
  return {
    tune,
    problems,
    voices: {
      offered: voices.map((v, i) => ({ id: v.id, name: v.name || `${i + 1}`, notes: v.notes.length })),
      melody: melody.id,
    },
    quantised: {
      ...quantising,
      ...found,
      pickup: reading.pickup / QUARTER,
      quarters: measureLength(reading.firstMetre) / QUARTER,
    },
  }
}

/** Share of notes off the grid from which on it is said. */
const LOOSE_SHARE = 0.15

const given = ({ finest, triplets, straighten }: MidiChoices): Partial<Quantising> => ({
  ...(finest === undefined ? {} : { finest }),
  ...(triplets === undefined ? {} : { triplets }),
  ...(straighten === undefined ? {} : { straighten }),
})

/** The voice that most likely is the melody: one that is called so, else the highest of those that are one line. */
function likelyMelody(voices: readonly MidiVoice[], { lyrics }: MidiContent): MidiVoice | undefined {
  const sung = new Set(lyrics.map((l) => l.at))
  const withWords = voices.map((v) => v.notes.filter((n) => sung.has(n.from)).length)
  const most = Math.max(0, ...withWords)
  if (most > 2 && most >= sung.size / 2) return voices[withWords.indexOf(most)]
  const named = voices.find((v) => TUNE_VOICE_NAME.test(v.name))
  if (named) return named
  const longest = Math.max(0, ...voices.map((v) => v.notes.length))
  const full = voices.filter((v) => v.notes.length >= longest / 5)
  const lines = full.filter((v) => overlaps(v) < 0.2)
  const height = ({ notes }: MidiVoice) => notes.reduce((sum, n) => sum + n.midi, 0) / notes.length
  return [...(lines.length > 0 ? lines : full)].sort((a, b) => height(b) - height(a))[0]
}

/** Share of the notes of a voice that begin while another of it sounds on. */
function overlaps({ notes }: MidiVoice): number {
  let end = 0
  let count = 0
  for (const n of notes) {
    if (n.from < end - QUARTER / 8) count++
    end = Math.max(end, n.to)
  }
  return count / Math.max(1, notes.length)
}
