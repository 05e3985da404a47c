import { tidyTab, type ArrangementDoc, type Score, type TuneDoc } from '@velvet-porch/core'
import { useLiveQuery } from 'dexie-react-hooks'
import { db } from './db.ts'
import { editScore } from './openScore.ts'
import { arrangementId, versionId } from './shelf.ts'
import { allWritten } from './unwritten.ts'

/** Versions of a tune's arrangement that were kept by name, by name. They are copies: the bench goes on without them. */
export function useVersions(tuneId: string): readonly ArrangementDoc[] {
  return useLiveQuery(() => versionsOf(tuneId), [tuneId]) ?? NONE
}

const NONE: readonly ArrangementDoc[] = []

export async function versionsOf(tuneId: string): Promise<ArrangementDoc[]> {
  const all = await db.arrangements.where('tuneId').equals(tuneId).toArray()
  return all.filter((a) => a.id !== arrangementId(tuneId)).sort((a, b) => a.name.localeCompare(b.name))
}

/** Keeps what stands on the bench under a name; a version of that name gives way to it. */
export async function keepVersion(tuneId: string, name: string): Promise<void> {
  await allWritten()
  await db.transaction('rw', db.arrangements, async () => {
    const bench = await db.arrangements.get(arrangementId(tuneId))
    if (!bench) return
    const same = (await versionsOf(tuneId)).find((v) => v.name === name)
    await db.arrangements.put({ ...bench, id: same?.id ?? versionId(tuneId), name })
  })
}

export const dropVersion = (id: string): Promise<void> => db.arrangements.delete(id)

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
