import { writeFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { openStored } from './stored.ts'
import { wavFile } from './wav.ts'

const words = (page: Page) => page.getByTestId('climb-words')
const now = (page: Page) => page.getByTestId('ladder').locator('[aria-current="step"]')
const list = (page: Page) => page.getByTestId('practise-today').getByRole('listitem')
const times = async (page: Page, key: string, n: number) => {
  for (let i = 0; i < n; i++) await page.keyboard.press(key)
}

async function practiseAs(page: Page, name: string): Promise<void> {
  await openStored(page, 'demo')
  await page.goto('/students')
  await page.getByTestId('roster').getByRole('link', { name }).click()
  await page.getByTestId('given-tunes').getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await page.getByRole('link', { name: 'Practise' }).click()
}

test('a piece rises only when it is clean, falls after two misses, and is written into the student’s log', async ({
  page,
}) => {
  await practiseAs(page, 'Wren Tallow')
  await expect(page.getByRole('button', { name: 'For Wren Tallow' })).toBeVisible()
  await expect(list(page).first()).toContainText('hard')
  await expect(page.getByRole('heading', { name: 'Piece 3, measures 9 to 12' })).toBeVisible()
  // It begins where it was clean already.
  await expect(now(page)).toHaveText('♩ = 72')
  await page.getByRole('button', { name: 'Clean' }).click()
  await expect(words(page)).toHaveText('1 of 3 clean ones in a row at ♩ = 72')
  await times(page, 'c', 2)
  await expect(now(page)).not.toHaveText('♩ = 72')
  await expect(words(page)).toContainText('0 of 3')
  await times(page, 'x', 1)
  await expect(now(page)).not.toHaveText('♩ = 72')
  await times(page, 'x', 1)
  await expect(now(page)).toHaveText('♩ = 72')
  await page.getByRole('button', { name: 'Write it down' }).click()
  await expect(page.getByTestId('written')).toHaveText(
    'Written down: Piece 3, measures 9 to 12, ♩ = 72, 3 clean in a row.',
  )
  // It was practised today: it is no more on the list, and the next one is at hand.
  await expect(list(page).filter({ hasText: 'Piece 3' })).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Piece 5, measures 16 to 20' })).toBeVisible()
  await page.reload()
  await expect(list(page).first()).toContainText('Piece 5')
})

test('what is practised is heard in a loop at the tempo of the ladder, with the hand on the neck', async ({
  page,
}) => {
  await practiseAs(page, 'Wren Tallow')
  await expect(page.getByTestId('neck')).toBeVisible()
  await page.getByRole('button', { name: 'Play it in a loop' }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: /: stop the clock$/ })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Play it in a loop' })).toBeVisible()
})

test('without a tab the stage says so', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Write a new tune' }).click()
  await expect(page).toHaveURL(/\/tune/)
  await page.goto(page.url().replace(/tune\?.*$|tune$/, 'practise'))
  await expect(page.getByText('There is no tab to practise yet.')).toBeVisible()
})

test('a recording of one’s own: slower, measures marked, the loop and the sheet go by it; kept only when asked', async ({
  page,
}, info) => {
  await practiseAs(page, 'Wren Tallow')
  const path = info.outputPath('porch tape.wav')
  writeFileSync(
    path,
    wavFile(120, (t) => 0.4 * Math.sin(2 * Math.PI * 220 * t)),
  )
  const panel = page.getByTestId('recording')
  await panel.getByText('A recording of my own').click()
  await panel.locator('input[type=file]').setInputFiles(path)
  await expect(panel).toContainText('porch tape.wav')
  await expect(panel).toContainText('it is gone when you leave this page')
  // Two measures marked while it plays.
  await panel.getByRole('button', { name: 'Play the recording' }).click()
  await expect(panel.getByTestId('recording-time')).toHaveText(/^at [1-9]/)
  await panel.getByRole('button', { name: 'Measure 0 begins now' }).click()
  await expect(panel.getByTestId('recording-time')).toHaveText(/^at [3-9]/)
  await panel.getByRole('button', { name: 'Measure 1 begins now' }).click()
  await expect(panel.getByTestId('marks').getByRole('listitem')).toHaveCount(2)
  await panel.getByRole('button', { name: 'Stop the recording' }).click()
  // The piece is measures 9 to 12: that is where it begins now, and the sheet goes with it.
  await panel.getByRole('button', { name: 'Play the recording' }).click()
  await expect(page.getByTestId('play-cursor')).toHaveAttribute('data-measure', /^(9|10|11|12)$/)
  await panel.getByRole('button', { name: 'Stop the recording' }).click()
  const slider = panel.getByRole('slider')
  await slider.focus()
  for (let i = 0; i < 8; i++) await slider.press('ArrowLeft')
  await expect(panel).toContainText('Speed 60 %, same pitch')
  // Gone with the page; kept when asked for.
  await panel.getByRole('button', { name: 'Keep it on this device' }).click()
  await expect(panel).toContainText('Kept in this browser with its marks')
  await page.reload()
  await panel.getByText('A recording of my own').click()
  await expect(panel).toContainText('porch tape.wav')
  await expect(panel.getByTestId('marks').getByRole('listitem')).toHaveCount(2)
  await panel.getByRole('button', { name: 'Do not keep it any more' }).click()
  await expect(panel).toContainText('A file on this device')
})
