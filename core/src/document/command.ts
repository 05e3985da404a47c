import { enablePatches, Immer, type Draft, type Patch } from 'immer'
import { difference } from './difference.ts'
import type { Id } from './ids.ts'

enablePatches()
// Documents are readonly by type and come fresh from storage; freezing a long tune at every key would cost the page its turn.
// An instance of our own: what a page does with the library otherwise stays as it is.
const immer = new Immer({ autoFreeze: false })

/** One undoable change of one document. Plain data: it can be stored, replayed and taken back. */
export interface Command {
  readonly id: Id
  readonly label: string
  readonly patches: readonly Patch[]
  readonly inverse: readonly Patch[]
}

/** Documents that commands apply to. */
export interface Revisioned {
  readonly rev: number
}

/**
 * Makes a command from a recipe that edits a draft, and the document after it.
 * Returns undefined where the recipe changes nothing, so that no empty step enters the history.
 */
export function command<T extends Revisioned>(
  doc: T,
  id: Id,
  label: string,
  recipe: (draft: Draft<T>) => void,
): { readonly doc: T; readonly command: Command } | undefined {
  const [next, patches, inverse] = immer.produceWithPatches(doc, (draft) => {
    recipe(draft)
  })
  if (patches.length === 0) return undefined
  return { doc: { ...next, rev: doc.rev + 1 }, command: { id, label, patches, inverse } }
}

/**
 * Makes a command that leads to another state of a document, and the document after it. What did not change in it is the
 * old document's own objects. Returns undefined where nothing changed.
 */
export function commandTo<T extends Revisioned>(
  doc: T,
  id: Id,
  label: string,
  next: T,
): { readonly doc: T; readonly command: Command } | undefined {
  const { data, patches, inverse } = difference(doc, { ...next, rev: doc.rev })
  if (patches.length === 0) return undefined
  return { doc: { ...data, rev: doc.rev + 1 }, command: { id, label, patches, inverse } }
}

/** Applies a command again. */
export function redo<T extends Revisioned>(doc: T, cmd: Command): T {
  return { ...immer.applyPatches(doc, cmd.patches), rev: doc.rev + 1 }
}

/** Takes a command back. The revision still rises: what was derived from the document is stale again. */
export function undo<T extends Revisioned>(doc: T, cmd: Command): T {
  return { ...immer.applyPatches(doc, cmd.inverse), rev: doc.rev + 1 }
}
