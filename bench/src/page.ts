import { spawn } from 'node:child_process'
import { request } from 'node:http'
import { fileURLToPath } from 'node:url'
import { chromium, type Browser, type Page } from '@playwright/test'
import { paste } from '../../e2e/bench.ts'
import { CHROMIUM } from '../../e2e/playwright.config.ts'
import { median } from './calibration.ts'
import { benchTune } from './engine.ts'
import { atMost, type Figure } from './figure.ts'

/** The longest task in ms that the browser reports while something is done. */
export type LongestTask = (page: Page, doing: () => Promise<void>) => Promise<number>

/** The browser as it is used, with windows: tests may take a lighter one. */
const WHOLE = '/usr/bin/chromium'

const PORT = 4318
const BASE = `http://localhost:${PORT}`

/** Browser and pages that the figures of the page are measured in. */
export interface Bench {
  readonly browser: Browser
  readonly base: string
  readonly longestTask: LongestTask
  close(): Promise<void>
}

/** Starts the built app and headless Chromium. */
export async function startBench(): Promise<Bench> {
  const server = spawn('node', ['scripts/start.mjs'], {
    cwd: fileURLToPath(new URL('../..', import.meta.url)),
    env: { ...process.env, PORT: String(PORT) },
    stdio: 'ignore',
  })
  const browser = await chromium.launch({ ...CHROMIUM, executablePath: WHOLE })
  const close = async () => {
    await browser.close()
    server.kill()
  }
  try {
    await healthy()
  } catch (error) {
    await close()
    throw error
  }
  return { browser, base: BASE, longestTask, close }
}

/** Weight of the first page, long tasks of typing and scrolling, time until systems and frets are drawn. */
export async function pageFigures({ browser }: Bench): Promise<Figure[]> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const weight = await firstPage(page)
  await openTune(page, 200)
  const typing = await longestTask(page, async () => {
    const editor = page.getByRole('textbox', { name: 'The tune in ABC' })
    await editor.click()
    await page.keyboard.press('Control+End')
    await page.keyboard.type('"C"cdef gfed|"F"a2f2 c2A2|', { delay: 40 })
    await page.waitForTimeout(1500)
  })
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await page.locator('.tab-fret').first().waitFor()
  await page.waitForTimeout(1500)
  const scrolling = await longestTask(page, async () => {
    for (let i = 0; i < 40; i++) {
      await page.locator('.bench-sheet').evaluate((e) => e.scrollBy(0, 350))
      await page.waitForTimeout(60)
    }
    await page.waitForTimeout(500)
  })
  const drawn = await drawingMs(page)
  const fret = await typedFret(page)
  await page.close()
  return [
    atMost('first page, JavaScript as sent (brotli)', weight.br, 'kB', 200),
    atMost('the same for a browser that takes gzip alone', weight.gzip, 'kB', 200),
    atMost('longest task while typing ABC, 200 measures', typing, 'ms', 50),
    atMost('longest task while scrolling 200 measures', scrolling, 'ms', 50),
    atMost('visible systems drawn after a jump', drawn, 'ms', 150),
    atMost('a typed fret painted, 200 measures', fret.long, 'ms', 25),
    atMost('the same, 32 measures', fret.short, 'ms', 16),
  ]
}

async function healthy(): Promise<void> {
  for (let i = 0; i < 240; i++) {
    const ok = await fetch(`${BASE}/api/health`).then(
      (r) => r.ok,
      () => false,
    )
    if (ok) return
    await new Promise((resolve) => setTimeout(resolve, 500))
  }
  throw new Error('The server did not start.')
}

/** Kilobytes of the scripts that the first page brings until it is touched, by how they are compressed. */
async function firstPage(page: Page): Promise<Readonly<Record<'br' | 'gzip', number>>> {
  const scripts = new Set<string>()
  page.on('response', (response) => {
    if (response.headers()['content-type']?.includes('javascript')) scripts.add(response.url())
  })
  await page.goto(`${BASE}/`)
  await page.waitForTimeout(1500)
  const sent = async (encoding: string) => {
    const lengths = [...scripts].map((url) => lengthOf(url, encoding))
    return (await Promise.all(lengths)).reduce((sum, n) => sum + n, 0) / 1000
  }
  return { br: await sent('br'), gzip: await sent('gzip') }
}

/** Bytes of the body of a file, compressed in one way: a client that unpacks it cannot say. */
const lengthOf = (url: string, encoding: string) =>
  new Promise<number>((resolve, reject) =>
    request(url, { method: 'HEAD', headers: { 'accept-encoding': encoding } }, (reply) =>
      resolve(Number(reply.headers['content-length'])),
    )
      .on('error', reject)
      .end(),
  )

/**
 * Milliseconds from a digit to the end of the frame that shows its fret in the tab: the median of several, on a long tune
 * and on one of a usual length.
 */
async function typedFret(page: Page): Promise<{ long: number; short: number }> {
  const long = await fretsTyped(page)
  await openTune(page, 32)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await page.locator('.tab-fret').first().waitFor()
  await page.waitForTimeout(1500)
  return { long, short: await fretsTyped(page) }
}

async function fretsTyped(page: Page): Promise<number> {
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await page.getByTestId('write-bar').waitFor()
  await page.locator('.bench-sheet').evaluate((e) => e.scrollTo(0, 0))
  await page.waitForTimeout(500)
  await page.locator('.tab-fret').nth(2).click()
  await page.waitForTimeout(500)
  const times = await page.evaluate(async () => {
    const note = document.querySelectorAll<SVGElement>('.tab-fret')[2]!.dataset.note!
    const spent: number[] = []
    for (const key of ['5', '6', '7', '8', '9', '5', '6']) {
      const before = performance.now()
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
      while (document.querySelector(`[data-note="${note}"]`)?.firstChild?.textContent !== key) {
        if (performance.now() - before > 5000) throw new Error(`fret ${key} did not come`)
        await new Promise((resolve) => requestAnimationFrame(resolve))
      }
      await new Promise((resolve) => {
        // A message is answered after the frame that was being made.
        const { port1, port2 } = new MessageChannel()
        port1.onmessage = resolve
        port2.postMessage(undefined)
      })
      spent.push(performance.now() - before)
      await new Promise((resolve) => setTimeout(resolve, 900))
    }
    return spent
  })
  return median(times)
}

async function openTune(page: Page, measures: number): Promise<void> {
  await paste(page, benchTune(measures), BASE)
  await page.locator('[data-drawn]').first().waitFor()
  await page.waitForTimeout(1500)
}

/** The longest task that the browser reports while something is done; below 50 ms it reports none, so 0 means fine. */
async function longestTask(page: Page, doing: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const w = window as unknown as { longest: number }
    w.longest = 0
    new PerformanceObserver((list) =>
      list.getEntries().forEach((e) => (w.longest = Math.max(w.longest, e.duration))),
    ).observe({ entryTypes: ['longtask'] })
  })
  await checkObserver(page)
  await doing()
  return page.evaluate(() => (window as unknown as { longest: number }).longest)
}

/** Makes sure that a long task would be seen: blocks the page once for 120 ms, then forgets it. */
async function checkObserver(page: Page): Promise<void> {
  const seen = await page.evaluate(async () => {
    await new Promise<void>((resolve) =>
      setTimeout(() => {
        const end = performance.now() + 120
        while (performance.now() < end);
        resolve()
      }),
    )
    await new Promise((resolve) => setTimeout(resolve, 300))
    const w = window as unknown as { longest: number }
    const longest = w.longest
    w.longest = 0
    return longest
  })
  if (seen < 100) throw new Error('This browser does not report long tasks; the figures would mean nothing.')
}

/** From a jump to the middle of the sheet until every system in the view is drawn. */
async function drawingMs(page: Page): Promise<number> {
  return page.locator('.bench-sheet').evaluate(async (sheet) => {
    sheet.scrollTo(0, 0)
    await new Promise((resolve) => setTimeout(resolve, 500))
    const start = performance.now()
    sheet.scrollTo(0, sheet.scrollHeight / 2)
    for (;;) {
      await new Promise((resolve) => setTimeout(resolve, 4))
      const visible = [...sheet.querySelectorAll('[data-system]')].filter((s) => {
        const box = s.getBoundingClientRect()
        return box.bottom > 200 && box.top < 800
      })
      if (visible.length > 0 && visible.every((s) => s.querySelector('[data-drawn]')))
        return performance.now() - start
    }
  })
}
