import { expect, test } from '@playwright/test'
import { arrangeByHand, settledFrets, SMALL_TUNE, takeDemoByHand } from './bench.ts'
import { keep, openStored } from './stored.ts'

test('the demo is taken, tune by tune, and the browser keeps it', async ({ page, browser }) => {
  await takeDemoByHand(page)
  const shown = await settledFrets(page)
  // The other tunes are arranged behind the page that is open.
  const bench = page.url()
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByRole('row')).toHaveCount(12)
  await expect(page.getByText('being arranged')).toHaveCount(0, { timeout: 60_000 })
  await page.goto(bench)
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await keep(page, 'demo')
  const other = await (await browser.newContext()).newPage()
  await openStored(other, 'demo', { base: 'http://localhost:4317' })
  expect(await settledFrets(other)).toEqual(shown)
  await other.goto('http://localhost:4317/')
  await expect(other.getByRole('row')).toHaveCount(12)
  await other.context().close()
})

test('a pasted tune is arranged, and the browser keeps it', async ({ page, browser }) => {
  await arrangeByHand(page, SMALL_TUNE)
  const shown = await settledFrets(page)
  await keep(page, 'gateLatch')
  const other = await (await browser.newContext()).newPage()
  await openStored(other, 'gateLatch', { base: 'http://localhost:4317' })
  expect(await settledFrets(other)).toEqual(shown)
  await other.goto('http://localhost:4317/')
  await expect(other.getByRole('row')).toHaveCount(2)
  await other.context().close()
})
