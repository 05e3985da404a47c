import type { Habit, TasteInForce, TasteShape, TuneDoc } from '@velvet-porch/core/document'
import {
  habitsInForce,
  tasteInForce,
  withComparisons,
  newTaste,
  type Comparison,
  type TasteDoc,
} from '@velvet-porch/core/taste'
import { useMemo } from 'react'
import { newId } from '../newId.ts'
import { db } from './db.ts'
import { currentPrefs, setPrefs, usePrefs } from './prefs.ts'
import { storing } from './storageTrouble.ts'
import { today } from './studio.ts'
import { useStored } from './useStored.ts'

const NONE: readonly TasteDoc[] = []

/** Every taste that is kept, by name. */
export const useTastes = (): readonly TasteDoc[] =>
  useStored(() => db.tastes.orderBy('name').toArray()) ?? NONE

/** The taste in use; undefined where the house's is, and until it is known. */
export function useActiveTaste(): TasteDoc | undefined {
  const { taste } = usePrefs()
  return useStored(async () => (taste ? await db.tastes.get(taste) : undefined), [taste])
}

/** The taste in use. */
async function activeTaste(): Promise<TasteDoc | undefined> {
  const { taste } = currentPrefs()
  return taste === undefined ? undefined : db.tastes.get(taste)
}

/** What of the taste in use holds for a tune and the student at hand, followed live. */
export function useTasteInForce(tune: string): TasteInForce | undefined {
  const doc = useActiveTaste()
  const { player } = usePrefs()
  return useMemo(() => doc && tasteInForce(doc, forWhom(tune, player)), [doc, tune, player])
}

const forWhom = (tune: string, student: string | undefined) => ({ tune, ...(student ? { student } : {}) })

/** What a new arrangement of a tune begins with, asked once: what of the taste in use holds, and the habits. */
export async function tasteFor(
  tune: string,
): Promise<{ readonly taste: TasteInForce | undefined; readonly habits: readonly Habit[] }> {
  const doc = await activeTaste()
  const whom = forWhom(tune, currentPrefs().player)
  return { taste: doc && tasteInForce(doc, whom), habits: doc ? habitsInForce(doc, whom) : [] }
}

/** Stores a taste after its check against the schema. @throws SchemaError */
export async function keepTaste(doc: TasteDoc): Promise<void> {
  const { readTaste } = await import('@velvet-porch/core/schema')
  const read = readTaste(doc)
  await storing(() => db.tastes.put(read))
}

let last: Promise<unknown> = Promise.resolve()

/** Does what reads a taste and writes it one after the other, so that of two quick changes neither is lost. */
function inOrder(work: () => Promise<void>): Promise<void> {
  const next = last.then(work)
  last = next.catch(() => undefined)
  return next
}

/** Changes a taste as it stands in storage. */
export const changeTaste = (id: string, change: (doc: TasteDoc) => TasteDoc): Promise<void> =>
  inOrder(async () => {
    const doc = await db.tastes.get(id)
    if (doc) await keepTaste(change(doc))
  })

export async function dropTaste(id: string): Promise<void> {
  await storing(() => db.tastes.delete(id))
  if (currentPrefs().taste === id) takeTaste(undefined)
}

/** Takes a taste into use; undefined is the house's. */
export function takeTaste(id: string | undefined): void {
  setPrefs({ taste: id ?? '' })
}

/** Notes what was chosen in the taste in use; where there is none one is begun. @param name of a new one */
export const noteChosen = (comparisons: readonly Comparison[], name: string): Promise<void> =>
  comparisons.length === 0 ? Promise.resolve() : inOrder(() => note(comparisons, name))

async function note(comparisons: readonly Comparison[], name: string): Promise<void> {
  let doc = await activeTaste()
  if (!doc) {
    // Whoever put their taste aside is not followed.
    if ((await db.tastes.count()) > 0) return
    doc = newTaste(newId(), name)
    takeTaste(doc.id)
  }
  await keepTaste(withComparisons(doc, comparisons))
}

/** Where something was chosen. @param measure as it is printed */
export const caseAt = ({ id, title }: Pick<TuneDoc, 'id' | 'title'>, measure: number) => ({
  tune: id,
  title,
  measure,
  day: today(),
})

/** Notes a shape that was pinned to a tune. @param name of a taste that is begun */
export const notePinned = (
  tune: Pick<TuneDoc, 'id' | 'title'>,
  shape: TasteShape,
  name: string,
): Promise<void> => noteChosen([{ kind: 'shape', at: caseAt(tune, 1), shape }], name).catch(() => undefined)
