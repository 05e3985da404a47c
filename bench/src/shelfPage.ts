import { median } from './calibration.ts'
import { atMost, type Figure } from './figure.ts'
import type { Bench } from './page.ts'
import { fillShelf } from '../../e2e/fillShelf.ts'

const MANY = 5000
const SOUGHT = '4321'

/** A shelf of 5,000 tunes: opened, searched, shown whole. */
export async function shelfFigures({ browser, base: url }: Bench): Promise<Figure[]> {
  const context = await browser.newContext({
    viewport: { width: 1280, height: 800 },
    serviceWorkers: 'block',
  })
  const page = await context.newPage()
  await fillShelf(page, MANY, url)
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
  return [
    atMost(`shelf of ${MANY} tunes: opened, the page loaded anew`, median(opened), 'ms', 1500),
    atMost('a key of its search', median(keys), 'ms', 50),
    atMost('shown whole', shown, 'ms', 200),
  ]
}
