import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { expect, type Page } from '@playwright/test'

/** What a browser may have stored: every table of the app's database, and where its bench stands. */
interface Stored {
  readonly tables: Readonly<Record<string, readonly unknown[]>>
  readonly bench: string
  /** When it was kept, in milliseconds: its days are counted from then. */
  readonly at: number
}

/** States that tests begin with. They are made in the real interface, before all tests (`stored.setup.ts`). */
export type StoredName = 'demo' | 'gateLatch'

const DATABASE = 'velvet-porch'
const folder = process.env['STORED_STATES']
const fileOf = (name: StoredName) => `${folder}/${name}.json`

/** Keeps what the browser has stored, and the address that it is at. */
export async function keep(page: Page, name: StoredName): Promise<void> {
  const tables = await page.evaluate(async (database) => {
    const asked = <T>(request: IDBRequest<T>) =>
      new Promise<T>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result)
        request.onerror = () => reject(new Error(String(request.error)))
      })
    const db = await asked(indexedDB.open(database))
    const names = [...db.objectStoreNames]
    const transaction = db.transaction(names)
    const rows = await Promise.all(
      names.map(async (table) => [table, await asked(transaction.objectStore(table).getAll())] as const),
    )
    db.close()
    return Object.fromEntries(rows)
  }, DATABASE)
  const stored: Stored = { tables, bench: new URL(page.url()).pathname, at: Date.now() }
  mkdirSync(dirname(fileOf(name)), { recursive: true })
  writeFileSync(fileOf(name), JSON.stringify(stored))
}

interface Row {
  readonly id: string
  readonly title?: string
  readonly tuneId?: string
}

/** What is stored of one tune: whoever needs no other need not wait until the browser has written them all. */
function ofOneTune({ tables, bench, at }: Stored, title: string): Stored {
  const rowsOf = (table: string) => tables[table] as readonly Row[]
  const id = rowsOf('tunes').find((tune) => tune.title === title)!.id
  return {
    tables: {
      tunes: rowsOf('tunes').filter((row) => row.id === id),
      shelf: rowsOf('shelf').filter((row) => row.id === id),
      arrangements: rowsOf('arrangements').filter((row) => row.tuneId === id),
    },
    bench: bench.replace(/[^/]+(?=\/arrange$)/, id),
    at,
  }
}

/** The day of a moment, where the tests are (`timezoneId`). */
const dayOf = (ms: number): string => new Date(ms).toISOString().slice(0, 10)

/**
 * Puts a kept state into the browser and opens its bench.
 * @param base where the app is, for a browser that was not told
 * @param title the one tune of it that is wanted
 * @returns false where none was kept: it is made by hand then
 */
export async function openStored(
  page: Page,
  name: StoredName,
  { base = '', title }: { readonly base?: string; readonly title?: string } = {},
): Promise<boolean> {
  if (!folder) return false
  const all = JSON.parse(readFileSync(fileOf(name), 'utf8')) as Stored
  const { tables, bench, at } = title === undefined ? all : ofOneTune(all, title)
  // Tests that began before midnight go on in the day that their state is of.
  if (dayOf(at) !== dayOf(Date.now())) await page.clock.setSystemTime(at)
  // The Shelf makes the database and has nothing on it yet.
  await page.goto(`${base}/`)
  await expect(page.getByRole('heading', { name: 'Teach a tune on guitar or mandolin' })).toBeVisible()
  await page.evaluate(
    // As text: a tree of a megabyte takes seconds on its way, node by node.
    async ([database, text]) => {
      const all = JSON.parse(text) as Stored['tables']
      const request = indexedDB.open(database)
      const db = await new Promise<IDBDatabase>((resolve, reject) => {
        request.onsuccess = () => resolve(request.result)
        request.onerror = () => reject(new Error(String(request.error)))
      })
      const transaction = db.transaction([...db.objectStoreNames], 'readwrite')
      for (const [table, rows] of Object.entries(all))
        for (const row of rows) transaction.objectStore(table).put(row)
      await new Promise<void>((resolve, reject) => {
        transaction.oncomplete = () => resolve()
        transaction.onerror = () => reject(new Error(String(transaction.error)))
      })
      db.close()
    },
    [DATABASE, JSON.stringify(tables)] as const,
  )
  await page.goto(base + bench)
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  return true
}
