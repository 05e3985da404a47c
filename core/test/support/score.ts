import { guitarSetup, type Setup } from '../../src/instrument/index.ts'
import type { Level, Score, Style, TuneDoc } from '../../src/document/index.ts'
import { arrangementOf, arranging, wholeTune } from '../../src/arrange/index.ts'
import { audit, STRUCTURAL, type Finding } from '../../src/audit/index.ts'
import { finishedTabOf, tabJson } from '../../src/output/index.ts'
import { finish } from '../../src/turns.ts'

const known = new WeakMap<TuneDoc, Map<string, Required<Score>>>()

/**
 * A tune with its tab, arranged in one style and level throughout. What one test has had arranged is there for the next one: nothing
 * changes a score.
 */
export function arrangedScore(
  tune: TuneDoc,
  style: Style,
  level: Level,
  setup: Setup = guitarSetup(),
): Required<Score> {
  const key = JSON.stringify([style, level, setup])
  const ofTune = known.get(tune) ?? new Map<string, Required<Score>>()
  known.set(tune, ofTune)
  const score = ofTune.get(key) ?? arrangeScore(tune, style, level, setup)
  ofTune.set(key, score)
  return score
}

function arrangeScore(tune: TuneDoc, style: Style, level: Level, setup: Setup): Required<Score> {
  const regions = wholeTune(tune, style, level)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const made = { layer, transposed: plan.transposed }
  return { tune, arrangement: arrangementOf('a', tune.title, tune, setup, regions, made) }
}

/** Structural findings of the independent audit, from the finished tab alone. */
export function structuralFaults({ tune, arrangement }: Required<Score>): Finding[] {
  const { setup, base, regions } = arrangement
  const { plan } = finish(arranging(tune, setup, regions))
  const report = audit(finishedTabOf(tabJson(tune, setup, plan, base, [], 0)))
  return report.findings.filter((f) => STRUCTURAL.has(f.kind))
}
