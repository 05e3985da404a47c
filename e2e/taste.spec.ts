import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { arrangePasted, chooseLevel, chooseStyle, done, settledFrets } from './bench.ts'
import { openStored } from './stored.ts'

// Tall enough that the systems of the first measures are drawn.
test.use({ viewport: { width: 1280, height: 1000 } })

/** A tune of our own that rests on G. */
const NEXT = 'X:1\nT:Slow Gate\nM:4/4\nL:1/4\nQ:1/4=84\nK:G\n"G"GBdB|"C"c2e2|"G"dBGB|"G"G4|]\n'

/** The finger on the bass of a measure's first beat, by hand. */
async function fingerBass(page: Page, measure: number, finger: number): Promise<void> {
  await page.locator(`[data-note^="b.m${measure}.0"]`).click()
  await expect(page.locator('.write-where')).toContainText('string 6: bass')
  await page.keyboard.press(`Shift+Digit${finger}`)
  await expect(
    page.getByTestId('write-bar').getByRole('button', { name: `Finger ${finger}` }),
  ).toHaveAttribute('aria-pressed', 'true')
}

const notice = (page: Page) => page.getByTestId('taste-notice')

test('two measures corrected, and the next tune comes out that way and says so; the taste is read, edited, saved, switched off', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await page.goto('/')
  await page.getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await settledFrets(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await fingerBass(page, 2, 3)
  await expect(notice(page)).toHaveCount(0)
  await fingerBass(page, 3, 3)
  await expect(notice(page)).toContainText(
    '2 times you chose so: G is 3-2-4 (3-2-0-0-0-3) (The Ferry at Dusk, measures 1, 2). Keep to it?',
  )
  await notice(page).getByRole('button', { name: 'Always' }).click()
  await expect(notice(page)).toHaveCount(0)
  // The next tune, from its first arrangement on.
  await arrangePasted(page, NEXT)
  await settledFrets(page)
  await chooseStyle(page, 'Arpeggio')
  await done(page, 'Style: Arpeggio')
  await chooseLevel(page, 3)
  await done(page, 'Level 3')
  await settledFrets(page)
  await expect(page.getByTestId('taste')).toHaveText('Arranged to your taste “My way”.')
  const bass = page.locator('[data-note^="b."]').first()
  await expect(bass).toHaveText(/string 6, fret 3/)
  // Its own page.
  await page.getByRole('link', { name: 'Taste' }).click()
  const entries = page.getByTestId('taste-entries')
  await expect(entries.getByRole('row').nth(1)).toContainText('G is 3-2-4 (3-2-0-0-0-3)')
  await expect(entries.getByRole('row').nth(1)).toContainText('The Ferry at Dusk, measures 1, 2')
  await page.getByRole('combobox', { name: 'Like or dislike' }).click()
  await page.getByRole('option', { name: 'open strings: few' }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(entries.getByRole('row')).toHaveCount(3)
  await page.getByRole('combobox', { name: 'open strings: few: How much' }).click()
  await page.getByRole('option', { name: 'strongly' }).click()
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as a file' }).click()
  const file = await (await saving).path()
  expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({
    format: 'velvet-porch-taste',
    entries: [{ says: { kind: 'shape' } }, { says: { feature: 'open', price: 6 } }],
  })
  // Another taste since: the tab stays, what would change is said, shown, and taken in one step.
  await page.goBack()
  const line = page.getByTestId('taste')
  await expect(line).toContainText('Arranged to the taste “My way”, as it was then.')
  await expect(line).toContainText(/Done your way \d measures? would change: /)
  const before = await settledFrets(page)
  await line.getByRole('button', { name: 'Show it on the sheet' }).click()
  await expect.poll(() => settledFrets(page)).not.toEqual(before)
  await line.getByRole('button', { name: 'Show it on the sheet' }).click()
  await expect.poll(() => settledFrets(page)).toEqual(before)
  await line.getByRole('button', { name: 'Take it' }).click()
  await done(page, 'Taste: My way')
  await expect(line).toHaveText('Arranged to your taste “My way”.')
  const after = await settledFrets(page)
  expect(after).not.toEqual(before)
  // Switched off: the house's, offered and not taken.
  await page.getByRole('link', { name: 'Taste' }).click()
  await page.getByRole('combobox', { name: 'New tunes are arranged to' }).click()
  await page.getByRole('option', { name: 'the house’s taste' }).click()
  await expect(entries).toHaveCount(0)
  await page.goBack()
  await expect(line).toContainText('To the house’s taste')
  expect(await settledFrets(page)).toEqual(after)
  // The file brings it back, and one that is none is refused.
  await page.getByRole('link', { name: 'Taste' }).click()
  await page.locator('input[type=file]').setInputFiles(file)
  await expect(page.getByText('“My way” was brought in: 2 entries.')).toBeVisible()
  await expect(entries.getByRole('row')).toHaveCount(3)
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'odd.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"x"}') })
  await expect(page.getByText(/This is not a taste that can be read/)).toBeVisible()
})
