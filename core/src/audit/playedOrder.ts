import { groupBy } from 'es-toolkit'
import { secondsOf, type Ticks } from '../music/time/ticks.ts'
import type { FinishedTab, WrittenNote } from './finishedTab.ts'

/** A written note at one of the times that it is played. */
export interface PlayedNote {
  readonly note: WrittenNote
  readonly at: Ticks
  readonly seconds: number
  /** 1 for the first time that its measure is played. */
  readonly pass: number
}

/** All notes in played order; chords and basses before higher notes at the same time. */
export function playedNotes(tab: FinishedTab): PlayedNote[] {
  const byMeasure = groupBy(tab.notes, (n) => measureAtTick(tab, n.start))
  const passes = new Map<number, number>()
  const played: PlayedNote[] = []
  let at = 0
  let seconds = 0
  for (const m of tab.order) {
    const measure = tab.measures[m]
    if (!measure) continue
    const pass = (passes.get(m) ?? 0) + 1
    passes.set(m, pass)
    const bpm = tempoAt(tab, measure.start)
    const notes = [...(byMeasure[m] ?? [])].sort((a, b) => a.start - b.start || b.string - a.string)
    for (const note of notes) {
      const inside = note.start - measure.start
      played.push({ note, at: at + inside, seconds: seconds + secondsOf(inside, bpm), pass })
    }
    at += measure.length
    seconds += secondsOf(measure.length, bpm)
  }
  return played
}

/** Tempo at a written time, in quarter notes a minute. */
export function tempoAt(tab: FinishedTab, start: Ticks): number {
  let bpm = tab.tempos[0]?.bpm ?? 100
  for (const t of tab.tempos) if (t.start <= start) bpm = t.bpm
  return bpm
}

export function measureAtTick(tab: Pick<FinishedTab, 'measures'>, start: Ticks): number {
  let low = 0
  let high = tab.measures.length - 1
  while (low < high) {
    const mid = (low + high + 1) >> 1
    if (tab.measures[mid]!.start <= start) low = mid
    else high = mid - 1
  }
  return low
}
