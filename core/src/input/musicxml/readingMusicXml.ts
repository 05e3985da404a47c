import type { ArrangementDoc } from '../../document/arrangement.ts'
import type { Id } from '../../document/ids.ts'
import type { School } from '../../document/school.ts'
import type { Score } from '../../document/score.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { Player } from '../../instrument/hand.ts'
import { message, type Message } from '../../messages/message.ts'
import { writingAbc } from '../../output/abc/writeAbc.ts'
import type { Turns } from '../../turns.ts'
import type { Problem } from '../problem.ts'
import type { VoicesOffered } from '../voiceOffer.ts'
import { readParts, type XmlPart, type XmlScore } from './readParts.ts'
import { hasTab, tabOfScore } from './tabOfScore.ts'
import { tuneOfScore, type Report } from './tuneOfScore.ts'
import { likelyMelody, voicesIn, type ScoreVoice } from './voices.ts'
import { XmlError } from './xmlTree.ts'

/** What a score is understood as. */
export interface MusicXmlReading {
  readonly tune: TuneDoc | undefined
  readonly arrangement?: ArrangementDoc
  readonly problems: readonly Problem[]
  /** The voices of the score, and which of them is the melody. */
  readonly voices?: VoicesOffered
}

/** What is needed to read a score. */
export interface MusicXmlNeeds {
  readonly newId: () => Id
  readonly player: Player
  readonly title: string
  readonly school?: School
  /** The voice that is the melody; absent: the likeliest. */
  readonly melody?: string
}

/** Problems of one score that are listed one by one. */
const MOST_PROBLEMS = 200

/**
 * Reads a score in MusicXML (3 and 4): one tune, and one more for each further part that is a tab. Never throws: what cannot be read is
 * a problem with its line.
 */
export function* readingMusicXml(text: string, needs: MusicXmlNeeds): Turns<MusicXmlReading[]> {
  const problems: Problem[] = []
  const report: Report = (severity, line, says) => {
    const before = problems.at(-1)
    const isSame = before?.says.code === says.code && before.line === line
    if (!isSame && problems.length < MOST_PROBLEMS) problems.push({ severity, line, column: 1, says })
  }
  const refused = (says: Message<'reading'>, line: number): MusicXmlReading[] => [
    { tune: undefined, problems: [{ severity: 'error', line, column: 1, says }, ...problems] },
  ]
  let score: XmlScore
  try {
    score = readParts(text)
  } catch (error) {
    if (!(error instanceof XmlError)) throw error
    return refused(error.says, error.line)
  }
  yield
  const voices = voicesIn(score)
  const melody = voices.find((v) => v.id === needs.melody) ?? likelyMelody(voices)
  if (!melody) return refused(message('reading.noNotes'), 0)
  const tabs = score.parts.filter(hasTab)
  const own = tabs.includes(melody.part) ? melody.part : tabs[0]
  const first = yield* playedFrom(score, voices, melody, own, needs, report)
  const offered = voices.map(({ id, name, notes }) => ({ id, name, notes }))
  const readings: MusicXmlReading[] = [{ ...first, problems, voices: { offered, melody: melody.id } }]
  for (const part of tabs) {
    const ofPart = voices.filter((v) => v.part === part)
    const top = likelyMelody(ofPart)
    if (part === own || !top) continue
    const title = [score.title || needs.title, part.name].filter((t) => t !== '').join(', ')
    const more = yield* playedFrom({ ...score, title }, ofPart, top, part, needs, () => undefined)
    readings.push({ ...more, problems: [] })
  }
  return readings
}

/** A tune of a score, with its tab where a part has one. */
function* playedFrom(
  score: XmlScore,
  voices: readonly ScoreVoice[],
  melody: ScoreVoice,
  tabbed: XmlPart | undefined,
  { newId, title, player, school }: MusicXmlNeeds,
  report: Report,
): Turns<Score> {
  const read = tuneOfScore(score, voices, melody, tabbed, newId(), title, report)
  if (melody.notes === 0)
    report('note', 0, message(read.tune.chords.length > 0 ? 'reading.noMelody' : 'reading.onlyRests'))
  yield
  const tune: TuneDoc = { ...read.tune, abc: { text: yield* writingAbc(read.tune), spans: [] } }
  if (!tabbed) return { tune }
  const isSolo = tabbed === melody.part
  return (yield* tabOfScore(tabbed, { ...read, tune }, { player, school, isSolo, report })) ?? { tune }
}
