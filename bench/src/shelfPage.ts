import type { Browser } from '@playwright/test'
import { median } from './calibration.ts'
import type { Figure } from './engine.ts'

const MANY = 5000
const SOUGHT = '4321'

/** A shelf of 5,000 tunes: opened, searched, shown whole. */
export async function shelfFigures(browser: Browser, url: string): Promise<Figure[]> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  await page.goto(url)
  await page.waitForTimeout(1500)
  await page.evaluate(async (count) => {
    const open = indexedDB.open('velvet-porch')
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const writing = db.transaction('shelf', 'readwrite')
    for (let i = 0; i < count; i++)
      writing.objectStore('shelf').put({
        ...{ id: `many-${i}`, title: `Gate Latch ${i}`, key: 'G', metre: '4/4', measures: 16 },
        changedAt: 1_790_000_000_000 - i * 60_000,
      })
    await new Promise((resolve) => (writing.oncomplete = resolve))
    db.close()
  }, MANY)
  const opened: number[] = []
  for (let i = 0; i < 3; i++) {
    await page.goto('about:blank')
    const started = Date.now()
    await page.goto(url)
    await page.getByRole('link', { name: 'Gate Latch 0', exact: true }).waitFor()
    opened.push(Date.now() - started)
  }
  await page.waitForTimeout(1500)
  await page.getByRole('textbox', { name: 'Find a tune', exact: true }).click()
  // Timed in the page: from a key to the list that has what is sought, and nothing else.
  const keys = await page.evaluate(async (sought) => {
    const input = document.activeElement as HTMLInputElement
    const write = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, 'value')!.set!
    const frame = () => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)))
    const times: number[] = []
    for (let i = 1; i <= sought.length; i++) {
      const text = sought.slice(0, i)
      const started = performance.now()
      write.call(input, text)
      input.dispatchEvent(new Event('input', { bubbles: true }))
      const found = () => [...document.querySelectorAll('table a')].map((a) => a.textContent ?? '')
      do await frame()
      while (!found().every((title) => title.includes(text)))
      times.push(performance.now() - started)
    }
    return times
  }, SOUGHT)
  await page.getByRole('textbox', { name: 'Find a tune', exact: true }).fill('')
  await page.waitForTimeout(1000)
  const shown = await page.evaluate(async () => {
    const all = [...document.querySelectorAll('button')].find((b) => b.textContent?.startsWith('Show all'))!
    const started = performance.now()
    all.click()
    while (Number(document.querySelector('table')!.getAttribute('aria-rowcount')) < 1000)
      await new Promise((resolve) => requestAnimationFrame(resolve))
    return performance.now() - started
  })
  await context.close()
  const row = (name: string, value: number, limit: number): Figure => ({
    name,
    value: `${value.toFixed(0)} ms`,
    aim: `at most ${limit} ms`,
    met: value <= limit,
  })
  return [
    row(`shelf of ${MANY} tunes: opened, the page loaded anew`, median(opened), 1500),
    row('a key of its search', median(keys), 50),
    row('shown whole', shown, 200),
  ]
}
