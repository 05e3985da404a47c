import { bpmAt, tempoMap } from './tempoMap.ts'
import { timelineOf } from './timeline.ts'
import type { Id } from '../ids.ts'
import type { TuneDoc } from '../tune.ts'
import { secondsOf, type Ticks } from '../../music/time/ticks.ts'
import { unfold } from './unfold.ts'

/** A part of the form as it is played: a section, as often as it comes in a row. */
export interface FormPart {
  /** Name of the section; empty before the first one, and where there are none. */
  readonly name: string
  /** Index of its first written measure. */
  readonly measure: number
  readonly times: number
  /** Played time at which it begins. */
  readonly startTick: Ticks
  /** Measures played in it, all times together. */
  readonly measures: number
}

export interface FormMap {
  readonly parts: readonly FormPart[]
  /** Measures played in all. A pickup counts as none. */
  readonly measures: number
  readonly seconds: number
}

/** The form in played order: "intro, verse × 2, chorus", with its length in measures and seconds. */
export function formMap(tune: TuneDoc): FormMap {
  const { order } = unfold(tune.measures)
  const names = sectionOf(tune)
  const tempos = tempoOf(tune)
  const starts = new Set(tune.sections.map((s) => s.measure))
  const parts: (FormPart & { readonly id: number })[] = []
  let seconds = 0
  let counted = 0
  order.forEach(({ measure, startTick }, i) => {
    const m = tune.measures[measure]!
    const { name, id } = names[measure]!
    const whole = measure === 0 && m.length < m.nominal ? 0 : 1
    counted += whole
    seconds += secondsOf(m.length, tempos[measure]!)
    const last = parts.at(-1)
    const jumped = i > 0 && order[i - 1]!.measure + 1 !== measure
    const again = last?.id === id && jumped && measure <= last.measure
    const begins = !last || last.id !== id || (starts.has(m.id) && jumped && !again)
    if (begins) parts.push({ id, name, measure, times: 1, startTick, measures: whole })
    else
      parts[parts.length - 1] = {
        ...last,
        times: last.times + (again ? 1 : 0),
        measures: last.measures + whole,
      }
  })
  return { parts: parts.map(({ id: _, ...p }) => p), measures: counted, seconds }
}

/** The section that each measure stands in, with its number. */
function sectionOf(tune: TuneDoc): { readonly name: string; readonly id: number }[] {
  const byMeasure = new Map<Id, string>(tune.sections.map((s) => [s.measure, s.name]))
  let name = ''
  let id = 0
  return tune.measures.map((m) => {
    const own = byMeasure.get(m.id)
    if (own !== undefined) {
      name = own
      id++
    }
    return { name, id }
  })
}

/** Quarters a minute in each measure; a change inside one counts from the next. */
function tempoOf(tune: TuneDoc): number[] {
  const timeline = timelineOf(tune.measures)
  const tempos = tempoMap(tune, timeline)
  return timeline.starts.map((start) => bpmAt(tempos, start))
}
