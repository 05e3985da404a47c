import { knownIn } from '../../invariant.ts'
import { finish, mapInTurns, type Turns } from '../../turns.ts'
import { measureLength, type Metre } from '../../music/time/metre.ts'
import { WHOLE, type Ticks } from '../../music/time/ticks.ts'
import { message } from '../../messages/message.ts'
import type { Problem } from '../problem.ts'
import { countsIn } from './countLine.ts'
import type { SystemMarks } from './systemMarks.ts'
import { touchMarks, withTouchMarks } from './touchMarks.ts'
import { isChordLine, isRhythmLine } from './linesAbove.ts'
import { tabAsFound } from './tabAsFound.ts'
import { factsOf, statedMetre } from './tabHead.ts'
import { brokenStrings, findingSystems, textSystems, type TextSystem } from './tabLines.ts'
import { REST_SIGN, rhythmTicks, SUGGESTED_LINE } from '../../output/text/tabSigns.ts'
import { withHandLines } from './handLines.ts'
import type { ReadMeasure, ReadSign, ReadTab } from './readTab.ts'
import { tiedOver } from './ties.ts'
import { settledSlides } from './slides.ts'
import { tokensOf, type Stray, type TabToken } from './tabTokens.ts'

/** Longest tab that is read, in measures. */
const MOST_MEASURES = 2000

/** True for a text that holds at least one system of tab. */
export const looksLikeTab = (text: string): boolean => textSystems(tabAsFound(text).text).length > 0

/**
 * Reads plain-text tab: 4 to 7 lines a system, any names of strings, bars, the usual signs, with a rhythm line over it or
 * without. Where there is none, the rhythm is a guess from the spacing, and said to be one.
 */
export const readTextTab = (text: string, metre?: Metre): ReadTab => finish(readingTextTab(text, metre))

/** The players of a text with several instruments, one above the other; one without a name where there is one only. */
export function playersOf(text: string): readonly (string | undefined)[] {
  const players = textSystems(tabAsFound(text).text).map((s) => s.marks.player)
  const named = [...new Set(players.filter((p) => p !== undefined))]
  // All systems have one, but for those that go on with the last.
  return named.length > 1 && players[0] !== undefined ? named : [undefined]
}

/**
 * The same in turns: long tabs take their time.
 * @param player which of several instruments; absent: all systems are of one
 */
export function* readingTextTab(
  source: string,
  metre: Metre = { num: 4, den: 4 },
  player?: string,
): Turns<ReadTab> {
  const { text, numbers } = tabAsFound(source)
  const all = yield* findingSystems(text)
  let last: string | undefined
  const systems = all.filter((s) => {
    last = s.marks.player ?? last
    return player === undefined || last === player
  })
  yield
  const problems: Problem[] = []
  const own = statedMetre(text, problems) ?? metre
  const measures = (yield* mapInTurns(systems, (s) => measuresOf(s, own, problems), 8)).flat()
  yield
  const strings = systems[0]?.rows.length ?? 0
  for (const s of systems)
    if (s.rows.length !== strings)
      problems.push({
        severity: 'warning',
        line: s.line,
        column: 1,
        says: message('reading.unevenSystem', { strings: s.rows.length, first: strings }),
      })
  for (const line of brokenStrings(text, all))
    problems.push({
      severity: 'warning',
      line,
      column: 1,
      says: message('reading.brokenString'),
    })
  yield
  if (measures.length > MOST_MEASURES)
    problems.push({
      severity: 'warning',
      line: measures[MOST_MEASURES]!.line,
      column: 1,
      says: message('reading.longTab', { measures: measures.length, most: MOST_MEASURES }),
    })
  if (measures.some((m) => m.guessed))
    problems.push({
      severity: 'note',
      line: systems[0]!.line,
      column: 1,
      says: message('reading.guessedRhythm'),
    })
  const names = systems.find((s) => s.names.every((n) => n !== undefined))?.names as
    readonly string[] | undefined
  const head = text.split('\n').slice(0, (all[0]?.line ?? 1) - 1)
  const facts = factsOf(head)
  return {
    ...(facts.title === undefined ? {} : { title: facts.title.slice(0, 120) }),
    ...(player === undefined ? {} : { player }),
    ...(facts.artist === undefined ? {} : { artist: facts.artist }),
    ...(facts.key === undefined ? {} : { key: facts.key }),
    ...(facts.bpm === undefined ? {} : { bpm: facts.bpm }),
    ...(facts.tuning === undefined ? {} : { tuning: facts.tuning }),
    strings,
    ...(names ? { names } : {}),
    capo: facts.capo ?? Number(/\bcapo\D{0,12}(\d{1,2})/i.exec(head.join('\n'))?.[1] ?? 0),
    shapes: /names are shapes/i.test(head.join('\n')),
    suggested: head.some((l) => l.trim() === SUGGESTED_LINE),
    metre: own,
    measures: settledSlides(tiedOver(underBottleneck(measures.slice(0, MOST_MEASURES), head))),
    problems: problems.map((p) => ({ ...p, line: numbers[p.line - 1] ?? p.line })),
  }
}

/** Where the head of a text says that it is played with a bottleneck, all that no finger is named for is under it. */
function underBottleneck(measures: readonly ReadMeasure[], head: readonly string[]): readonly ReadMeasure[] {
  if (!/\bbottle ?neck\b/i.test(head.join('\n'))) return measures
  const isUnder = (s: ReadSign) =>
    Boolean(s.fret) && s.left === undefined && !s.muted && !s.harmonic && (!s.lead || s.lead === 'slide')
  return measures.map((m) => ({
    ...m,
    signs: m.signs.map((s) => (isUnder(s) ? { ...s, bottle: true as const } : s)),
  }))
}

function measuresOf(system: TextSystem, metre: Metre, problems: Problem[]): ReadMeasure[] {
  const { rows } = system
  const all = rows.map((row, i) => tokensOf(row, i + 1))
  const remark = ({ string, column }: Stray, says: Problem['says']) =>
    problems.push({
      severity: 'warning',
      line: system.line + string - 1,
      column: system.left + column + 1,
      says,
    })
  for (const { strays, parted } of all) {
    for (const s of strays) remark(s, message('reading.straySign', { sign: s.text }))
    for (const s of parted)
      remark(s, message('reading.noSuchFret', { fret: s.text, first: s.text[0]!, second: s.text[1]! }))
  }
  const tokens = all.flatMap((a) => a.tokens)
  const over = system.above.map((l) => l.text)
  const rhythm = over.find(isRhythmLine)
  const chordLine = over.find(isChordLine)
  const marks = touchMarks(over)
  const measures: ReadMeasure[] = []
  let read = 0
  const bars = barsOf(rows)
  for (const [at, { from, to, repeatStart, repeatEnd }] of bars.entries()) {
    // A fret on a bar line that other strings have belongs to the measure that begins there.
    const inside = tokens.filter((t) => t.column >= from - 1 && t.column < to)
    const where = { line: system.line, column: system.left + from + 1 }
    const written =
      rhythm === undefined ? undefined : rhythmIn(rhythm, from, to, inside, metre, where, problems)
    const counted =
      written || system.counts === undefined
        ? undefined
        : countedTimes(inside, countsIn(system.counts, from - 1, to, metre), measureLength(metre))
    const guess = written ?? counted ?? spaced(inside, from, to, measureLength(metre))
    if (inside.length === 0 && to - from < 3) continue
    const fingered = withHandLines(guess.signs, system.hands, from, to)
    for (const { line, column, text } of fingered.beside)
      problems.push({
        severity: 'warning',
        line,
        column: system.left + column + 1,
        says: message('reading.fingersBeside', { fingers: text }),
      })
    measures.push({
      length: guess.length,
      signs: withTouchMarks(fingered.signs, marks),
      chords:
        chordLine === undefined
          ? []
          : chordsIn(chordLine, bars, at, guess, (written ?? counted) ? 0 : measureLength(metre) / metre.num),
      guessed: written === undefined && counted === undefined && inside.length > 0,
      repeatStart,
      repeatEnd,
      line: system.line,
    })
    read += inside.length
  }
  if (read < tokens.length)
    remark(
      { string: 1, column: 0, text: '' },
      message('reading.fretsOutsideBars', { count: tokens.length - read }),
    )
  return marked(measures, system.marks)
}

/** Measures with the part that begins there, and the signs of a repeat round those that are played several times. */
function marked(measures: readonly ReadMeasure[], { part, times }: SystemMarks): ReadMeasure[] {
  const last = measures.length - 1
  // A repeat that the bar lines write has its count said beside it.
  const written = measures.findLastIndex((m) => m.repeatEnd)
  return measures.map((m, i) => ({
    ...m,
    ...(part !== undefined && i === 0 ? { part } : {}),
    ...(times !== undefined && written < 0 && i === 0 ? { repeatStart: true } : {}),
    ...(times !== undefined && written < 0 && i === last ? { repeatEnd: true } : {}),
    ...(times !== undefined && i === (written < 0 ? last : written) ? { times } : {}),
  }))
}

/** Times from the counts under a measure; undefined where a fret stands under none, or two of a string under one. */
function countedTimes(
  tokens: readonly TabToken[],
  counts: readonly (readonly [column: number, tick: Ticks])[] | undefined,
  length: Ticks,
): Timed | undefined {
  if (!counts) return undefined
  const signs = tokens.map((t) => {
    const own = counts.find(([c]) => c >= t.column - 1 && c < Math.max(t.end, t.column + 2))
    return own && { ...t, tick: own[1] }
  })
  const struck = signs.flatMap((s) => (s ? [`${s.string}@${s.tick}`] : []))
  const fits =
    signs.every((s) => s !== undefined && s.tick < length) && new Set(struck).size === struck.length
  return fits ? { length, signs: signs as ReadSign[], columns: counts } : undefined
}

interface Bar {
  readonly from: number
  readonly to: number
  readonly repeatStart: boolean
  readonly repeatEnd: boolean
}

/** The stretches between bar lines: columns in which most strings have one. */
function barsOf(rows: readonly string[]): Bar[] {
  const width = Math.max(...rows.map((r) => r.length))
  const isBar = (c: number) => rows.filter((r) => r[c] === '|').length > rows.length / 2
  const has = (c: number, sign: RegExp) => rows.some((r) => sign.test(r[c] ?? ''))
  const bars: Bar[] = []
  let from = 0
  for (let c = 0; c <= width; c++) {
    if (c < width && !isBar(c)) continue
    const filled = rows.some((r) => /[^\s|]/.test(r.slice(from, c)))
    if (c > from && filled)
      bars.push({ from, to: c, repeatStart: has(from, /[:*]/), repeatEnd: has(c - 1, /[:*]/) })
    from = c + 1
  }
  return bars
}

interface Timed {
  readonly length: Ticks
  readonly signs: readonly ReadSign[]
  /** Columns of the onsets with their times. */
  readonly columns: readonly (readonly [column: number, tick: Ticks])[]
}

/** Times from the letters over a measure; undefined where they do not fit what stands under them. */
function rhythmIn(
  line: string,
  from: number,
  to: number,
  tokens: readonly TabToken[],
  metre: Metre,
  where: { line: number; column: number },
  problems: Problem[],
): Timed | undefined {
  const groups = [...line.slice(from, to).matchAll(/[^\s|]+/g)].map((m) => ({
    column: from + m.index,
    text: m[0],
  }))
  if (groups.length === 0) return undefined
  const columns: [number, Ticks][] = []
  let at = 0
  for (const { column, text } of groups) {
    const rest = text.startsWith(REST_SIGN)
    const ticks = rhythmTicks(rest ? text.slice(1) : text)
    if (ticks === undefined) return undefined
    if (!rest) columns.push([column, at])
    at += ticks
  }
  const full = measureLength(metre)
  if (at > full)
    problems.push({
      severity: 'warning',
      ...where,
      says: message('reading.longRhythm'),
    })
  const signs = tokens.map((t): ReadSign | undefined => {
    const own = columns.find(([c]) => c >= t.column - 1 && c < Math.max(t.end, t.column + 2))
    if (own) return { ...t, tick: own[1] }
    // A fret without a letter is a short note before the one that it leads to.
    const next = tokens.find((n) => n.string === t.string && n.column > t.column)
    const on = next && columns.find(([c]) => c >= next.column - 1 && c < Math.max(next.end, next.column + 2))
    return on && next.column - t.end <= 2 ? { ...t, tick: on[1], grace: true } : undefined
  })
  const struck = signs.flatMap((s) => (s && !s.grace ? [`${s.string}@${s.tick}`] : []))
  if (signs.some((s) => s === undefined) || new Set(struck).size < struck.length) {
    problems.push({
      severity: 'warning',
      ...where,
      says: message('reading.rhythmBeside'),
    })
    return undefined
  }
  return { length: at, signs: signs as ReadSign[], columns }
}

/** Steps of a guessed rhythm: the coarsest on which every onset has a place of its own. */
const GRIDS: readonly Ticks[] = [WHOLE / 4, WHOLE / 8, WHOLE / 16, WHOLE / 32, WHOLE / 64]

/** Times from the spacing alone. */
function spaced(tokens: readonly TabToken[], from: number, to: number, length: Ticks): Timed {
  const starts = [...new Set(tokens.map((t) => t.column))].sort((a, b) => a - b)
  // A fret one column behind another belongs to the same onset: numbers of two digits are set either way.
  const onsets: number[] = []
  const onsetOf = new Map<number, number>()
  for (const c of starts) {
    const last = onsets.at(-1)
    const isWide = (column: number | undefined) =>
      tokens.some((t) => t.column === column && t.end - t.column > 1)
    const sameString = tokens.some(
      (t) => t.column === c && tokens.some((o) => o.column === last && o.string === t.string),
    )
    if (last !== undefined && c - last === 1 && !sameString && (isWide(last) || isWide(c)))
      onsetOf.set(c, last)
    else {
      onsets.push(c)
      onsetOf.set(c, c)
    }
  }
  const first = onsets[0] ?? from
  const lead = Math.min(first - from, 2)
  const width = Math.max(1, to - from - lead)
  const at = (c: number) => ((c - from - lead) / width) * length
  const grid =
    GRIDS.find((g) => onsets.every((c, i) => i === 0 || stepOf(at(c), g) > stepOf(at(onsets[i - 1]!), g))) ??
    GRIDS.at(-1)!
  let last = -grid
  const columns = onsets.map((c): [number, Ticks] => {
    const tick = Math.min(
      Math.max(stepOf(at(c), grid) * grid, last + grid),
      Math.max(length - grid, last + grid),
    )
    last = tick
    return [c, tick]
  })
  const tickOf = new Map(columns)
  const end = columns.at(-1)?.[1] ?? 0
  return {
    length: Math.max(length, end + grid),
    signs: tokens.map((t) => ({ ...t, tick: knownIn(tickOf, knownIn(onsetOf, t.column)) })),
    columns,
  }
}

const stepOf = (tick: number, grid: Ticks) => Math.round(tick / grid)

/**
 * The chord names of one measure. A name over a bar line belongs to the measure that begins there; names before the first
 * measure to the first, names behind the last one to the last.
 * @param loose a measure's first name that stands no later than this is meant for its beginning: where no rhythm is written
 * names are seldom set with care
 */
function chordsIn(
  line: string,
  bars: readonly Bar[],
  at: number,
  { columns, length }: Timed,
  loose: Ticks,
): ReadMeasure['chords'] {
  const { from } = bars[at]!
  const next = bars[at + 1]
  return [...line.matchAll(/\S+/g)]
    .flatMap((m) => {
      const column = m.index
      if ((at > 0 && column < from - 1) || (next && column >= next.from - 1)) return []
      // The nearest onset; between two the earlier one: names are seldom set with care.
      const near = columns.reduce<(typeof columns)[number] | undefined>(
        (best, c) => (!best || Math.abs(c[0] - column) < Math.abs(best[0] - column) ? c : best),
        undefined,
      )
      const tick = Math.min(near?.[1] ?? 0, length - 1)
      return [{ tick, symbol: m[0] }]
    })
    .map((chord, i) => (i === 0 && chord.tick < loose ? { ...chord, tick: 0 } : chord))
}
