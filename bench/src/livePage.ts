import type { Browser, Page } from '@playwright/test'
import { paste } from '../../e2e/bench.ts'
import { median } from './calibration.ts'
import { benchTune } from './engine.ts'
import { atMost, type Figure } from './figure.ts'
import type { Bench, LongestTask } from './page.ts'
import { fillWhole } from './wholeShelf.ts'

/** Tunes that are arranged at once. */
const AT_ONCE = 200

/** The stages of a tune, as their addresses end. */
const STAGES = ['tune', 'fit', 'arrange', 'teach', 'practise', 'handout']

const settings = { viewport: { width: 1280, height: 800 }, serviceWorkers: 'block' } as const

/** What is felt at the bench: a choice that is looked at, a long tune opened and gone through, the first page, a shelf arranged at once. */
export async function liveFigures({ browser, base, longestTask }: Bench): Promise<Figure[]> {
  return [
    ...(await firstPage(browser, base)),
    ...(await previews(browser, base)),
    ...(await longTune(browser, base, longestTask)),
    ...(await atOnce(browser, base)),
  ]
}

/** The first page on a machine that is slowed four times: until its buttons can be pressed. */
async function firstPage(browser: Browser, url: string): Promise<Figure[]> {
  const times: number[] = []
  for (let i = 0; i < 3; i++) {
    const context = await browser.newContext(settings)
    const page = await context.newPage()
    const client = await context.newCDPSession(page)
    await client.send('Emulation.setCPUThrottlingRate', { rate: 4 })
    const started = Date.now()
    await page.goto(url)
    await page.getByRole('button', { name: 'Paste a tune or song' }).waitFor()
    times.push(Date.now() - started)
    await context.close()
  }
  return [
    atMost('first page on a machine four times slower, until it can be used', median(times), 'ms', 1000),
  ]
}

/** Ends on the bench of a tune of so many measures. */
async function arranged(page: Page, measures: number, url: string): Promise<void> {
  await paste(page, benchTune(measures), url)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await page.locator('.tab-fret').first().waitFor({ timeout: 120_000 })
}

/** From the pointer on a level to its tab on the sheet, timed in the page; each is looked at twice, and counts warm. */
async function previews(browser: Browser, url: string): Promise<Figure[]> {
  const context = await browser.newContext(settings)
  const page = await context.newPage()
  await arranged(page, 32, url)
  await page.waitForTimeout(2000)
  const levels = page.getByRole('radiogroup', { name: 'Level' }).locator('label')
  const note = page.getByTestId('preview')
  const times: number[] = []
  for (const [round, level] of [3, 4, 3, 4, 3, 4].entries()) {
    await page.mouse.move(640, 700)
    await note.waitFor({ state: 'detached' })
    await page.waitForTimeout(500)
    const seen = page.evaluate(async () => {
      const moved = await new Promise<number>((resolve) =>
        document.addEventListener('mouseover', () => resolve(performance.now()), { once: true }),
      )
      while (!document.querySelector('[data-testid=preview]'))
        await new Promise((resolve) => requestAnimationFrame(resolve))
      return performance.now() - moved
    })
    await levels.nth(level).hover()
    const ms = await seen
    if (round >= 2) times.push(ms)
  }
  await context.close()
  return [atMost('a level looked at, 32 measures: on the sheet', median(times), 'ms', 150)]
}

/** A tune of 200 measures opened from the shelf, and one of 512 taken through every stage. */
async function longTune(browser: Browser, url: string, longestTask: LongestTask): Promise<Figure[]> {
  const context = await browser.newContext(settings)
  const page = await context.newPage()
  page.setDefaultTimeout(120_000)
  const opened = async (measures: number) => {
    await arranged(page, measures, url)
    await page.waitForTimeout(3000)
    const address = page.url()
    const times: number[] = []
    for (let i = 0; i < 3; i++) {
      // From another tune's place, in the app that stands: what counts is the tune, not the app.
      await page.getByRole('link', { name: 'Shelf' }).click()
      await page.getByRole('link', { name: 'Bench', exact: true }).first().waitFor()
      times.push(
        await page.evaluate(async (path) => {
          const started = performance.now()
          history.pushState({}, '', path)
          dispatchEvent(new PopStateEvent('popstate', { state: {} }))
          while (!document.querySelector('.tab-fret'))
            await new Promise((resolve) => requestAnimationFrame(resolve))
          return performance.now() - started
        }, new URL(address).pathname),
      )
    }
    return median(times)
  }
  const long = await opened(200)
  const longest = await opened(512)
  const stalls: Figure[] = []
  for (const stage of STAGES) {
    const ms = await longestTask(page, async () => {
      await page.locator(`nav a[href$="/${stage}"]`).first().click()
      await page.waitForTimeout(4000)
    })
    stalls.push(atMost(`512 measures, longest task on the stage ${stage}`, ms, 'ms', 100))
  }
  await context.close()
  return [
    atMost('a tune of 200 measures opened: its first system', long, 'ms', 300),
    atMost('a tune of 512 measures opened: its first system', longest, 'ms', 1000),
    ...stalls,
  ]
}

/** All tunes of a shelf arranged at once, on every core. */
async function atOnce(browser: Browser, url: string): Promise<Figure[]> {
  const context = await browser.newContext(settings)
  const page = await context.newPage()
  page.setDefaultTimeout(300_000)
  await fillWhole(page, url, AT_ONCE, 0)
  await page.goto(url)
  await page.getByRole('button', { name: `Arrange all ${AT_ONCE} and save them as files` }).click()
  const started = Date.now()
  await page.getByRole('button', { name: `Start with all ${AT_ONCE}` }).click()
  await page.getByText(`Done: ${AT_ONCE} tunes were arranged.`).waitFor()
  const ms = Date.now() - started
  await context.close()
  return [atMost(`a shelf of ${AT_ONCE} tunes arranged at once and saved`, ms, 's', 60)]
}
