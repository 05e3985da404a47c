import { expect, type Page } from '@playwright/test'

/** A shelf of very many tunes, as somebody has after years: the list alone. Ends with the shelf loaded anew. */
export async function fillShelf(page: Page, many: number, base = ''): Promise<void> {
  await page.goto(`${base}/`)
  await expect(page.getByRole('button', { name: 'Open', exact: false }).first()).toBeVisible()
  await page.evaluate(async (count) => {
    const open = indexedDB.open('velvet-porch')
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const writing = db.transaction('shelf', 'readwrite')
    for (let i = 0; i < count; i++)
      writing.objectStore('shelf').put({
        id: `many-${i}`,
        title: `Gate Latch ${i}`,
        composer: i % 7 === 0 ? 'Odile Farrow' : undefined,
        key: 'G',
        metre: '4/4',
        measures: 16,
        changedAt: 1_790_000_000_000 - i * 60_000,
      })
    await new Promise((resolve) => (writing.oncomplete = resolve))
    db.close()
  }, many)
  await page.reload()
}
