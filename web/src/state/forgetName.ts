import { isFresh, madeFresh } from '@velvet-porch/core/document'
import type { Player } from '@velvet-porch/core/instrument'
import { db } from './db.ts'

/**
 * Takes somebody's name out of every tab that was measured for their hand, and out of its history; the spans stay, so that
 * the tab stays as it is. To be called inside a transaction over arrangements, tunes and history.
 */
export async function forgetName(name: string): Promise<void> {
  for (const doc of await db.arrangements.filter((d) => d.setup.player.name === name).toArray()) {
    const tune = await db.tunes.get(doc.tuneId)
    const setup = { ...doc.setup, player: { ...doc.setup.player, name: '' } }
    // What was up to date stays so: the name had no part in it.
    const stays = tune !== undefined && isFresh(tune, doc)
    await db.arrangements.put(stays ? madeFresh(tune, { ...doc, setup }) : { ...doc, setup })
  }
  await db.history
    .filter((row) => JSON.stringify(row.command).includes(JSON.stringify(name)))
    .modify((row) => {
      row.command = nameless(row.command, name)
    })
}

/** A value with every hand of that name made a nameless one. */
function nameless<T>(value: T, name: string): T {
  if (Array.isArray(value)) return value.map((v: unknown) => nameless(v, name)) as T
  if (typeof value !== 'object' || value === null) return value
  const own = Object.fromEntries(Object.entries(value).map(([k, v]) => [k, nameless(v as unknown, name)]))
  return (isHand(value) && value.name === name ? { ...own, name: '' } : own) as T
}

const isHand = (value: object): value is Player => 'spans' in value && 'name' in value
