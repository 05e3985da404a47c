import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { chromium, expect, test, type BrowserContext, type Page } from '@playwright/test'
import { chooseLevel, chooseStyle, done, frets, settledFrets, SMALL_TUNE } from './bench.ts'
import { ownServer } from './ownServer.ts'
import { CHROMIUM } from './playwright.config.ts'

const DIST = fileURLToPath(new URL('../web/dist', import.meta.url))

/** A browser that keeps what it has between two starts. */
const browserIn = (folder: string): Promise<BrowserContext> =>
  chromium.launchPersistentContext(folder, {
    ...CHROMIUM,
    serviceWorkers: 'allow',
    reducedMotion: 'reduce',
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    acceptDownloads: true,
  })

/** Waits until the page says that all of the app is kept here. */
async function keptHere(page: Page): Promise<void> {
  await expect(page.getByTestId('without-network')).toContainText('All of the app is kept on this device')
}

test('with the server stopped and the network off the whole job runs, after a restart of the browser too', async () => {
  test.slow()
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  const server = await ownServer(4321)
  const { origin } = server
  let browser = await browserIn(folder)
  try {
    const first = await browser.newPage()
    await first.goto(`${origin}/settings`)
    await keptHere(first)
    // The first visit is over; nothing but the settings was ever looked at.
    await server.stop()
    await browser.close()
    browser = await browserIn(folder)
    await browser.setOffline(true)
    browser.setDefaultTimeout(30_000)
    const page = await browser.newPage()
    await page.addInitScript(() => {
      window.print = () => void (document.body.dataset['printed'] = 'yes')
    })
    await page.goto(`${origin}/`)
    // Brought.
    await page.getByRole('button', { name: 'Paste a tune or song' }).click()
    await page.getByLabel('What you have as text').fill(SMALL_TUNE)
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(page.getByRole('heading', { level: 1, name: 'Gate Latch' })).toBeVisible()
    // Its fonts are there: those of words, of numbers and of notes.
    const fonts = await page.evaluate(async () => {
      await Promise.all(
        ['16px "Fraunces Variable"', '16px "Figtree Variable"', '500 16px "Fira Mono"', '30px Bravura'].map(
          (f) => document.fonts.load(f),
        ),
      )
      return [...document.fonts].filter((f) => f.status === 'error').map((f) => f.family)
    })
    expect(fonts).toEqual([])
    // Fitted, arranged, chosen otherwise.
    await page.getByRole('link', { name: 'Fit' }).click()
    await page.getByRole('button', { name: 'Find keys' }).click()
    await page.getByRole('button', { name: 'Use this' }).first().click()
    await expect(page).toHaveURL(/\/arrange$/)
    // The stage that is being left has tab and styles of its own.
    await settledFrets(page)
    await chooseStyle(page, 'Arpeggio')
    await done(page, 'Style: Arpeggio')
    await chooseLevel(page, 3)
    await done(page, 'Level 3')
    const arranged = await frets(page)
    // Corrected by hand.
    await page.getByRole('group', { name: /^Sheet of/ }).focus()
    await page.keyboard.press('w')
    await expect(page.getByTestId('write-bar')).toBeVisible()
    await page.keyboard.press('Escape')
    // A link deep into the app, opened anew.
    await page.reload()
    await expect.poll(() => frets(page)).toEqual(arranged)
    // Heard.
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
    // Taught and practised.
    await page.getByRole('link', { name: 'Teach' }).click()
    await expect(page.getByRole('button', { name: 'Next' })).toBeVisible()
    await page.getByRole('link', { name: 'Practise' }).click()
    await expect(page.getByTestId('ladder')).toBeVisible()
    // Handed out: the print dialog is named before anybody asks; the lesson file is made here.
    await page.getByRole('link', { name: 'Hand out' }).click()
    await expect(page.getByText('The server that makes PDFs does not answer')).toBeVisible()
    await page.getByRole('button', { name: 'PDF by the print dialog' }).click()
    await expect(page.locator('body')).toHaveAttribute('data-printed', 'yes')
    const saving = page.waitForEvent('download')
    await page.getByRole('button', { name: /lesson file/i }).click()
    expect(readFileSync(await (await saving).path(), 'utf8')).toContain('Gate Latch')
    // Every other place.
    for (const place of ['shapes', 'neck', 'tuner', 'taste', 'students', 'repertoire', 'sets', 'settings']) {
      await page.goto(`${origin}/${place}`)
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    }
    await keptHere(page)
    await page.goto(`${origin}/`)
    await expect(page.getByRole('link', { name: 'Gate Latch' })).toBeVisible()
  } finally {
    await browser.close()
    rmSync(folder, { recursive: true, force: true })
  }
})

/** The built app as a later version: another page, and so another list of what is kept. */
function laterVersion(): string {
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  cpSync(DIST, folder, { recursive: true })
  const page = join(folder, 'index.html')
  writeFileSync(
    page,
    readFileSync(page, 'utf8').replace('<head>', '<head><meta name="version" content="later">'),
  )
  const worker = join(folder, 'sw.js')
  const changed = readFileSync(worker, 'utf8').replace(
    /(url:"index\.html",revision:")[0-9a-f]+/,
    '$1feedfeedfeedfeed',
  )
  expect(changed).toContain('feedfeedfeedfeed')
  writeFileSync(worker, changed)
  return folder
}

test('a newer version is offered, waits until it is wanted, and loads no other window anew', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  const later = laterVersion()
  let server = await ownServer(4322)
  const { origin } = server
  const browser = await browserIn(folder)
  const isLater = (page: Page) => page.locator('meta[name=version]').count()
  try {
    const page = await browser.newPage()
    await page.goto(`${origin}/settings`)
    await keptHere(page)
    const other = await browser.newPage()
    await other.goto(`${origin}/`)
    await other.getByRole('button', { name: 'Paste a tune or song' }).click()
    await other.getByLabel('What you have as text').fill('half a thought')
    await server.stop()
    server = await ownServer(4322, later)
    await page.reload()
    const offer = page.getByTestId('newer-version')
    await expect(offer).toContainText('A newer version of the app is here.')
    expect(await isLater(page)).toBe(0)
    await offer.getByRole('button', { name: 'Later' }).click()
    await expect(offer).toBeHidden()
    await page.reload()
    expect(await isLater(page)).toBe(0)
    await offer.getByRole('button', { name: 'Use it now' }).click()
    await expect.poll(() => isLater(page)).toBe(1)
    // The other window is told, and what was typed in it stays.
    await expect(other.getByTestId('newer-version')).toContainText(
      'Another window works with a newer version',
    )
    await expect(other.getByLabel('What you have as text')).toHaveValue('half a thought')
    expect(await isLater(other)).toBe(0)
    await other.keyboard.press('Escape')
    await other.getByRole('button', { name: 'Use it now' }).click()
    await expect.poll(() => isLater(other)).toBe(1)
  } finally {
    await browser.close()
    await server.stop()
    rmSync(folder, { recursive: true, force: true })
    rmSync(later, { recursive: true, force: true })
  }
})
