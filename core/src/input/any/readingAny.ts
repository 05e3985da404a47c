import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Id } from '../../document/ids.ts'
import type { School } from '../../document/school.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Player } from '../../instrument/hand.ts'
import { message } from '../../messages/message.ts'
import { finish, type Turns } from '../../turns.ts'
import type { GivenPlace } from '../abc/placeMarks.ts'
import { readingAbc, type TuneReading } from '../abc/readAbc.ts'
import { PlacesError, scoreOfPlaces } from '../abc/scoreOfPlaces.ts'
import { setupInAbc } from '../../output/abc/stringsLine.ts'
import { noTune } from '../abc/noTune.ts'
import { midiInText } from '../midi/midiText.ts'
import type { MidiChoices } from '../midi/midiChoices.ts'
import { readingMidi, type MidiQuantised } from '../midi/readingMidi.ts'
import { readingMusicXml } from '../musicxml/readingMusicXml.ts'
import type { Problem } from '../problem.ts'
import type { VoicesOffered } from '../voiceOffer.ts'
import { readSong, songsIn } from '../song/readingSong.ts'
import { tuneOfSong, type SongChoices, type SongTune } from '../song/songTune.ts'
import { playersOf, readingTextTab } from '../text/readTextTab.ts'
import { scoringTab, TabReadError, type TabScore } from '../text/scoreOfTab.ts'
import { kindOf, type TextKind } from './kindOf.ts'

/** What is needed to read any text. */
export interface ReadingNeeds {
  readonly newId: () => Id
  /** Whose hand finds the fingers of a tab. */
  readonly player: Player
  /** A name for what has none. */
  readonly title: string
  readonly school?: School
  readonly song?: SongChoices
  /** The voice of a score that is its melody, and how a MIDI file is drawn to a grid. */
  readonly score?: MidiChoices
}

/** One tune of a text as understood; without a tune where nothing of it could be read. */
export interface TuneUnderstood {
  readonly tune: TuneDoc | undefined
  /** Its tab, where the text is one. */
  readonly arrangement?: ArrangementDoc
  /** Where its notes are to be played, where an ABC text says so. */
  readonly places?: ReadonlyMap<Id, readonly GivenPlace[]>
  /** What a song says of how it is played. */
  readonly song?: Pick<SongTune, 'capo' | 'bars' | 'guessed' | 'strum' | 'tuning'>
  /** What chord names beside a capo were taken for, where the text does not say it. */
  readonly capoNames?: TabScore['capoNames']
  /** The voices of a score, and which of them is the melody. */
  readonly voices?: VoicesOffered
  /** How a MIDI file was drawn to a grid. */
  readonly quantised?: MidiQuantised
  readonly problems: readonly Problem[]
}

/** A text as understood. */
export interface TextUnderstood {
  readonly kind: Exclude<TextKind, 'json'>
  readonly tunes: readonly TuneUnderstood[]
}

/**
 * Reads a text of any kind, tune by tune. Never throws: what cannot be read is a problem with its line. A file of this app
 * (JSON) is read by the schema instead.
 */
export const readAny = (text: string, needs: ReadingNeeds): TextUnderstood => finish(readingAny(text, needs))

/** The same in turns: books and tabs are long. */
export function* readingAny(text: string, needs: ReadingNeeds): Turns<TextUnderstood> {
  const kind = kindOf(text)
  if (kind === 'abc') {
    const read = yield* readingAbc(text, needs.newId)
    return { kind, tunes: read.map((t) => withPlaces(t, needs)) }
  }
  if (kind === 'tab') {
    const tunes: TuneUnderstood[] = []
    for (const player of playersOf(text)) tunes.push(yield* tabUnderstood(text, needs, player))
    return { kind, tunes }
  }
  if (kind === 'musicxml') {
    const { score, ...plain } = needs
    const melody = score?.melody
    return { kind, tunes: yield* readingMusicXml(text, { ...plain, ...(melody ? { melody } : {}) }) }
  }
  const midi = kind === 'midi' ? midiInText(text) : undefined
  if (midi) {
    const { newId, title, score: choices = {} } = needs
    return { kind: 'midi', tunes: [yield* readingMidi(midi, { newId, title, choices })] }
  }
  if (kind === 'song') return { kind, tunes: songsIn(text).map((s) => songUnderstood(s, needs)) }
  const nothing = text.trim() === '' ? message('reading.empty') : message('reading.noKind')
  return { kind: 'song', tunes: [{ tune: undefined, problems: [noTune(nothing)] }] }
}

/** A tune of an ABC text with its tab, where all its notes have their places. */
function withPlaces(read: TuneReading, { player, school }: ReadingNeeds): TuneUnderstood {
  const { tune, places } = read
  const setup = tune?.abc && setupInAbc(tune.abc.text, player)
  if (!tune || !places || places.size === 0 || !setup) return read
  try {
    return { ...read, ...scoreOfPlaces(tune, places, setup, school) }
  } catch (error) {
    if (!(error instanceof PlacesError)) throw error
    return {
      ...read,
      problems: [...read.problems, { severity: 'warning', line: 0, column: 0, says: error.says }],
    }
  }
}

function* tabUnderstood(
  text: string,
  needs: ReadingNeeds,
  player: string | undefined,
): Turns<TuneUnderstood> {
  const read = yield* readingTextTab(text, undefined, player)
  try {
    const { school, song } = needs
    const score = yield* scoringTab(read, needs.newId(), needs.player, needs.title, {
      ...(school ? { school } : {}),
      ...(song?.meaning ? { meaning: song.meaning } : {}),
    })
    return { ...score, problems: [...read.problems, ...score.problems] }
  } catch (error) {
    if (!(error instanceof TabReadError)) throw error
    return { tune: undefined, problems: [noTune(error.says), ...read.problems] }
  }
}

function songUnderstood(
  { text, lineOffset }: { readonly text: string; readonly lineOffset: number },
  { newId, song = {}, title }: ReadingNeeds,
): TuneUnderstood {
  const read = readSong(text, lineOffset)
  if (read.parts.every((p) => p.lines.every((l) => l.kind === 'remark')))
    return {
      tune: undefined,
      problems: [{ ...noTune(message('reading.noSong')), line: lineOffset + 1 }, ...read.problems],
    }
  const { tune, problems, ...how } = tuneOfSong(read, newId(), { title, ...song })
  const { capo } = how
  const capoNames = capo > 0 ? { capoNames: { capo, meaning: song.meaning ?? 'shapes' } as const } : {}
  return { tune, song: how, ...capoNames, problems }
}
