import { db } from './db.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'
import { mayWrite } from './writeLock.ts'

const NO_NOTES: Readonly<Record<string, string>> = {}

/** The teacher's words to the pieces of a tune, by piece. */
export const usePieceNotes = (tuneId: string): Readonly<Record<string, string>> =>
  useStored(async () => (await db.teaching.get(tuneId))?.notes, [tuneId]) ?? NO_NOTES

/** Keeps the words to one piece; none take them off. */
export async function keepPieceNote(tuneId: string, piece: string, text: string): Promise<void> {
  if (!mayWrite(tuneId)) return
  await storing(() =>
    db.transaction('rw', db.teaching, async () => {
      const { [piece]: _, ...others } = (await db.teaching.get(tuneId))?.notes ?? {}
      await db.teaching.put({ id: tuneId, notes: text.trim() === '' ? others : { ...others, [piece]: text } })
    }),
  )
}
