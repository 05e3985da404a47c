import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { atMost, type Figure } from './figure.ts'
import type { Bench } from './page.ts'
import { fillWhole } from './wholeShelf.ts'

const MANY = 5000
/** Every so many tunes has a tab. */
const TAB_EVERY = 5

/** Everything of a shelf of 5,000 tunes, 1,000 with their tabs: out as a file, and in again in an empty browser. */
export async function backupFigures({ browser, base: url }: Bench): Promise<Figure[]> {
  const full = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' })
  const page = await full.newPage()
  await fillWhole(page, url, MANY, TAB_EVERY)
  await page.goto(`${url}/settings`)
  const save = page.getByRole('button', { name: 'Save everything as a file' })
  await save.waitFor()
  // The app's own backup of the day comes first.
  await page.evaluate(async () => {
    for (let n = 0; n === 0; await new Promise((resolve) => setTimeout(resolve, 1000)))
      n = await new Promise<number>((resolve) => {
        const open = indexedDB.open('velvet-porch-backups')
        open.onsuccess = () => {
          const db = open.result
          const count = db.transaction('days').objectStore('days').count()
          count.onsuccess = () => (db.close(), resolve(count.result))
        }
      })
  })
  const saving = Date.now()
  const coming = page.waitForEvent('download', { timeout: 300_000 })
  await save.click()
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  const path = join(folder, 'everything.zip')
  await (await coming).saveAs(path)
  const saved = Date.now() - saving
  await full.close()
  const empty = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' })
  const other = await empty.newPage()
  other.setDefaultTimeout(300_000)
  await other.goto(`${url}/settings`)
  await other.getByTestId('your-data').waitFor()
  await other.waitForTimeout(2000)
  const bringing = Date.now()
  await other.getByTestId('your-data').locator('input[type=file]').setInputFiles(path)
  await other.getByRole('button', { name: 'Add what is missing' }).click()
  await other.getByText(`${MANY} tunes`).first().waitFor()
  const brought = Date.now() - bringing
  await empty.close()
  rmSync(folder, { recursive: true })
  return [
    atMost(`everything of ${MANY} tunes, ${MANY / TAB_EVERY} with a tab, saved as one file`, saved, 's', 30),
    atMost('the same brought into an empty browser', brought, 's', 30),
  ]
}
