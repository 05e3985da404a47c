import type { Page } from '@playwright/test'
import { readAbc } from '@velvet-porch/core/input/abc'
import { arrangementOf, arranging, wholeTune } from '@velvet-porch/core/arrange'
import { guitarSetup } from '@velvet-porch/core/instrument'
import { finish } from '@velvet-porch/core/turns'
import { benchTune } from './engine.ts'

const MEASURES = 16

/**
 * A shelf of tunes that are whole, some with a tab; ends on a page that has read none of them yet.
 * @param tabEvery every so many tunes has a tab; 0 for none
 */
export async function fillWhole(page: Page, url: string, many: number, tabEvery: number): Promise<void> {
  const tune = readAbc(benchTune(MEASURES), () => 'tune')[0]!.tune!
  const setup = guitarSetup()
  const regions = wholeTune(tune, 'alternating-bass', 3)
  const { layer, plan } = finish(arranging(tune, setup, regions))
  const made = { layer, transposed: plan.transposed }
  const tab = arrangementOf('tab', tune.title, tune, setup, regions, made)
  await page.goto(url)
  await page.getByRole('button', { name: 'Open', exact: false }).first().waitFor()
  await page.evaluate(
    async ({ tune, tab, many, every }) => {
      const open = indexedDB.open('velvet-porch')
      const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
      for (let from = 0; from < many; from += 200) {
        const writing = db.transaction(['shelf', 'tunes', 'arrangements'], 'readwrite')
        for (let i = from; i < Math.min(many, from + 200); i++) {
          const [id, title] = [`many-${i}`, `Gate Latch ${i}`]
          const about = { id, title, key: 'C', metre: '4/4', measures: 16, changedAt: 1_790_000_000_000 - i }
          writing.objectStore('shelf').put(about)
          writing.objectStore('tunes').put({ ...tune, id, title })
          if (every > 0 && i % every === 0)
            writing.objectStore('arrangements').put({ ...tab, id: `${id}.a`, tuneId: id, name: title })
        }
        await new Promise((resolve) => (writing.oncomplete = resolve))
      }
      db.close()
    },
    { tune, tab, many, every: tabEvery },
  )
  await page.goto('about:blank')
}
