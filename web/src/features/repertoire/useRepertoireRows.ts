import { isFresh, timelineOf, type ArrangementDoc } from '@velvet-porch/core/document'
import { effortOf } from '@velvet-porch/core/hand'
import type { Setup } from '@velvet-porch/core/instrument'
import { freshEntry, type RepertoireEntry } from '@velvet-porch/core/studio'
import { meanBy } from 'es-toolkit'
import { useMemo } from 'react'
import { db, type ShelfRow } from '../../state/db.ts'
import { arrangementId } from '../../state/shelf.ts'
import { useAssignments, useRepertoire, useStudents } from '../../state/studio.ts'
import { useShelf } from '../../state/useShelf.ts'
import { useStored } from '../../state/useStored.ts'
import { useOneByOne } from '../../ui/useOneByOne.ts'

/** A tune of the repertoire as it is listed. */
export interface RepertoireRow {
  readonly tune: ShelfRow
  readonly entry: RepertoireEntry
  /** How the tab on the bench is set up; absent where there is none. */
  readonly setup?: Setup
  /** Mean effort of its measures, as the bench reckons it; absent until it is known. */
  readonly effort?: number
  /** Kept versions by name. */
  readonly versions: readonly string[]
  /** Who has it or learns it. */
  readonly who: readonly string[]
}

const NO_ARRANGEMENTS: readonly ArrangementDoc[] = []

/** Every tune on the shelf with what is kept of it. */
export function useRepertoireRows(): readonly RepertoireRow[] {
  const shelf = useShelf()
  const entries = useRepertoire()
  const assignments = useAssignments()
  const students = useStudents()
  const arrangements = useStored(() => db.arrangements.toArray()) ?? NO_ARRANGEMENTS
  const efforts = useEfforts(arrangements)
  return useMemo(
    () =>
      shelf.map((tune): RepertoireRow => {
        const own = arrangements.filter((a) => a.tuneId === tune.id)
        const bench = own.find((a) => a.id === arrangementId(tune.id))
        const effort = bench && efforts.get(bench.id)
        return {
          tune,
          entry: entries.find((e) => e.id === tune.id) ?? freshEntry(tune.id),
          ...(bench ? { setup: bench.setup } : {}),
          ...(effort === undefined ? {} : { effort }),
          versions: own.filter((a) => a !== bench).map((a) => a.name),
          who: students
            .filter((s) => assignments.some((a) => a.tuneId === tune.id && a.studentId === s.hand.id))
            .map((s) => s.hand.name),
        }
      }),
    [shelf, entries, assignments, students, arrangements, efforts],
  )
}

/** The mean effort of each tab that is an answer to its tune. */
function useEfforts(arrangements: readonly ArrangementDoc[]): ReadonlyMap<string, number> {
  const found = useOneByOne(arrangements, meanEffort)
  return useMemo(() => new Map(found?.flatMap((one) => (one ? [one] : []))), [found])
}

async function meanEffort(doc: ArrangementDoc): Promise<readonly [string, number] | undefined> {
  const tune = await db.tunes.get(doc.tuneId)
  if (!tune || !isFresh(tune, doc)) return undefined
  const measures = effortOf(tune, doc.setup, doc.base, timelineOf(tune.measures))
  return measures.length === 0 ? undefined : [doc.id, meanBy(measures, (m) => m.effort)]
}
