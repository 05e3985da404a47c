import type { ArrangementDoc, Score, TuneDoc } from '@velvet-porch/core/document'
import { tidyTab } from '@velvet-porch/core/edit'
import { db } from './db.ts'
import { editScore } from './openScore.ts'
import { arrangementId, versionId } from './shelf.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'
import { useStored } from './useStored.ts'
import { mayWrite } from './writeLock.ts'

/** Versions of a tune's arrangement that were kept by name, by name. They are copies: the bench goes on without them. */
export function useVersions(tuneId: string): readonly ArrangementDoc[] {
  return useStored(() => versionsOf(tuneId), [tuneId]) ?? NONE
}

const NONE: readonly ArrangementDoc[] = []

export async function versionsOf(tuneId: string): Promise<ArrangementDoc[]> {
  const all = await db.arrangements.where('tuneId').equals(tuneId).toArray()
  return all.filter((a) => a.id !== arrangementId(tuneId)).sort((a, b) => a.name.localeCompare(b.name))
}

/** Keeps what stands on the bench under a name; a version of that name gives way to it. */
export async function keepVersion(tuneId: string, name: string): Promise<void> {
  if (!mayWrite(tuneId)) return
  await allWritten()
  await storing(() =>
    db.transaction('rw', db.arrangements, async () => {
      const bench = await db.arrangements.get(arrangementId(tuneId))
      if (!bench) return
      const same = (await versionsOf(tuneId)).find((v) => v.name === name)
      await db.arrangements.put({ ...bench, id: same?.id ?? versionId(tuneId), name })
    }),
  )
}

export async function dropVersion({ id, tuneId }: ArrangementDoc): Promise<void> {
  if (mayWrite(tuneId)) await storing(() => db.arrangements.delete(id))
}

/** Puts a version on the bench, as one step of the tune's history. */
export const takeVersion = (tuneId: string, label: string, version: ArrangementDoc): Promise<boolean> =>
  editScore(
    tuneId,
    label,
    ({ tune, arrangement }): Score | undefined =>
      arrangement && {
        tune,
        arrangement: {
          ...versionOn(tune, version),
          id: arrangement.id,
          name: arrangement.name,
          rev: arrangement.rev,
        },
      },
  )

/** A version as the tune now has its notes: what the tune lost since is gone. */
export const versionOn = (tune: TuneDoc, version: ArrangementDoc): ArrangementDoc => tidyTab(tune, version)
