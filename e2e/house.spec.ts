import { expect, test } from '@playwright/test'
import { paste, SMALL_TUNE, takeDemo } from './bench.ts'

test('the archive is searched and a tune taken; without the server the Shelf says so and all else works', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByLabel('Find a tune: Tune archive').fill('waltz')
  await expect(page.getByText('Tam Quillon')).toHaveCount(0)
  await page.getByRole('button', { name: 'Take “The Ferry at Dusk”' }).click()
  await expect(page.getByRole('heading', { name: 'The Ferry at Dusk' })).toBeVisible()
  await page.route('**/api/**', (route) => route.abort())
  await page.goto('/')
  await expect(page.getByText('The archive does not answer.')).toBeVisible()
  await page.getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
})

test('a second tab reads only, until it takes over', async ({ page, context }) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
  const second = await context.newPage()
  await second.goto(page.url())
  await expect(second.getByText('This tune is open in another window')).toBeVisible()
  await second.getByRole('button', { name: 'Work here instead' }).click()
  await expect(second.getByText('This tune is open in another window')).toBeHidden()
  await expect(page.getByText('This tune is open in another window')).toBeVisible()
})

test('nothing is fetched from anywhere else, and no policy is broken', async ({ page }) => {
  const foreign: string[] = []
  const broken: string[] = []
  page.on('request', (r) => {
    if (!r.url().startsWith('http://localhost:4317') && !/^(blob|data):/.test(r.url())) foreign.push(r.url())
  })
  page.on('console', (m) => {
    if (m.type() === 'error') broken.push(m.text())
  })
  page.on('pageerror', (e) => broken.push(e.message))
  await takeDemo(page)
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByTestId('play-cursor')).toBeVisible()
  await page.getByRole('link', { name: /Tune/ }).first().click()
  await expect(page.getByRole('textbox', { name: 'The tune in ABC' })).toBeVisible()
  expect(foreign).toEqual([])
  expect(broken).toEqual([])
})

for (const [name, width, height] of [
  ['tablet', 1024, 768],
  ['phone', 390, 844],
] as const) {
  test(`the bench fits a ${name}`, async ({ page }) => {
    await page.setViewportSize({ width, height })
    await takeDemo(page)
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    await page.locator('.tab-fret').nth(2).click()
    await expect(page.getByTestId('neck-head')).toContainText('Measure 1')
    await page.goto(page.url().replace('arrange', 'fit'))
    await expect(page.getByRole('button', { name: 'Find keys' })).toBeVisible()
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
  })
}
