// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- the core's types of a package without its own
/// <reference path="../../core/src/input/abc/abcjs.d.ts" />
import book from 'abcjs/src/api/abc_tunebook.js'
import { guitarSetup, pitchAt, placesOf } from '@velvet-porch/core/instrument'
import { ACCOMPANIMENTS, SOLO_STYLES, type Level, type Lock, type Style } from '@velvet-porch/core/document'
import { effortOf } from '@velvet-porch/core/hand'
import { alternativesFor, ArrangeError, arranging, newMemory, wholeTune } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { InstrumentVoice, scoreOf } from '@velvet-porch/core/output/sound'
import { againstPlainTab } from './baseline.ts'
import { calibrate, median, timed } from './calibration.ts'
import type { Figure } from './figure.ts'

const BARS = [
  '"C"ceGc dcBA',
  '"F"fedc "G7"BAGF',
  '"Am"ABce aged',
  '"Dm"fdAF "G7"G2B2',
  '"C"cdef gfed',
  '"F"a2f2 c2A2',
  '"G7"gfed cBAG',
  '"C"c2e2 c4',
]

/** A tune of n measures, almost all eighths, no two lines alike. */
export function benchTune(n: number): string {
  const bars = Array.from(
    { length: n },
    (_, i) => `${BARS[(i * 3 + Math.floor(i / 8)) % 8]}|${i % 4 === 3 ? '\n' : ''}`,
  )
  return `X:1\nT:Bench\nM:4/4\nL:1/8\nQ:1/4=100\nK:C\n${bars.join('')}\n`
}

const WARM_MS = 1500

/** The least time of some runs, which is the program's own where others share the machine; and their median. */
interface Spent {
  readonly least: number
  readonly median: number
}

function arrangeMs(measures: number, style: Style, level: Level, runs: number): Spent {
  const tune = readAbc(benchTune(measures), () => 'tune')[0]!.tune!
  const once = () => finish(arranging(tune, guitarSetup(), wholeTune(tune, style, level)))
  // Warm: the code is compiled before it is timed, which takes short work many runs.
  for (let spent = 0, i = 0; i < 4 || spent < WARM_MS; i++) spent += timed(once)
  const all = Array.from({ length: runs }, () => timed(once))
  return { least: Math.min(...all), median: median(all) }
}

/** Figures of the core in one thread, warm, candidate caches cold in every run; judged by the least of the runs. */
export function engineFigures(): Figure[] {
  const unit = calibrate()
  const abc = benchTune(32)
  for (let i = 0; i < 10; i++) book.parseOnly(abc)
  const parsing = median(Array.from({ length: 15 }, () => timed(() => book.parseOnly(abc))))
  const simple = arrangeMs(32, 'melody-bass', 2, 25)
  const full = arrangeMs(32, 'alternating-bass', 3, 11)
  const fullest = SOLO_STYLES.map((style) => ({ style, spent: arrangeMs(32, style, 5, 9) }))
  const backing = ACCOMPANIMENTS.map((style) => ({ style, spent: arrangeMs(32, style, 5, 9) }))
  const long = arrangeMs(512, 'melody-bass', 2, 5)
  const longFull = arrangeMs(512, 'alternating-bass', 5, 3)
  const longFullBase = fullest.find((f) => f.style === 'alternating-bass')!.spent
  const ms = (n: number) => `${n.toFixed(1)} ms`
  const row = (name: string, spent: Spent, limit: number, more = ''): Figure => ({
    name,
    value: `${ms(spent.least)} (median ${ms(spent.median)}), ${(spent.least / unit).toFixed(1)} × the loop${more}`,
    aim: `under ${limit} ms`,
    met: spent.least < limit,
  })
  const parsed = `, ${(simple.least / parsing).toFixed(1)} × parsing the same text`
  const figures: Figure[] = [
    { name: 'calibration loop', value: ms(unit), aim: '—', met: true },
    row('32 measures, melody and bass, level 2', simple, 60, parsed),
    row('32 measures, alternating bass, level 3', full, 500),
    ...[...fullest, ...backing].map(({ style, spent }) => row(`32 measures, ${style}, level 5`, spent, 500)),
    {
      name: '512 against 16 × 32 measures, melody and bass',
      value: `${(long.median / (16 * simple.median)).toFixed(2)} (medians, ${ms(long.median)})`,
      aim: 'at most 1.2',
      met: long.median <= 1.2 * 16 * simple.median,
    },
    {
      name: '512 against 16 × 32 measures, level 5',
      value: `${(longFull.median / (16 * longFullBase.median)).toFixed(2)} (medians, ${ms(longFull.median)})`,
      aim: 'at most 1.2',
      met: longFull.median <= 1.2 * 16 * longFullBase.median,
    },
    ...afterwards(unit),
    memoryFigure(),
    plainTabFigure(),
  ]
  return [...figures, ...soundFigures()]
}

/** What is asked of an arrangement that stands: other ways, one lock more. */
function afterwards(unit: number): Figure[] {
  const tune = readAbc(benchTune(32), () => 'tune')[0]!.tune!
  const setup = guitarSetup()
  const regions = wholeTune(tune, 'alternating-bass', 5)
  const memory = newMemory()
  const { plan, solution, layer } = finish(arranging(tune, setup, regions, { memory }))
  const ways = Array.from({ length: 12 }, (_, i) => {
    const target = { from: plan.firstSlice[i * 2 + 3]!, to: plan.firstSlice[i * 2 + 4]! }
    return timed(() => alternativesFor(tune, setup, plan, solution, target))
  })
  const melody = layer.notes.filter((n) => n.role === 'melody')
  const locked = Array.from({ length: 12 }, (_, i) => {
    const note = melody[i * 9 + 5]!
    const other = placesOf(setup, pitchAt(setup, note.place)).find((p) => p.string !== note.place.string)
    const place = other ?? note.place
    const locks: Lock[] = [{ id: 'l', target: note.id, field: 'place', value: place }]
    return timed(() => {
      try {
        finish(arranging(tune, setup, regions, { memory, locks }))
      } catch (error) {
        if (!(error instanceof ArrangeError)) throw error
      }
    })
  })
  const text = (all: readonly number[]) =>
    `${median(all).toFixed(0)} ms, at most ${Math.max(...all).toFixed(0)} ms, ${(median(all) / unit).toFixed(1)} × the loop`
  return [
    {
      name: 'other ways for a measure, level 5',
      value: text(ways),
      aim: 'under 150 ms',
      met: median(ways) < 150,
    },
    {
      name: 'again after one more lock, 32 measures, level 5',
      value: text(locked),
      aim: 'under 200 ms',
      met: median(locked) < 200,
    },
  ]
}

/** Heap that one long arrangement takes, candidates and traces included. */
function memoryFigure(): Figure {
  const tune = readAbc(benchTune(512), () => 'tune')[0]!.tune!
  const before = process.memoryUsage().heapUsed
  const memory = newMemory()
  let most = 0
  const run = arranging(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', 5), { memory })
  let step = run.next()
  for (let n = 0; !step.done; n++, step = run.next())
    if (n % 40 === 0) most = Math.max(most, process.memoryUsage().heapUsed - before)
  const mb = Math.max(most, process.memoryUsage().heapUsed - before) / 1_048_576
  return {
    name: 'heap for 512 measures, level 5',
    value: `${mb.toFixed(0)} MB`,
    aim: 'under 300 MB',
    met: mb < 300,
  }
}

function plainTabFigure(): Figure {
  const { ours, plain } = againstPlainTab()
  return {
    name: 'against the notation library’s plain tab, same notes of the whole corpus',
    value: `way of the hand ${(ours.mm / plain.mm).toFixed(2)} ×; notes struck over before their time ${ours.cuts} against ${plain.cuts}`,
    aim: 'fewer cuts, no longer way',
    met: ours.cuts < plain.cuts && ours.mm <= plain.mm,
  }
}

function soundFigures(): Figure[] {
  const tune = readAbc(benchTune(24), () => 'tune')[0]!.tune!
  const { layer, plan } = finish(arranging(tune, guitarSetup(), wholeTune(tune, 'alternating-bass', 3)))
  const voice = new InstrumentVoice(48_000)
  voice.sequencer.load(scoreOf(tune, guitarSetup(), layer, plan.timeline, plan.unfolded))
  voice.sequencer.play(0, false)
  const block = new Float32Array(128)
  let frames = 0
  const spent = timed(() => {
    while (voice.sequencer.playing) {
      voice.render(block)
      frames += 128
    }
  })
  const times = frames / 48 / spent
  const effort = timed(() => effortOf(tune, guitarSetup(), layer, plan.timeline))
  return [
    {
      name: 'six strings sounding, against real time',
      value: `${times.toFixed(0)} × faster`,
      aim: 'over 20 ×',
      met: times > 20,
    },
    { name: 'effort of 24 measures', value: `${effort.toFixed(2)} ms`, aim: 'under 10 ms', met: effort < 10 },
  ]
}
