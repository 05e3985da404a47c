import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { arrangePasted, chooseLevel, paste, settledFrets } from './bench.ts'

const TUNE =
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=120\nK:C\n"C"cdec|"G7"d2 B2|"C"cege|"F"fagf|"C"edcd|"G7"dBGB|"C"c4|"C"c4|]\n'

const step = (page: Page) => page.getByTestId('step')
const count = (page: Page) => page.getByTestId('count')

async function toTeach(page: Page): Promise<void> {
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 2)
  await settledFrets(page)
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(count(page)).toHaveText('1')
}

test('a lesson goes step by step, by button and by key: count, fingers, what is plucked', async ({
  page,
}) => {
  await toTeach(page)
  await expect(step(page)).toContainText('Measure 1')
  await expect(step(page)).toContainText(/Put the \w+ finger on string \d, fret \d/)
  await expect(step(page)).toContainText(/Pluck/)
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(count(page)).toHaveText('2')
  await page.keyboard.press('ArrowRight')
  await expect(count(page)).toHaveText('3')
  await page.keyboard.press('PageUp')
  await expect(count(page)).toHaveText('2')
  await page.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Back', exact: true })).toBeDisabled()
  // A whole measure on; the sheet follows to the last one.
  await page.keyboard.press('Shift+ArrowRight')
  await expect(step(page)).toContainText('Measure 2')
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(step(page)).toContainText('Measure 8')
  await expect(page.locator('.chosen-column')).toBeInViewport()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(step(page)).toContainText('Measure 7')
  // Piece by piece: each begins where the last one ends, and says its hardest measure.
  const pieces = page.getByRole('list', { name: 'Pieces' })
  await expect(pieces.getByRole('button').first()).toHaveText('1 1–2')
  // The second measure holds its last note: the melody breathes there.
  await expect(pieces.getByRole('button').nth(1)).toHaveText('2 3–6')
  await pieces.getByRole('button').nth(1).click()
  await expect(step(page)).toContainText('Measure 3')
  await expect(page.locator('.teach-pieces')).toContainText(/Hardest: measure [3-6]/)
  await page.getByText('this piece', { exact: true }).click()
  await expect(page.locator('.marked-measure')).not.toHaveCount(0)
})

test('the words of the whole script are those of the tab; a line leads to its step', async ({ page }) => {
  await toTeach(page)
  await page.getByRole('button', { name: 'The whole script' }).click()
  const script = page.getByTestId('script')
  const lines = await script.getByRole('button').allInnerTexts()
  // Every fret on the sheet is named once, in the words "string n at fret m" or "string n open".
  const named = lines.flatMap((l) =>
    [...l.matchAll(/string \d (?:at fret (\d+)|open)/g)].map((m) => m[1] ?? '0'),
  )
  await page.getByRole('link', { name: 'Arrange' }).click()
  const onSheet = await settledFrets(page)
  expect([...named].sort()).toEqual([...onSheet].sort())
  await page.getByRole('link', { name: 'Teach' }).click()
  await page.getByRole('button', { name: 'The whole script' }).click()
  await script.getByRole('button').nth(4).click()
  await expect(step(page)).toContainText('Measure 2')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(
    violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`),
  ).toEqual([])
})

test('without a tab the stage says what to do', async ({ page }) => {
  await paste(page, TUNE)
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(page.getByRole('heading', { name: 'There is no tab to teach yet.' })).toBeVisible()
  await page.getByRole('main').getByRole('link', { name: 'Arrange this tune' }).click()
  expect((await settledFrets(page)).length).toBeGreaterThan(10)
})

test('on a phone everything is within reach', async ({ page }) => {
  await toTeach(page)
  await page.setViewportSize({ width: 390, height: 844 })
  for (const name of ['Back', 'Next']) {
    const box = (await page.getByRole('button', { name, exact: true }).boundingBox())!
    expect(box.height).toBeGreaterThanOrEqual(44)
    expect(box.x + box.width).toBeLessThanOrEqual(390)
  }
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(count(page)).toHaveText('2')
  await page.getByText('this measure', { exact: true }).click()
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.getByRole('button', { name: 'Stop' }).click()
})
