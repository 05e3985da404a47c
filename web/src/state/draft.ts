import { db, type DraftRow } from './db.ts'
import { storing } from './storageTrouble.ts'
import { allWritten } from './unwritten.ts'

export type TextDraft = Omit<DraftRow, 'id'> & {
  /** True for one from the page's small storage alone: a moment's typing at most, or a text that was stored since. */
  readonly passing?: true
}

/** The longest that a typed key waits before it is kept: many keys come at once. */
const KEEP_AFTER_MS = 60

const waiting = new Map<string, { readonly timer: ReturnType<typeof setTimeout>; readonly row: DraftRow }>()

/**
 * The page's small storage has a text at once, also where the page is closed in the same moment; but a browser keeps it back
 * for seconds, so that a killed one has an older text there. The later of both is the draft.
 */
const small = {
  key: (tuneId: string) => `velvet-porch.draft.${tuneId}`,
  get(tuneId: string): DraftRow | undefined {
    try {
      const row = JSON.parse(localStorage.getItem(small.key(tuneId)) ?? 'null') as DraftRow | null
      return row && typeof row.text === 'string' && Array.isArray(row.ancestors) ? row : undefined
    } catch {
      return undefined
    }
  },
  put(row: DraftRow): void {
    try {
      localStorage.setItem(small.key(row.id), JSON.stringify(row))
    } catch {
      // Full or forbidden: the database has it a moment later, and says so where it has not.
    }
  },
  drop(tuneId: string): void {
    try {
      localStorage.removeItem(small.key(tuneId))
    } catch {
      // Nothing was kept.
    }
  },
}

/**
 * Keeps text that is being typed, readable or not, with the revision of the tune that it began from. It goes to the
 * database, which has it a moment later even where the browser is killed.
 */
export function keepDraft(tuneId: string, draft: Omit<DraftRow, 'id' | 'at'>): void {
  clearTimeout(waiting.get(tuneId)?.timer)
  const row = { id: tuneId, at: Date.now(), ...draft }
  small.put(row)
  waiting.set(tuneId, { row, timer: setTimeout(() => writeDraft(tuneId), KEEP_AFTER_MS) })
}

function writeDraft(tuneId: string): void {
  const own = waiting.get(tuneId)
  if (!own) return
  clearTimeout(own.timer)
  waiting.delete(tuneId)
  // That it failed is shown on the page; the text stays in the editor.
  storing(() => db.drafts.put(own.row)).catch(() => undefined)
}

/** What was being typed when this tune was last open; undefined where all of it was stored. */
export async function keptDraft(tuneId: string): Promise<TextDraft | undefined> {
  const typed = waiting.get(tuneId)?.row
  if (typed) return typed
  const [stored, own] = [await db.drafts.get(tuneId), small.get(tuneId)]
  return own && (!stored || own.at > stored.at) ? { ...own, passing: true } : stored
}

export function dropDraft(tuneId: string): void {
  clearTimeout(waiting.get(tuneId)?.timer)
  waiting.delete(tuneId)
  small.drop(tuneId)
  storing(() => db.drafts.delete(tuneId)).catch(() => undefined)
}

/**
 * Drops the draft of a text once storage holds it in the tune: until then the draft is all that there is of it. A later draft
 * stays.
 */
export async function dropStoredDraft(tuneId: string, text: string): Promise<void> {
  await allWritten()
  await storing(() =>
    db.transaction('rw', db.drafts, db.tunes, async () => {
      const [draft, tune] = [await db.drafts.get(tuneId), await db.tunes.get(tuneId)]
      if (tune?.abc?.text !== text) return
      const late = waiting.get(tuneId)
      if (late?.row.text === text) {
        clearTimeout(late.timer)
        waiting.delete(tuneId)
      }
      if (small.get(tuneId)?.text === text) small.drop(tuneId)
      if (draft?.text === text) await db.drafts.delete(tuneId)
    }),
  )
}

/** A short name of a text: texts that differ have different ones, but for the rarest chance (FNV-1a and the length). */
export function textHash(text: string): string {
  let hash = 0x811c9dc5
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193) >>> 0
  return `${text.length}.${hash.toString(36)}`
}

if (typeof window !== 'undefined')
  window.addEventListener('pagehide', () => [...waiting.keys()].forEach(writeDraft))
