import type { PackedRecording } from '@velvet-porch/core/formats'
import type { RecordingMark } from '@velvet-porch/core/studio'
import { db, type RecordingRow } from './db.ts'
import { storing } from './storageTrouble.ts'
import { useStored } from './useStored.ts'

/** The recording of a tune that was kept on this device on purpose; null where there is none, undefined until it is known. */
export const useKeptRecording = (tuneId: string): RecordingRow | null | undefined =>
  useStored(async () => (await db.recordings.get(tuneId)) ?? null, [tuneId])

/** Keeps a recording with its marks, in place of an earlier one. */
export const keepRecording = (tuneId: string, file: File, marks: readonly RecordingMark[]) =>
  storing(() => db.recordings.put({ id: tuneId, name: file.name, sound: file, marks }))

/** Keeps the marks of a recording that is kept; of another nothing is written. */
export const keepMarks = (tuneId: string, marks: readonly RecordingMark[]) =>
  storing(() => db.recordings.update(tuneId, { marks }))

export const forgetRecording = (tuneId: string) => storing(() => db.recordings.delete(tuneId))

/** The recordings that are kept, or that of one tune, to be put into a file. */
export async function recordingsToPack(tuneId?: string): Promise<PackedRecording[]> {
  const rows = await (tuneId === undefined
    ? db.recordings.toArray()
    : db.recordings.where({ id: tuneId }).toArray())
  return Promise.all(
    rows.map(async ({ id, name, sound, marks }) => ({
      tune: id,
      name,
      bytes: new Uint8Array(await sound.arrayBuffer()),
      marks,
    })),
  )
}

/** A recording from a file as it is kept. */
export const recordingRow = ({ tune, name, bytes, marks }: PackedRecording): RecordingRow => ({
  id: tune,
  name,
  sound: new File([new Uint8Array(bytes)], name),
  marks,
})
