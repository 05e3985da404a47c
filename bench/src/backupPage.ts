import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import type { Browser } from '@playwright/test'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangementOf, arranging, wholeTune } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { finish } from '@velvet-porch/core/turns'
import { benchTune } from './engine.ts'
import { atMost, type Figure } from './figure.ts'

const MANY = 5000
/** Every so many tunes has a tab. */
const TAB_EVERY = 5
const MEASURES = 16

/** Everything of a shelf of 5,000 tunes, 1,000 with their tabs: out as a file, and in again in an empty browser. */
export async function backupFigures(browser: Browser, url: string): Promise<Figure[]> {
  const tune = readAbc(benchTune(MEASURES), () => 'tune')[0]!.tune!
  const regions = wholeTune(tune, 'alternating-bass', 3)
  const { layer, plan } = finish(arranging(tune, guitarSetup(), regions))
  const tab = arrangementOf('tab', tune.title, tune, guitarSetup(), regions, {
    layer,
    transposed: plan.transposed,
  })
  const full = await browser.newContext({ viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' })
  const page = await full.newPage()
  await page.goto(url)
  await page.getByRole('button', { name: 'Open', exact: false }).first().waitFor()
  await page.evaluate(
    async ({ tune, tab, many, every }) => {
      const open = indexedDB.open('velvet-porch')
      const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
      for (let from = 0; from < many; from += 250) {
        const writing = db.transaction(['shelf', 'tunes', 'arrangements'], 'readwrite')
        for (let i = from; i < from + 250; i++) {
          const [id, title] = [`many-${i}`, `Gate Latch ${i}`]
          const about = { id, title, key: 'G', metre: '4/4', measures: 16, changedAt: 1_790_000_000_000 - i }
          writing.objectStore('shelf').put(about)
          writing.objectStore('tunes').put({ ...tune, id, title })
          if (i % every === 0)
            writing.objectStore('arrangements').put({ ...tab, id: `${id}:bench`, tuneId: id, name: title })
        }
        await new Promise((resolve) => (writing.oncomplete = resolve))
      }
      db.close()
    },
    { tune, tab, many: MANY, every: TAB_EVERY },
  )
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
