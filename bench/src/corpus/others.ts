import { namedTunings, setupOf, type Setup } from '@velvet-porch/core/instrument'
import {
  ACCOMPANIMENTS,
  isArrival,
  LEVELS,
  ORNAMENTS,
  SOLO_STYLES,
  type Region,
  type TuneDoc,
} from '@velvet-porch/core/document'
import { versionsByEffort, refusalOf, wholeTune } from '@velvet-porch/core/arrange'
import { finish } from '@velvet-porch/core/turns'
import { lessonDiffers } from './lesson.ts'
import { arrangeFor } from './measure.ts'

/** What is counted of arrangements beyond the plain solo styles. */
export interface OtherCounts {
  arrangements: number
  structural: number
  melodyNotes: number
  melodyKept: number
  harmonyChanges: number
  roots: number
  hops: number
  lessonsWrong: number
  /** Notes that the fretting hand sounds alone, short notes before others, strings pushed up. */
  arrivals: number
  graces: number
  bends: number
}

const NOTHING: OtherCounts = {
  arrangements: 0,
  structural: 0,
  melodyNotes: 0,
  melodyKept: 0,
  harmonyChanges: 0,
  roots: 0,
  hops: 0,
  lessonsWrong: 0,
  arrivals: 0,
  graces: 0,
  bends: 0,
}

function counted(tune: TuneDoc, setup: Setup, regions: readonly Region[]): OtherCounts {
  const { report, layer } = arrangeFor(tune, setup, regions)
  return {
    arrangements: 1,
    structural: report.structural,
    melodyNotes: report.melodyNotes,
    melodyKept: report.melodyKept,
    harmonyChanges: report.harmonyChanges,
    roots: report.rootsInBass,
    hops: report.findings.filter((f) => f.kind === 'hop').length,
    lessonsWrong: lessonDiffers(tune, setup, layer) ? 1 : 0,
    arrivals: layer.notes.filter((n) => isArrival(n.attack)).length,
    graces: layer.notes.reduce((s, n) => s + (n.graces?.length ?? 0), 0),
    bends: layer.notes.filter((n) => n.bend).length,
  }
}

function sum(list: readonly OtherCounts[]): OtherCounts {
  return list.reduce(
    (a, b) =>
      Object.fromEntries(
        Object.keys(a).map((k) => [k, a[k as keyof OtherCounts] + b[k as keyof OtherCounts]]),
      ) as unknown as OtherCounts,
    NOTHING,
  )
}

const tuned = (id: string): Setup =>
  setupOf('guitar', namedTunings('guitar').find((t) => t.id === id)!.tuning)

/** Accompaniments at every level on guitar and mandolin, the bottleneck in open tunings, ornaments by density and style. */
export function otherConditions(tunes: readonly TuneDoc[]): Map<string, OtherCounts> {
  const rows = new Map<string, OtherCounts>()
  for (const style of ACCOMPANIMENTS)
    for (const level of LEVELS)
      rows.set(
        `${style} ${level}`,
        sum(
          [setupOf('guitar'), tuned('openD'), setupOf('mandolin')].flatMap((setup) =>
            refusalOf(style, level, setup.instrument)
              ? []
              : tunes.map((tune) => counted(tune, setup, wholeTune(tune, style, level))),
          ),
        ),
      )
  for (const level of LEVELS)
    rows.set(
      `bottleneck ${level}`,
      sum(
        ['openD', 'openG'].flatMap((id) =>
          tunes.map((tune) => counted(tune, tuned(id), wholeTune(tune, 'bottleneck', level))),
        ),
      ),
    )
  for (const level of LEVELS)
    rows.set(
      `bass-tune ${level}`,
      sum(
        ['standard', 'openD'].flatMap((id) =>
          tunes.map((tune) => counted(tune, tuned(id), wholeTune(tune, 'bass-tune', level))),
        ),
      ),
    )
  for (const style of SOLO_STYLES)
    for (const ornament of ORNAMENTS)
      rows.set(
        `${style} 3, ornaments ${ornament}`,
        sum(
          tunes.map((tune) =>
            counted(
              tune,
              setupOf('guitar'),
              wholeTune(tune, style, 3).map((r) => ({ ...r, ornament })),
            ),
          ),
        ),
      )
  return rows
}

/** What the ladders of some tunes hold. */
export interface LadderCounts {
  ladders: number
  easier: number
  /** Of the easier versions, those that lower the effort and keep every melody note. */
  easierKept: number
  sameNotes: number
}

export function ladders(tunes: readonly TuneDoc[]): LadderCounts {
  const found: LadderCounts = { ladders: 0, easier: 0, easierKept: 0, sameNotes: 0 }
  const setup = setupOf('guitar')
  for (const [i, tune] of tunes.entries()) {
    const style = SOLO_STYLES[i % SOLO_STYLES.length]!
    const range = { from: 0, to: tune.measures.length - 1 }
    const rungs = finish(
      versionsByEffort(
        tune,
        setup,
        wholeTune(tune, style, 4).map((r) => ({ ...r, ornament: 2 as const })),
        [],
        range,
      ),
    )
    const at = rungs.findIndex((r) => r.changes.length === 0)
    const now = rungs[at]!
    const easier = rungs.slice(0, at)
    found.ladders++
    found.easier += easier.length
    found.easierKept += easier.filter(
      (r) => r.effort < now.effort && r.notes.melody === now.notes.melody,
    ).length
    found.sameNotes += easier.filter((r) => r.sameNotes).length
  }
  return found
}
