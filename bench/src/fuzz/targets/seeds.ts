import { readFileSync } from 'node:fs'
import { guitarSetup, setupOf } from '@velvet-porch/core/instrument'
import type { ArrangementDoc, Style, TuneDoc } from '@velvet-porch/core/document'
import { arranging, arrangementOf, wholeTune } from '@velvet-porch/core/arrange'
import { tabJson, textTab, type TabJson } from '@velvet-porch/core/output'
import { finish } from '@velvet-porch/core/turns'
import { readAbc } from '@velvet-porch/core/input/abc'

const text = (path: string) => readFileSync(new URL(`../../../../${path}`, import.meta.url), 'utf8')

/** Tunes as text, one each: the demo and the traditional ones of the tests. */
export const ABC_SEEDS: readonly string[] = [text('demo/tunes.abc'), text('core/test/corpus/traditional.abc')]
  .flatMap((book) => book.split(/^(?=X:)/m))
  .filter((t) => t.startsWith('X:'))
  .map((t) => t.trim() + '\n')

/** A short tune with its tab in every form that it is kept or sent in. */
export interface ArrangedSeed {
  readonly tune: TuneDoc
  readonly arrangement: ArrangementDoc
  readonly json: TabJson
  readonly text: string
}

/** Eight measures of a tune: enough of everything, and quick to read. */
const shortened = (abc: string): string => {
  const lines = abc.split('\n')
  const music = lines.findIndex((l) => l.startsWith('K:')) + 1
  return lines.slice(0, music + 3).join('\n') + '\n'
}

const STYLES: readonly Style[] = [
  'alternating-bass',
  'cross-string',
  'picking',
  'chord-melody',
  'strum',
  'double-stops',
  'bass-tune',
]

let arranged: readonly ArrangedSeed[] | undefined

/** Arranged once, when first asked for. */
export function arrangedSeeds(): readonly ArrangedSeed[] {
  arranged ??= STYLES.map((style, i): ArrangedSeed => {
    const tune = readAbc(shortened(ABC_SEEDS[i * 2]!), () => `tune${i}`)[0]!.tune!
    const setup = i === 5 ? setupOf('mandolin') : guitarSetup(i === 1 ? 2 : 0)
    const regions = wholeTune(tune, style, 3)
    const { layer, plan } = finish(arranging(tune, setup, regions))
    return {
      tune,
      arrangement: arrangementOf(`tune${i}.a`, tune.title, tune, setup, regions, {
        layer,
        transposed: plan.transposed,
      }),
      json: tabJson(tune, setup, plan, layer, [], 0),
      text: textTab({ tune, timeline: plan.timeline, setup, layer, harmony: plan.harmony }),
    }
  })
  return arranged
}
