import { measureAtTick, playedNotes } from './playedOrder.ts'
import type { FinishedTab } from './finishedTab.ts'
import { STRUCTURAL, type Add, type Finding } from './finding.ts'
import { checkMasking, checkMelody } from './checkMelody.ts'
import { checkPlaces } from './checkPlaces.ts'
import { checkStrings } from './checkStrings.ts'
import { checkHand, checkHops } from './checkFretting.ts'
import { checkPicking } from './checkPicking.ts'
import { checkArticulation } from './checkArticulation.ts'
import { checkRoots } from './checkRoots.ts'

export interface AuditReport {
  readonly structural: number
  readonly findings: readonly Finding[]
  readonly melodyNotes: number
  readonly melodyKept: number
  readonly harmonyChanges: number
  readonly rootsInBass: number
  readonly widestStretchMm: number
}

/** Checks a finished tab against its source, from the page alone, in played order. */
export function audit(tab: FinishedTab): AuditReport {
  const findings: Finding[] = []
  const add: Add = (kind, start, says, value) =>
    findings.push({
      kind,
      measure: measureAtTick(tab, start),
      start,
      says,
      ...(value === undefined ? {} : { value }),
    })
  const melodyKept = checkMelody(tab, add)
  checkPlaces(tab, add)
  const played = playedNotes(tab)
  checkStrings(tab, played, add)
  checkMasking(tab, played, add)
  const widestStretchMm = checkHand(tab, played, add)
  checkHops(played, add)
  checkPicking(
    tab,
    played.filter((p) => p.note.rightFinger !== 'none'),
    add,
  )
  checkArticulation(tab, played, add)
  const roots = checkRoots(tab, played, add)
  const unique = [
    ...new Map(findings.map((f) => [`${f.kind} ${f.start} ${JSON.stringify(f.says)}`, f])).values(),
  ].sort((a, b) => a.start - b.start)
  return {
    structural: unique.filter((f) => STRUCTURAL.has(f.kind)).length,
    findings: unique,
    melodyNotes: tab.source.length,
    melodyKept,
    harmonyChanges: roots.changes,
    rootsInBass: roots.kept,
    widestStretchMm,
  }
}
