import { readFileSync, writeFileSync } from 'node:fs'
import {
  LEVELS,
  SOLO_STYLES,
  STYLES,
  type Level,
  type Style,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { betterKey, makePlan, newMemory, refusalOf, wholeTune } from '@velvet-porch/core/arrange'
import { guitarSetup, setupOf } from '@velvet-porch/core/instrument'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangeFor } from '../corpus/measure.ts'
import { traditionalTunes } from '../corpus/tunes.ts'
import * as heard from './heard.ts'
import { NONE, pageOf, plus, share, type Page, type Share } from './page.ts'

const read = (path: string) =>
  readAbc(readFileSync(new URL(path, import.meta.url), 'utf8'), () => 'tune').flatMap((r) =>
    r.tune ? [r.tune] : [],
  )

const only = process.argv[2]?.split(',')
const tunes = [...read('../../../demo/tunes.abc'), ...traditionalTunes(), ...read('./tunes.abc')].filter(
  (t) => t.chords.length > 0,
)
const setup = guitarSetup()
const memory = newMemory()
const styles = STYLES.filter((s) => s !== 'bottleneck' && (!only || only.includes(s)))
const pages = new Map<string, Page>()
const key = (tune: TuneDoc, style: Style, level: Level) => `${tune.title}|${style}|${level}`
for (const style of styles)
  for (const level of LEVELS) {
    if (refusalOf(style, level, setup.instrument)) continue
    for (const tune of tunes) {
      try {
        pages.set(
          key(tune, style, level),
          pageOf(arrangeFor(tune, setup, wholeTune(tune, style, level), memory).json),
        )
      } catch (e) {
        process.stderr.write(`${key(tune, style, level)}: ${String(e)}\n`)
      }
    }
    memory.sets.clear()
  }

const sum = (style: Style, level: Level, of: (p: Page) => Share): Share =>
  tunes.reduce((s, t) => {
    const page = pages.get(key(t, style, level))
    return page ? plus(s, of(page)) : s
  }, NONE)
const percent = ({ hits, of }: Share) => (of === 0 ? '—' : `${((100 * hits) / of).toFixed(1)}`)
const lines: string[] = []
const row = (name: string, wanted: string, style: Style, level: Level, of: (p: Page) => Share) => {
  if (styles.includes(style))
    lines.push(`| ${name} | ${style} ${level} | ${wanted} | ${percent(sum(style, level, of))} |`)
}
/** Tunes that lie where style and level want them, or for which a better key is proposed. */
const settledRow = (name: string, style: Style, level: Level, of: (p: Page) => Share, least: number) => {
  if (!styles.includes(style) || refusalOf(style, level, setup.instrument)) return
  const settled = share(
    tunes.flatMap((tune) => {
      const page = pages.get(key(tune, style, level))
      if (!page) return []
      const made = makePlan(tune, setup, wholeTune(tune, style, level))
      const { hits, of: all } = of(page)
      return [hits >= least * all || (made.ok && betterKey(tune, setup, made.plan) !== undefined)]
    }),
  )
  lines.push(`| ${name}, or a better key is proposed | ${style} ${level} | 100 | ${percent(settled)} |`)
}
row('a fill repeats the one before', '≤ 15', 'arpeggio', 3, heard.repeatedFills)
for (const style of ['melody-bass', 'alternating-bass', 'arpeggio'] as const)
  for (const level of [3, 5] as const) {
    row('one fill three times running', '≤ 1', style, level, heard.hammeredFills)
    row('one tone in three octaves', '≤ 1', style, level, heard.bareOctaves)
  }
row('measures on three strings or fewer', '≤ 10', 'arpeggio', 3, heard.thinMeasures)
row('four and more onsets by the thumb alone', '≤ 2', 'arpeggio', 3, heard.thumbRuns)
for (const style of STYLES)
  for (const level of [3, 5] as const)
    row('ends on root and chord', '≥ 95', style, level, (p) => heard.ending(p, level === 3 ? 3 : 4))
for (const level of [2, 3, 4, 5] as const) {
  row('bass under changes', '≥ 97', 'chord-melody', level, heard.bassUnderChanges)
  row('changes of two notes', '≤ 3', 'chord-melody', level, heard.thinChanges)
}
for (const style of ['melody-bass', 'alternating-bass', 'arpeggio', 'chord-melody'] as const)
  for (const level of [1, 3, 5] as const)
    row('bass roots at fret 5 and above', '≤ 15', style, level, heard.highRoots)
for (const style of ['melody-bass', 'alternating-bass', 'arpeggio', 'chord-melody'] as const)
  for (const level of [1, 3, 5] as const)
    row('the same where a low root was in reach', '≤ 15', style, level, heard.highRootsNeedlessly)
for (const style of ['melody-bass', 'alternating-bass', 'arpeggio', 'picking', 'strum'] as const)
  row("the book's fingers", '≥ 95', style, 1, heard.bookFingers)
for (const style of SOLO_STYLES) row('below fret 5', '100', style, 1, heard.belowFifthFret)
for (const style of SOLO_STYLES) settledRow('tunes below fret 5', style, 1, heard.belowFifthFret, 1)
for (const style of ['chord-melody', 'arpeggio'] as const)
  for (const level of [3, 5] as const)
    row('melody on strings 1 and 2', '≥ 90', style, level, heard.melodyOnTop)
for (const style of ['chord-melody', 'arpeggio'] as const)
  for (const level of [3, 5] as const)
    row('melody on strings 1 and 2 where they have it', '≥ 90', style, level, heard.melodyOnTopWhereItCan)
for (const style of ['chord-melody', 'arpeggio'] as const)
  for (const level of [3, 5] as const)
    settledRow('tunes with nine notes in ten on strings 1 and 2', style, level, heard.melodyOnTop, 0.9)
row('melody notes as blocks of four', '≤ 40', 'chord-melody', 5, heard.fullBlocks)
for (const level of [3, 5] as const) {
  row('lower voices kept under one chord', '≥ 80', 'chord-melody', level, heard.lowerVoicesKept)
  row('sevenths and suspensions led', '≥ 80', 'chord-melody', level, heard.tonesLed)
  row('dissonances with their resolution under them', '≤ 10', 'chord-melody', level, heard.resolvedEarly)
}
for (const style of ['melody-bass', 'alternating-bass', 'picking', 'bass-brush'] as const)
  for (const level of [4, 5] as const) row('basses that pass', '5 to 15', style, level, heard.passingBasses)
for (const style of ['picking', 'strum', 'bass-brush'] as const)
  row('lone basses', '≤ 5', style, 5, heard.loneBasses)
for (const style of [
  'melody-bass',
  'alternating-bass',
  'arpeggio',
  'cross-string',
  'flatpicked-lead',
] as const)
  for (const level of [4, 5] as const) row('slurs of the melody', '≥ 8', style, level, heard.slurred)
for (const style of ['melody-bass', 'alternating-bass', 'arpeggio'] as const)
  for (const level of [3, 5] as const) {
    row('measures with a finger put back', '≤ 2', style, level, heard.putBack)
    row('fingers that land for nothing', '0', style, level, heard.idleLandings)
  }
for (const level of [3, 5] as const)
  styles.forEach((a, i) =>
    styles.slice(i + 1).forEach((b) => {
      const s = tunes.reduce((all, t) => {
        const [x, y] = [pages.get(key(t, a, level)), pages.get(key(t, b, level))]
        return x && y ? plus(all, heard.sharedNotes(x, y)) : all
      }, NONE)
      if (s.hits > 0.6 * s.of)
        lines.push(`| notes shared by two styles | ${a}, ${b} ${level} | ≤ 70 | ${percent(s)} |`)
    }),
  )
for (const style of styles)
  for (const level of LEVELS.slice(1)) {
    const same = share(
      tunes.flatMap((t) => {
        const [x, y] = [pages.get(key(t, style, level)), pages.get(key(t, style, (level - 1) as Level))]
        if (!x || !y) return []
        const s = heard.sharedNotes(x, y)
        return [s.hits === s.of]
      }),
    )
    const notes = (l: Level) =>
      tunes.reduce((n, t) => n + (pages.get(key(t, style, l))?.json.notes.length ?? 0), 0)
    const thinner = notes(level) < notes((level - 1) as Level)
    if (same.hits > 0 || thinner)
      lines.push(
        `| level is the one below, or thinner | ${style} ${level} | 0 | ${percent(same)}${thinner ? ', thinner' : ''} |`,
      )
  }
row('double drone', '≥ 80', 'drone', 3, heard.doubleDrone)
row('double drone', '≥ 80', 'drone', 5, heard.doubleDrone)
for (const level of [3, 5] as const)
  row('second voices that leap under a step', '≤ 2', 'double-stops', level, heard.leapingSeconds)
if (!only) {
  const mandolin = setupOf('mandolin', [76, 69, 62, 55], { fret: 0 })
  const heardOn = (style: Style, level: Level, of: (p: Page) => Share) =>
    tunes.reduce(
      (s, t) => plus(s, of(pageOf(arrangeFor(t, mandolin, wholeTune(t, style, level)).json))),
      NONE,
    )
  const onMandolin = (name: string, wanted: string, style: Style, level: Level, of: (p: Page) => Share) =>
    lines.push(
      `| ${name} | mandolin, ${style} ${level} | ${wanted} | ${percent(heardOn(style, level, of))} |`,
    )
  for (const level of [2, 5] as const) {
    onMandolin('chops', '≥ 95', 'strum', level, heard.chops)
    onMandolin('strummed changes over four courses', '≥ 80', 'strum', level, heard.fullStrums)
  }
  for (const level of [3, 5] as const) {
    onMandolin('closed double stops', '≥ 75', 'double-stops', level, heard.closedStops)
    onMandolin('second voices that leap under a step', '≤ 2', 'double-stops', level, heard.leapingSeconds)
    onMandolin('long notes with tremolo', '≥ 80', 'double-stops', level, heard.trembling)
  }
  for (const style of ['chord-melody', 'cross-string', 'double-stops', 'flatpicked-lead'] as const)
    onMandolin('ring and little finger four frets apart', '0', style, 3, heard.wideLastFingers)
}
const table = `| what is heard | style, level | wanted, % | found, % |\n|---|---|---|---|\n${lines.join('\n')}\n`
if (only) process.stdout.write(table)
else
  writeFileSync(
    new URL('../../../docs/ear.md', import.meta.url),
    `# What an ear finds\n\nWritten by \`npm run ear\` (${new Date().toISOString().slice(0, 10)}): ${tunes.length} tunes (demo, traditional and others long out of copyright, from memory), every style, every level, guitar in standard tuning without a capo. Counted from the finished page by code that knows nothing of the arranger (\`bench/src/ear\`).\n\n${table}`,
  )
