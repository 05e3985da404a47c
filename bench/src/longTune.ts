import { setFlagsFromString } from 'node:v8'
import { runInNewContext } from 'node:vm'
import { DEFAULT_PLAYER, guitarSetup } from '@velvet-porch/core/instrument'
import { arranging, wholeTune } from '@velvet-porch/core/arrange'
import { textTab } from '@velvet-porch/core/output'
import { readingTextTab, scoringTab } from '@velvet-porch/core/input'
import type { Turns } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'
import { benchTune } from './engine.ts'
import type { Figure } from './figure.ts'

/** The longest tune that a teacher is thought to bring. */
const MEASURES = 2000
/** Longest time without giving the turn back, and the most memory. */
const MOST_MS = 50
const MOST_MB = 500

interface Run<T> {
  readonly result: T
  readonly ms: number
  readonly longestMs: number
}

/** Runs that are looked at, after one in which the program itself is still being compiled. */
const RUNS = 5

/** Runs work in turns and looks how long each takes. */
function watched<T>(run: Turns<T>): Run<T> {
  const started = performance.now()
  let [last, longestMs] = [started, 0]
  for (let item = run.next(); ; item = run.next()) {
    const now = performance.now()
    longestMs = Math.max(longestMs, now - last)
    last = now
    if (item.done) return { result: item.value, ms: now - started, longestMs }
  }
}

/** The least of several runs, and their median: what another program on the machine takes is in some of them, not in all. */
function warm<T>(begin: () => Turns<T>): Run<T> & { readonly medianMs: number } {
  watched(begin())
  const longest = Array.from({ length: RUNS }, () => watched(begin()).longestMs).sort((a, b) => a - b)
  return { ...watched(begin()), longestMs: longest[0]!, medianMs: longest[RUNS >> 1]! }
}

/** Has the engine drop what nobody holds any more: what is left is what the work keeps. */
function collectGarbage(): void {
  setFlagsFromString('--expose-gc')
  ;(runInNewContext('gc') as () => void)()
}

/** How a tune of two thousand measures is arranged, printed and read back. */
export function longFigures(): Figure[] {
  const tune = readAbc(benchTune(MEASURES), () => 'long')[0]!.tune!
  const setup = guitarSetup()
  const regions = wholeTune(tune, 'alternating-bass', 3)
  const arranged = warm(() => arranging(tune, setup, regions))
  const { layer, plan } = arranged.result
  const text = textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony })
  const read = warm(() => readingTextTab(text))
  const scored = warm(() => scoringTab(read.result, 'tab', DEFAULT_PLAYER, 'Long'))
  collectGarbage()
  const heap = process.memoryUsage().heapUsed / 1_000_000
  const figure = (name: string, { ms, longestMs, medianMs }: ReturnType<typeof warm>): Figure => ({
    name: `${MEASURES} measures, ${name}: longest time without giving the turn back`,
    value: `${longestMs.toFixed(0)} ms (median of ${RUNS} runs ${medianMs.toFixed(0)} ms; ${(ms / 1000).toFixed(1)} s in all)`,
    aim: `at most ${MOST_MS} ms`,
    met: longestMs <= MOST_MS,
  })
  return [
    figure('arranged, alternating bass, level 3', arranged),
    figure('text tab read', read),
    figure('text tab fingered', scored),
    {
      name: `heap that is held after all of this`,
      value: `${heap.toFixed(0)} MB`,
      aim: `under ${MOST_MB} MB`,
      met: heap < MOST_MB,
    },
  ]
}
