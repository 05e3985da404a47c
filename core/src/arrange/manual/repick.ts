import { bpmAt, tempoMap } from '../../document/form/tempoMap.ts'
import type { Timeline } from '../../document/form/timeline.ts'
import type { Region } from '../../document/arrangement.ts'
import { isSolo } from '../../document/style.ts'
import { isArrival, type TabNote } from '../../document/tab.ts'
import type { Id } from '../../document/ids.ts'
import { regionAt } from '../../document/regions.ts'
import { USUAL_SCHOOL } from '../../document/school.ts'
import type { TuneDoc } from '../../document/tune.ts'
import type { PickingSign } from '../../instrument/hand.ts'
import type { Setup } from '../../instrument/setup.ts'
import { assignPicking } from '../../hand/picking/assignPicking.ts'
import { pickedOnset, pickingHand } from '../plan/pickingOf.ts'
import { secondsOf } from '../../music/time/ticks.ts'
import { mapInTurns, type Turns } from '../../turns.ts'

/** Notes that the fretting hand sounds alone take no stroke. */
const isStruck = (n: TabNote) => !isArrival(n.attack) || n.graces !== undefined

/**
 * The picking hand of some measures found anew, under the school of the section that each stands in; signs that were set
 * by hand stay. Accompaniments keep the strokes of their pattern: there a note takes the sign of its onset.
 */
export function* repicking(
  notes: readonly TabNote[],
  timeline: Timeline,
  tune: TuneDoc,
  setup: Setup,
  regions: readonly Region[],
  measures: ReadonlySet<Id>,
  fixed: ReadonlyMap<Id, PickingSign>,
): Turns<TabNote[]> {
  const signs = new Map<Id, PickingSign>()
  const inMeasure = new Map<Id, TabNote[]>()
  for (const n of notes) {
    const own = inMeasure.get(n.pos.measure)
    if (own) own.push(n)
    else inMeasure.set(n.pos.measure, [n])
  }
  yield
  const tempos = tempoMap(tune, timeline)
  for (const [i, measure] of tune.measures.entries()) {
    if (i % 16 === 15) yield
    if (!measures.has(measure.id)) continue
    const region = regions[regionAt(tune, regions, measure.id)] ?? regions[0]!
    const own = inMeasure.get(measure.id) ?? []
    const bpm = bpmAt(tempos, timeline.starts[i]!)
    const struck = own.filter(isStruck)
    for (const n of own) if (!isStruck(n)) signs.set(n.id, 'none')
    if (!isSolo(region.style)) {
      for (const n of struck) if (n.right === 'none') signs.set(n.id, signBeside(n, struck))
      continue
    }
    const school = region.school ?? USUAL_SCHOOL
    const ticks = [...new Set(struck.map((n) => n.pos.tick))].sort((a, b) => a - b)
    const onsets = ticks.map((tick, i) => ({
      notes: struck.filter((n) => n.pos.tick === tick),
      tick,
      seconds: secondsOf(tick - (ticks[i - 1] ?? 0), bpm) || 1,
    }))
    const found = assignPicking(
      onsets.map((o) => pickedOnset(o.notes, measure, o.tick, o.seconds)),
      pickingHand(region.style, school, setup),
    )
    onsets.forEach((o, i) => o.notes.forEach((n, k) => signs.set(n.id, found[i]![k]!)))
  }
  yield
  return yield* mapInTurns(
    notes,
    (n) => {
      const right = fixed.get(n.id) ?? signs.get(n.id) ?? n.right
      return right === n.right ? n : { ...n, right }
    },
    2048,
  )
}

const signBeside = (n: TabNote, struck: readonly TabNote[]): PickingSign =>
  struck.find((o) => o.pos.tick === n.pos.tick && o.right !== 'none')?.right ?? 'p'
