import type { TabNote } from '@velvet-porch/core'
import type { Writing } from './useWriting.ts'

/** The same pitch on the neighbouring string; the cursor goes along. */
export async function restring(note: TabNote, by: 1 | -1, { run, cell, setCell }: Writing): Promise<void> {
  const string = note.place.string + by
  if ((await run({ do: 'restring', note: note.id, string })) && cell) setCell({ ...cell, string })
}
