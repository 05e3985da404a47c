import { readFileSync } from 'node:fs'
import { readAbc } from '../../src/input/abc/readAbc.ts'
import { guitarSetup } from '../../src/instrument/index.ts'
import { arranging, wholeTune } from '../../src/arrange/index.ts'
import { audit } from '../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../src/output/index.ts'
import { finish } from '../../src/turns.ts'
import type { Level, Style, TuneDoc } from '../../src/document/index.ts'
import type { AuditReport } from '../../src/audit/index.ts'
import type { TabJson } from '../../src/output/index.ts'
import type { Arranged } from '../../src/arrange/whole/arrange.ts'

export const CORPUS_TEXT = readFileSync(new URL('../corpus/traditional.abc', import.meta.url), 'utf8')

export const CORPUS: readonly TuneDoc[] = readAbc(CORPUS_TEXT, () => 'tune').map((r) => r.tune!)

/** Reads one tune from ABC; fails loudly where there is none. */
export function tuneOf(abc: string): TuneDoc {
  const tune = readAbc(abc, () => 'tune')[0]?.tune
  if (!tune) throw new Error(`no tune in ${abc}`)
  return tune
}

/** A tune from its music line alone. */
export function tuneOfMusic(music: string, head = 'M:4/4\nL:1/4\nQ:1/4=100\nK:C'): TuneDoc {
  return tuneOf(`X:1\nT:Test\n${head}\n${music}\n`)
}

export interface Outcome extends Arranged {
  readonly json: TabJson
  readonly report: AuditReport
}

/** What was arranged before: many tests look at the same page, and none changes it. */
const pages = new WeakMap<TuneDoc, Map<string, Outcome>>()

/** Arranges a whole tune on the usual guitar; the same tune in the same way is arranged once. */
export function arrangeTune(tune: TuneDoc, style: Style, level: Level, capo = 0): Outcome {
  const known = pages.get(tune) ?? new Map<string, Outcome>()
  pages.set(tune, known)
  const way = `${style} ${level} ${capo}`
  const page = known.get(way) ?? arrangedAnew(tune, style, level, capo)
  known.set(way, page)
  return page
}

function arrangedAnew(tune: TuneDoc, style: Style, level: Level, capo: number): Outcome {
  const setup = guitarSetup(capo)
  const arranged = finish(arranging(tune, setup, wholeTune(tune, style, level)))
  const json = tabJson(tune, setup, arranged.plan, arranged.layer, [], 0)
  return { ...arranged, json, report: audit(finishedTabOf(json)) }
}
