import { isAccompaniment, type PatternText, type Style, type TuneDoc } from '@velvet-porch/core/document'
import { PATTERN_LIBRARY, patternProblemMessage, readPattern, readStrum } from '@velvet-porch/core/arrange'
import { UsageError, wholeNumber } from './usage.ts'
import { say } from './words.ts'

/**
 * A pattern from `--pattern`: the name of one of the library, one in writing, or a strum in words; `--per-beat` gives
 * the steps of a beat (2).
 */
export function patternFrom(
  text: string | undefined,
  perBeatText: string | undefined,
  tune: TuneDoc,
  style: Style,
): PatternText | undefined {
  if (text === undefined) return undefined
  if (!isAccompaniment(style) || style === 'shuffle')
    throw new UsageError('--pattern goes with --style picking, bass-brush or strum.')
  const named = PATTERN_LIBRARY.find((p) => p.id === text)
  if (named) return { metre: named.metre, perBeat: named.perBeat, text: named.text }
  const { num, den } = (tune.measures.find((m) => m.length >= m.nominal) ?? tune.measures[0]!).metre
  const metre = { num, den }
  const perBeat = perBeatText === undefined ? 2 : wholeNumber(perBeatText, 1, 8, 'per-beat')
  if (/^[a-z-]+$/.test(text) && !/^[dubax.-]+$/.test(text) && !/down|up/.test(text))
    throw new UsageError(
      `--pattern "${text}" is not in the library; use ${PATTERN_LIBRARY.filter((p) => p.style === style)
        .map((p) => p.id)
        .join(', ')}, or write one: "b 3 2 1".`,
    )
  if (/\b(down|up)\b/i.test(text)) return strumFrom(text, metre, perBeat)
  const source = { metre, perBeat, text }
  const reading = readPattern(source)
  if (!reading.ok) throw new UsageError(`--pattern: ${say(patternProblemMessage(reading.problem))}`)
  return source
}

function strumFrom(text: string, metre: PatternText['metre'], perBeat: number): PatternText {
  const reading = readStrum(text, metre, perBeat)
  if (reading.kind === 'placed') return reading.placement.pattern
  const where = `a measure of ${metre.num}/${metre.den} at ${perBeat} steps a beat`
  if (reading.kind === 'ambiguous')
    throw new UsageError(
      `--pattern "${text}" can fall in more than one way in ${where}; write one of: ` +
        reading.choices.map((c) => `"${c.pattern.text}"`).join(', ') +
        '.',
    )
  const nearest = reading.nearest ? ` With --per-beat ${reading.perBeat} it has one.` : ''
  throw new UsageError(
    reading.reason === 'tooMany'
      ? `--pattern: ${reading.what} strokes in this order have no place in ${where}.${nearest}`
      : `--pattern: "${reading.what}" is neither a down nor an up stroke.`,
  )
}
