import type { Id } from '../../document/ids.ts'
import { LIMITS } from '../../document/limits.ts'
import { type TuneDoc } from '../../document/tune.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { lineStarts } from '../lineStarts.ts'
import { message } from '../../messages/message.ts'
import { placesIn, type Problem } from '../problem.ts'
import { plainLines } from '../sourceText.ts'
import { abcAsFound } from './abcAsFound.ts'
import { abcSource } from './abcSource.ts'
import { parseAbc } from './parseAbc.ts'
import { isOfSigns, readWarning } from './readWarnings.ts'
import { splitBook, type BookTune } from './splitBook.ts'
import type { GivenPlace } from './placeMarks.ts'
import type { PlacedTune } from './tuneOf.ts'
import { buildTune } from './tuneOf.ts'
import { noTune } from './noTune.ts'
import type { Report } from './voiceReading.ts'

/** One tune of a text: the document, or nothing where no note could be read; and all that was odd. */
export interface TuneReading {
  readonly tune: TuneDoc | undefined
  /** Where its notes are to be played, by event; absent where the text says nothing of it. */
  readonly places?: ReadonlyMap<Id, readonly GivenPlace[]>
  readonly problems: readonly Problem[]
}

/**
 * Reads a text in ABC (standard 2.1), one result for each tune in it. Never throws: what cannot be read is a problem
 * with its line, its column and what was understood instead.
 */
export const readAbc = (text: string, newDocId: () => Id): TuneReading[] => finish(readingAbc(text, newDocId))

/** The same in turns, one a tune: books are long. */
export function* readingAbc(text: string, newDocId: () => Id): Turns<TuneReading[]> {
  const tunes = splitBook(abcAsFound(plainLines(text)))
  if (tunes.length === 0) {
    return [{ tune: undefined, problems: [noTune(message('reading.empty'))] }]
  }
  return yield* mapInTurns(tunes, (tune) => readOne(tune, newDocId), 1)
}

/** Most problems of one tune that are listed one by one. */
const MOST_PROBLEMS = 200

function readOne(source: BookTune, newDocId: () => Id): TuneReading {
  const problems: Problem[] = []
  const refused = (says: Problem['says']): TuneReading => ({
    tune: undefined,
    problems: tidy([...problems, { ...noTune(says), line: source.lineOffset + 1 }]),
  })
  try {
    if (source.text.length > LIMITS.sourceText) return refused(message('reading.tooLong'))
    if (!/^[ \t]*K:/m.test(source.text) && !/[|]/.test(source.text)) return refused(message('reading.notAbc'))
    const understood = understand(source, newDocId, problems)
    return { tune: undefined, ...understood, problems: tidy(problems) }
  } catch (error) {
    return refused(message('reading.unreadable', { reason: (error as Error).message }))
  }
}

function understand(source: BookTune, newDocId: () => Id, problems: Problem[]): PlacedTune | undefined {
  const { source: ready, remarks } = abcSource(source.text)
  const placeOf = placesIn(source.text)
  const reportIn: Report = (severity, offset, says) => {
    const { line, column } = placeOf(offset)
    problems.push({ severity, line: line + source.lineOffset, column, says })
  }
  for (const r of remarks) reportIn(r.severity, r.offset, r.says)
  if (!/^[ \t]*K:/m.test(source.text)) reportIn('warning', 0, message('reading.noKey'))
  const { raw, badLines } = parseAbc(ready.text)
  const lines = ready.text.split('\n')
  const starts = lineStarts(lines)
  const lineStart = (index: number) => starts[index] ?? ready.text.length
  for (const i of badLines) reportIn('warning', ready.toSource(lineStart(i)), message('reading.badLine'))
  if (!raw) {
    reportIn('error', 0, message('reading.unparsed'))
    return undefined
  }
  for (const w of raw.warnings ?? []) {
    if (isOfSigns(w)) continue
    const { line, column, says } = readWarning(w)
    reportIn('warning', ready.toSource(lineStart(line - 1) + column - 1), says)
  }
  return buildTune(raw, source, ready, newDocId, problems, reportIn)
}

/** Joins problems of one kind that stand side by side, so that a line of rubbish is one message. */
function tidy(problems: readonly Problem[]): Problem[] {
  const sorted = [...problems].sort((a, b) => a.line - b.line || a.column - b.column)
  const kept = sorted.filter((p, i) => {
    const before = sorted[i - 1]
    return (
      !before || before.line !== p.line || before.says.code !== p.says.code || before.column < p.column - 1
    )
  })
  if (kept.length <= MOST_PROBLEMS) return kept
  const { line } = kept[MOST_PROBLEMS]!
  const more = kept.length - MOST_PROBLEMS
  return [
    ...kept.slice(0, MOST_PROBLEMS),
    {
      severity: 'warning',
      line,
      column: 1,
      says: message('reading.moreProblems', { count: more }),
    },
  ]
}
