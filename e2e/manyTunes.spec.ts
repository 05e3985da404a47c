import { expect, test } from '@playwright/test'
import { fillShelf } from './fillShelf.ts'

const MANY = 5000

test('a shelf of 5,000 tunes is shown whole, searched and worked in, with the lines in view alone drawn', async ({
  page,
}) => {
  await fillShelf(page, MANY)
  await expect(page.getByRole('link', { name: 'Gate Latch 0', exact: true })).toBeVisible()
  await expect(page.getByText('5000 tunes · ')).toBeVisible()

  await page.getByRole('button', { name: 'Show all 5000 tunes' }).click()
  const lines = page.getByRole('table').getByRole('link')
  await expect(page.getByRole('link', { name: 'Gate Latch 60', exact: true })).toBeVisible()
  await page.locator('.stage-room').evaluate((room) => {
    const table = room.querySelector('table')!
    room.scrollTop = table.offsetTop + table.offsetHeight / 2
  })
  await expect(page.getByRole('link', { name: /^Gate Latch 2[45]\d\d$/ }).first()).toBeVisible()
  expect(await lines.count()).toBeLessThan(100)
  await page.locator('.stage-room').evaluate((room) => {
    room.scrollTop = room.scrollHeight
  })
  await expect(page.getByRole('link', { name: 'Gate Latch 4999', exact: true })).toBeVisible()

  await page.getByRole('textbox', { name: 'Find a tune', exact: true }).fill('latch 4321')
  await expect(lines).toHaveText(['Gate Latch 4321'])
  await page.getByRole('button', { name: /Gate Latch 4321/ }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await expect(page.getByText('No tune is called that.')).toBeVisible()
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(lines).toHaveText(['Gate Latch 4321'])
})
