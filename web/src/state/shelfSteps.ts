import i18next from 'i18next'
import { change } from './documents.ts'
import { binTune, putBack } from './shelf.ts'

/** What was done on the shelf since the page was opened; each can be taken back. */
export type ShelfStep =
  | { readonly kind: 'remove'; readonly id: string; readonly title: string }
  | { readonly kind: 'rename'; readonly id: string; readonly title: string }
  | { readonly kind: 'duplicate'; readonly id: string; readonly title: string }
  /** Tunes that came in together, or one that was begun. */
  | { readonly kind: 'add'; readonly ids: readonly string[]; readonly title: string }

const MOST_STEPS = 100

let done: readonly ShelfStep[] = []

/** Notes what was done on the shelf. */
export function noteShelfStep(step: ShelfStep): void {
  done = [...done, step].slice(-MOST_STEPS)
}

/**
 * Takes the last step back: a removed tune stands on the shelf again, a name is as it was, what came in lies in the bin.
 * @returns the step; undefined where there is none
 */
export async function undoShelfStep(): Promise<ShelfStep | undefined> {
  const step = done.at(-1)
  if (!step) return undefined
  done = done.slice(0, -1)
  switch (step.kind) {
    case 'remove':
      await putBack(step.id)
      break
    case 'rename':
      await rename(step.id, step.title)
      break
    case 'duplicate':
      await binTune(step.id)
      break
    case 'add':
      for (const id of step.ids) await binTune(id)
      break
  }
  return step
}

/** Enters the tune's own history as well. */
const rename = (id: string, title: string) =>
  change('tune', id, i18next.t('shelf.rename'), (tune) => {
    tune.title = title
  })

/** Puts a tune in the bin. */
export async function removeTune(id: string, title: string): Promise<void> {
  await binTune(id)
  noteShelfStep({ kind: 'remove', id, title })
}

/** Gives a tune another name. */
export async function renameTune(id: string, title: string, to: string): Promise<void> {
  if (await rename(id, to)) noteShelfStep({ kind: 'rename', id, title })
}
