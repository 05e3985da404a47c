import { expect, test, type Page } from '@playwright/test'
import { done, settledFrets } from './bench.ts'
import { openStored } from './stored.ts'

const note = (page: Page) => page.getByTestId('preview')
const undo = (page: Page) => page.getByRole('button', { name: /^Undo|^Nothing to undo/ })

test('a style, level, capo, tuning or school is seen on the sheet before it is taken; put away it leaves no trace', async ({
  page,
}) => {
  await openStored(page, 'demo')
  const before = await settledFrets(page)
  const setup = await page.getByTestId('setup').textContent()
  const untouched = async () => {
    await expect(note(page)).toHaveCount(0)
    await expect.poll(() => settledFrets(page)).toEqual(before)
    await expect(page.getByTestId('setup')).toHaveText(setup!)
    await expect(undo(page)).toBeDisabled()
  }
  const seen = async () => {
    await expect(note(page)).toHaveText(/^As it would be: \d+ measures? otherwise, effort [\d.]+ → [\d.]+$/)
    await expect.poll(() => settledFrets(page)).not.toEqual(before)
  }
  // A style: by mouse, then by arrow keys.
  await page.getByRole('combobox', { name: 'Style' }).click()
  await page.getByRole('option', { name: 'Chord melody', exact: true }).hover()
  await seen()
  await page.keyboard.press('Escape')
  await untouched()
  await page.getByRole('combobox', { name: 'Style' }).focus()
  await page.keyboard.press('Enter')
  // The arrows go through the list once it is there.
  await expect(page.getByRole('option', { name: 'Chord melody', exact: true })).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await seen()
  await page.keyboard.press('Escape')
  await untouched()
  // A level, a capo, a tuning.
  await page.getByRole('radiogroup', { name: 'Level' }).locator('label').nth(4).hover()
  await seen()
  await page.mouse.move(600, 500)
  await untouched()
  await page.getByRole('button', { name: /^Capo|^No capo/ }).click()
  await page.getByRole('group', { name: 'Capo' }).getByRole('button').nth(5).hover()
  await seen()
  await expect(page.getByTestId('setup')).toContainText('capo 5')
  await page.keyboard.press('Escape')
  await untouched()
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'D A D G A D' }).hover()
  await seen()
  await page.keyboard.press('Escape')
  await untouched()
  // A school.
  await page.getByRole('button', { name: /^More/ }).click()
  await page.getByRole('combobox', { name: 'Fretting hand' }).click()
  await page.getByRole('option', { name: 'Stays in its position' }).hover()
  await expect(note(page)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await untouched()
  // Taken it stays, as one step.
  await page.getByRole('combobox', { name: 'Style' }).click()
  await page.getByRole('option', { name: 'Arpeggio', exact: true }).hover()
  await seen()
  const shown = await settledFrets(page)
  await page.getByRole('option', { name: 'Arpeggio', exact: true }).click()
  await done(page, 'Style: Arpeggio')
  await expect(note(page)).toHaveCount(0)
  await expect.poll(() => settledFrets(page)).toEqual(shown)
  await undo(page).click()
  await expect.poll(() => settledFrets(page)).toEqual(before)
})

test('a version is seen in the bench’s place before it is taken', async ({ page }) => {
  await openStored(page, 'demo')
  const before = await settledFrets(page)
  await page.getByRole('button', { name: 'History' }).click()
  const versions = page.getByTestId('versions')
  await versions.getByRole('button', { name: 'easy' }).click()
  await expect(versions.getByRole('group', { name: 'easy' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('radiogroup', { name: 'Level' }).locator('label').nth(4).click()
  await done(page, 'Level 5')
  const fuller = await settledFrets(page)
  expect(fuller).not.toEqual(before)
  await page.getByRole('button', { name: 'History' }).click()
  await versions.getByRole('group', { name: 'easy' }).getByRole('button', { name: 'To the bench' }).hover()
  await expect.poll(() => settledFrets(page)).toEqual(before)
  await page.mouse.move(400, 600)
  await expect.poll(() => settledFrets(page)).toEqual(fuller)
})
