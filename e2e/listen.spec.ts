import { expect, test, type Page } from '@playwright/test'
import { hearing } from './hearing.ts'
import { openStored } from './stored.ts'
import { wavFile } from './wav.ts'

const take = (page: Page) => page.getByTestId('take')
const heard = (page: Page) => page.getByTestId('take-heard')

async function practise(page: Page): Promise<void> {
  await page.goto('/students')
  await page.getByTestId('roster').getByRole('link', { name: 'Wren Tallow' }).click()
  await page.getByTestId('given-tunes').getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await page.getByRole('link', { name: 'Practise' }).click()
  await page.getByText('Check a take').click()
}

const recordATake = async (page: Page) => {
  await page.getByRole('button', { name: 'Record a take' }).click()
  await expect(heard(page)).toBeVisible()
}

test('a simulated student is listened to: the delay first, then note by note; a take without a slip may count as clean', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await practise(page)
  await take(page).getByText('Simulated student', { exact: true }).click()
  await expect(page.getByRole('button', { name: 'Record a take' })).toBeDisabled()
  await page.getByRole('button', { name: 'Measure the delay' }).click()
  await expect(page.getByTestId('take-delay')).toHaveText(/^This device is (8\d|9\d) ms late/)
  await take(page).getByText('one late note').click()
  await recordATake(page)
  await expect(heard(page).getByRole('status')).toHaveText(/^\d+ of \d+ notes heard\.$/)
  const row = (text: string | RegExp) => heard(page).getByRole('row').filter({ hasText: text })
  await expect(row(/probably fret \d/)).toHaveCount(1)
  await expect(row('not heard clearly')).toHaveCount(1)
  await expect(row(/1[012]\d ms late/)).toHaveCount(1)
  await expect(page.getByRole('button', { name: 'Count it as a clean one' })).toHaveCount(0)
  for (const slip of ['one wrong fret', 'one missed note', 'one late note'])
    await take(page).getByText(slip).click()
  await recordATake(page)
  await page.getByRole('button', { name: 'Count it as a clean one' }).click()
  await expect(page.getByTestId('climb-words')).toContainText('1 of 3 clean ones in a row')
  await page.getByRole('switch', { name: 'Show every note' }).check({ force: true })
  await expect(heard(page).getByRole('row').nth(1)).toContainText(
    /measure 9, count 1: string \d, fret \d+.*heard/,
  )
})

test('a melody is played in by the simulated string and comes onto the shelf with its tab', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await page.goto('/')
  await page.getByRole('button', { name: 'Play it in' }).click()
  const dialog = page.getByRole('dialog', { name: 'Play a melody in' })
  await dialog.getByLabel('Name of the tune').fill('Gate in the Rain')
  await dialog.getByText('Simulated string').click()
  await dialog.getByRole('button', { name: 'Count in and record' }).click()
  await expect(dialog.getByTestId('played').getByRole('status')).toHaveText(
    '9 notes, in G major. None is doubtful. It comes with its likely strings and frets.',
  )
  await expect(dialog.getByTestId('played').getByRole('listitem').first()).toHaveText('GBD')
  await dialog.getByRole('button', { name: 'Put it on the shelf' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Gate in the Rain' })).toBeVisible()
  await expect(page).toHaveURL(/\/arrange$/)
})

/** A D string that is struck with every click of 120 a minute. */
const plucks = wavFile(4, (t) => {
  const since = t % 0.5
  return [1, 2, 3, 4].reduce(
    (sum, n) => sum + (0.3 / n) * Math.exp(-7 * since) * Math.sin(2 * Math.PI * n * 293.66 * t),
    0,
  )
})

test('a microphone is listened to while the clicks count: what is played in, and a take of something else', async ({
  baseURL,
}) => {
  await hearing(plucks, baseURL, async (page) => {
    await openStored(page, 'demo')
    await page.goto('/')
    await page.getByRole('button', { name: 'Play it in' }).click()
    const dialog = page.getByRole('dialog', { name: 'Play a melody in' })
    await dialog.getByLabel('Beats a minute').fill('120')
    await dialog.getByRole('button', { name: 'Count in and record' }).click()
    await expect(dialog.getByTestId('play-in-state')).toHaveText('Play now: measure 4.')
    await dialog.getByRole('button', { name: 'I have played it' }).click()
    const measures = dialog.getByTestId('played').getByRole('listitem')
    await expect(measures.nth(1)).toHaveText(/^(D\??){3,5}$/)
    await expect(dialog.getByTestId('played')).not.toContainText(/[ABCEFG][♯♭]?\d/)
    await dialog.getByRole('button', { name: 'Cancel' }).last().click()

    await page.evaluate(() => {
      const key = 'velvet-porch.prefs'
      const kept = JSON.parse(localStorage.getItem(key) ?? '{"state":{},"version":1}') as {
        state: Record<string, unknown>
      }
      localStorage.setItem(key, JSON.stringify({ ...kept, state: { ...kept.state, delayMs: 40 } }))
    })
    await practise(page)
    await recordATake(page)
    await expect(heard(page)).toHaveText('I could not follow this take.')
  })
})

test('a refused microphone is said, with the way out', async ({ page }) => {
  await page.addInitScript(() => {
    Object.defineProperty(navigator.mediaDevices, 'getUserMedia', {
      value: () => Promise.reject(new DOMException('', 'NotAllowedError')),
    })
  })
  await openStored(page, 'demo')
  await page.goto('/')
  await page.getByRole('button', { name: 'Play it in' }).click()
  await page.getByRole('button', { name: 'Count in and record' }).click()
  await expect(page.getByRole('alert')).toContainText('has refused the microphone')
})

test('the audio thread keeps time while the page is busy for a quarter of a second', async ({ page }) => {
  await page.addInitScript(() => {
    const reports: { frame: number; position: number }[] = []
    Object.assign(window, { reports })
    const Original = window.AudioWorkletNode
    window.AudioWorkletNode = class extends Original {
      constructor(...args: ConstructorParameters<typeof Original>) {
        super(...args)
        this.port.addEventListener('message', ({ data }) => {
          const { frame, position, playing, countingIn } = data as Record<string, number | boolean>
          if (playing === true && countingIn === false)
            reports.push({ frame: frame as number, position: position as number })
        })
      }
    }
  })
  await openStored(page, 'demo')
  await page.goto('/')
  await page.getByRole('link', { name: 'The Ferry at Dusk' }).first().click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  const count = () => page.evaluate(() => (window as unknown as { reports: unknown[] }).reports.length)
  await expect.poll(count).toBeGreaterThan(10)
  for (let i = 0; i < 3; i++)
    await page.evaluate(() => {
      const until = performance.now() + 250
      while (performance.now() < until);
    })
  const before = await count()
  await expect.poll(count).toBeGreaterThan(before + 20)
  const reports = await page.evaluate(
    () => (window as unknown as { reports: { frame: number; position: number }[] }).reports,
  )
  // Each report comes as many samples after the last as each other one: no block was left out.
  const steps = reports.slice(3).map((r, i) => r.frame - reports[i + 2]!.frame)
  expect(new Set(steps).size).toBe(1)
  // And the music has gone on with each of them: swing and rubato alone make one step longer than another.
  const played = reports.slice(3).map((r, i) => r.position - reports[i + 2]!.position)
  expect(Math.max(...played)).toBeLessThan(2.5 * Math.min(...played))
})
