import { isSongAlone } from '@velvet-porch/core/document'
import { usualHandout, type HandoutDoc } from '@velvet-porch/core/output/handout'
import { db } from './db.ts'
import { currentPrefs } from './prefs.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'
import { mayWrite } from './writeLock.ts'

/** The handout of a tune; the usual one, in the teacher's own way, where none is kept or it can no longer be read. */
export function useHandout(tuneId: string): HandoutDoc | undefined {
  return useStored(async () => {
    const tune = await db.tunes.get(tuneId)
    const first = {
      ...usualHandout(tuneId, tune !== undefined && isSongAlone(tune)),
      settings: currentPrefs().lesson,
    }
    const kept = await db.handouts.get(tuneId)
    if (!kept) return first
    const { readHandout } = await import('@velvet-porch/core/schema')
    try {
      return readHandout(kept)
    } catch {
      return first
    }
  }, [tuneId])
}

/** Keeps a handout after its check against the schema. @throws SchemaError */
export async function keepHandout(handout: HandoutDoc): Promise<void> {
  const { readHandout } = await import('@velvet-porch/core/schema')
  const read = readHandout(handout)
  if (mayWrite(read.id)) await storing(() => db.handouts.put(read))
}
