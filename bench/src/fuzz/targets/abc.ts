import { sameContent, type TuneDoc } from '@velvet-porch/core/document'
import { writeAbc } from '@velvet-porch/core/output'
import type { Problem } from '@velvet-porch/core/input'
import { readAbc } from '@velvet-porch/core/input/abc'
import { readTuneDoc } from '@velvet-porch/core/schema'
import { abcAsFound } from '../../../../core/src/input/abc/abcAsFound.ts'
import { abcBlocks } from '../../../../core/src/input/abc/abcBlocks.ts'
import { splitBook } from '../../../../core/src/input/abc/splitBook.ts'
import { plainLines } from '../../../../core/src/input/sourceText.ts'
import { lineStarts } from '../../../../core/src/input/lineStarts.ts'
import { mutateText } from '../mutateText.ts'
import { loss, refusal, type Complaint, type FuzzTarget } from '../target.ts'
import { contentOf } from '../../../../core/test/support/tuneContent.ts'
import { ABC_SEEDS } from './seeds.ts'

/** Words of ABC, its corners above all. */
const WORDS = [
  '|:', ':|', '::', '|1', '|2', '[1,3', '|]', '||', '[|]', '&', '(3', '(5:4:5', '(99', '{gf}', '!trill!', '!!', '+fermata+',
  '"C"', '"^text"', '"', '[CEG]', '[', ']', '-', '>', '<<', '/', '//', "c''''''''", 'C,,,,,,,,', '^^F', '__B', 'z8', 'Z4', 'Z200',
  'Z99999', 'X', 'y', '~', '\\', '$', '[K:F]', '[M:3/4]', '[M:0/4]', '[Q:1/4=90]', '[L:/8]', '[K:clef=treble-8]', '[V:2]',
  '\nV:2\n', '\nV:1\n', '\nK:Gm\n', '\nL:/8\n', '\nL:1/0\n', '\nM:C|\n', '\nM:7/8\n', '\nQ:1/4=9999\n', '\nP:B\n', '\nw:la la-la _ *\n',
  '\n%%beginps\n', '\n%%endps\n', '\n%%begintext\n', '\n%%score (1 2)\n', '\n%%MIDI program 2\n', '\nI:linebreak $\n', '\nX:9\nT:x\n',
  '\nT:' + 'long '.repeat(80) + '\n', '\nw:' + 'a'.repeat(600) + '\n', '\nU:T=!trill!\n', '\nm:~n2=n\n', '\n\n', '!D.C.!', '!segno!', 'D.S.',
] // prettier-ignore

/** Notes that stand on one line of music, counted by their letters alone. */
function notesOn(line: string): number {
  return (
    line
      .replace(/(^|[^\\])%.*$/, '$1')
      .replace(/"[^"]*"?/g, '')
      .replace(/![^!\s]*!|\+[^+\s]*\+/g, '')
      .replace(/\{[^}]*\}?/g, '')
      .replace(/\[[A-Za-z]:[^\]]*\]?/g, '')
      .match(/[A-Ga-g]/g) ?? []
  ).length
}

/** Lines on which fewer notes were read than stand there, and about which nothing is said. */
function silentLosses(text: string, tune: TuneDoc, problems: readonly Problem[]): number[] {
  const lines = text.split('\n')
  const starts = lineStarts(lines)
  const read = lines.map(() => 0)
  const spans = new Map(tune.abc!.spans.map((s) => [s.target, s.from]))
  for (const e of tune.events) {
    const from = spans.get(e.id)
    if (from === undefined || !e.pitch) continue
    read[starts.findLastIndex((s) => s <= from)]! += 1 + e.chordTones.length
  }
  const key = lines.findIndex((l) => l.startsWith('K:'))
  const inBlock = (i: number) => blocks.some((b) => i >= b.from && i <= b.to)
  const blocks = abcBlocks(lines)
  const rest =
    problems.find((p) => p.says.code === 'reading.tooManyMeasures' || p.says.code === 'reading.moreProblems')
      ?.line ?? Infinity
  return lines.flatMap((line, i) => {
    if (i <= key || inBlock(i) || i + 1 > rest || /^[\s\\]*([A-Za-z+]:|%)/.test(line) || line.trim() === '')
      return []
    const paragraph = lines.slice(0, i + 1).findLastIndex((l) => l.trim() === '') + 2
    const said = problems.some(
      (p) =>
        p.line === i + 1 ||
        (p.line === paragraph && p.says.code === 'reading.prose') ||
        (p.line === i && /\\\s*$/.test(lines[i - 1] ?? '')),
    )
    return read[i]! < notesOn(line) && !said ? [i + 1] : []
  })
}

/** Text in ABC: read without an exception, taken by storage, without a silent loss, and the same when written and read again. */
export const abcTarget: FuzzTarget<string> = {
  name: 'abc',
  seeds: ABC_SEEDS,
  mutate: (seed, chance) => mutateText(seed, ABC_SEEDS, WORDS, chance),
  read(text) {
    const complaints: Complaint[] = []
    const books = splitBook(abcAsFound(plainLines(text)))
    for (const [i, { tune, problems }] of readAbc(text, () => 'tune').entries()) {
      if (!tune) {
        if (!problems.some((p) => p.severity === 'error')) complaints.push(loss('no tune and no reason'))
        continue
      }
      try {
        readTuneDoc(JSON.parse(JSON.stringify(tune)))
      } catch (error) {
        complaints.push(refusal((error as Error).message))
        continue
      }
      const own = problems.map((p) => ({ ...p, line: p.line - (books[i]?.lineOffset ?? 0) }))
      const lost = silentLosses(books[i]!.text, tune, own)
      if (lost.length > 0) complaints.push(loss(`notes of line ${lost.join(', ')}`))
      const written = writeAbc(tune)
      const again = readAbc(written, () => 'tune')[0]?.tune
      const [before, after] = [heardOf(tune), again && heardOf(again)]
      if (JSON.stringify(before) !== JSON.stringify(after))
        complaints.push(loss(`written ABC reads back otherwise: ${firstDifference(before, after)}`))
    }
    return complaints
  },
}

/** What of a tune is heard and read: not how rests are parted, nor what a bar line looks like. */
function heardOf(tune: TuneDoc) {
  const { title, measures, events, chords, sections, tempos } = contentOf(tune)
  return {
    title,
    measures: measures.map(({ length, metre, key, repeatStart, repeatEnd, endings }) => ({
      length,
      metre,
      key,
      repeatStart,
      repeatEnd,
      endings,
    })),
    notes: asHeard(events.filter((e) => e.pitch)),
    chords,
    sections,
    tempos: tempos.map((t) => t.replace(/[\d.]+$/, (bpm) => Number(bpm).toFixed(1))),
  }
}

/** Notes that are tied are one: a chord or a tempo inside a note parts it in writing. */
function asHeard(events: ReturnType<typeof contentOf>['events']) {
  const heard: typeof events = []
  for (const e of events) {
    const before = heard.at(-1)
    const goesOn = before?.tied && before.voice === e.voice && sameContent(before.pitch, e.pitch)
    if (goesOn) heard[heard.length - 1] = { ...before, ticks: before.ticks + e.ticks, tied: e.tied }
    else heard.push(e)
  }
  return heard
}

function firstDifference(a: unknown, b: unknown, where = ''): string {
  if (typeof a !== 'object' || typeof b !== 'object' || !a || !b)
    return Object.is(a, b) ? '' : `${where}: ${JSON.stringify(a)} became ${JSON.stringify(b)}`
  for (const key of new Set([...Object.keys(a), ...Object.keys(b)])) {
    const found = firstDifference((a as never)[key], (b as never)[key], `${where}.${key}`)
    if (found) return found
  }
  return ''
}
