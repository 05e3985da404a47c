import { expect, test, type Page } from '@playwright/test'
import AxeBuilder from '@axe-core/playwright'
import { arrangePasted, frets, openDemo, SMALL_TUNE } from './bench.ts'
import { wavFile } from './wav.ts'

/** A small sweep: two tunings, a capo up to the second fret. */
async function fitSmall(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Fit' }).click()
  await page.getByRole('checkbox', { name: 'D A D G A D' }).uncheck()
  const top = page.getByRole('slider', { name: 'Highest capo' })
  await top.focus()
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowLeft')
  await expect(page.getByText('Capo at 0 to 2')).toBeVisible()
}

async function sweep(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^Find keys/ }).click()
  await expect(page.getByRole('button', { name: 'Find keys again' })).toBeVisible({ timeout: 90_000 })
}

const rows = (page: Page) => page.getByRole('table').locator('tbody tr')

test('tuning, key and capo are fitted: options with their price, one is seen, heard, used and undone', async ({
  page,
}) => {
  await arrangePasted(page)
  const before = await frets(page)
  await fitSmall(page)
  await page.getByRole('combobox', { name: 'Keys allowed' }).click()
  await page.getByRole('option', { name: 'Only D major' }).click()
  await sweep(page)
  await expect(page.getByTestId('fit-status')).toContainText('6 choices, 6 of them arranged in full')
  // The best stands first, in full.
  await expect(rows(page).first()).toContainText('trade-off')
  await expect(page.getByTestId('fit-detail').locator('.tab-fret').first()).toBeVisible()
  await page.getByRole('button', { name: 'Hear eight measures' }).click()
  await expect(page.getByTestId('fit-detail').getByRole('button', { name: 'Stop' })).toBeVisible()
  await page.getByTestId('fit-detail').getByRole('button', { name: 'Stop' }).click()
  // An option two frets up is looked at, worked out, and taken.
  const row = rows(page).filter({ hasText: /Standard2D majorC major/ })
  // Under the pointer it is shown for a while; a click keeps it.
  await row.hover()
  const detail = page.getByTestId('fit-detail')
  await expect(detail).toContainText('Standard, capo 2, sounds D major')
  await page.getByRole('heading', { level: 1 }).hover()
  await expect(detail).not.toContainText('Standard, capo 2, sounds D major')
  await row.click()
  await expect(detail).toContainText('Standard, capo 2, sounds D major')
  await expect(page.getByRole('button', { name: 'Use this' })).toBeVisible()
  await page.getByRole('button', { name: 'Use this' }).click()
  await expect(page.getByTestId('setup')).toHaveText(
    'shapes in C major · capo 2 · sounds D major · 2 semitones above its key · an octave lower',
  )
  await expect(page.getByTestId('audit')).toContainText('every melody note is kept')
  await expect.poll(() => frets(page)).toEqual(before)
  await page.getByRole('button', { name: /^Undo: Fit:/ }).click()
  await expect(page.getByTestId('setup')).toHaveText('C major · an octave lower')
})

test('a copy takes the option, and the tune stays as it is', async ({ page }) => {
  await arrangePasted(page)
  await fitSmall(page)
  await sweep(page)
  await page.getByRole('button', { name: 'Use it on a copy' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(/^Gate Latch in /)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Gate Latch', exact: true })).toBeVisible()
})

test('a singer, a wish and partners: notes outside, another order at once, parts for everybody', async ({
  page,
}) => {
  await openDemo(page, 'Letters from the Lock House')
  await fitSmall(page)
  await page.getByRole('combobox', { name: 'Voice' }).click()
  await page.getByRole('option', { name: 'A range of their own' }).click()
  const range = page.getByLabel('Lowest and highest comfortable note')
  await range.fill('D5-A3')
  await expect(page.getByText('The lowest note is above the highest: write A3-D5.')).toBeVisible()
  await range.fill('tall')
  await expect(page.getByText('Write the lowest and the highest note, such as A3-D5.')).toBeVisible()
  await range.fill('G3-C4')
  await expect(page.getByTestId('narrow')).toContainText('wider than this voice')
  await range.fill('A3-D5')
  await expect(page.getByTestId('narrow')).toHaveCount(0)
  await sweep(page)
  await expect(page.getByRole('columnheader', { name: 'Out of range' })).toBeVisible()
  const order = async () => (await rows(page).allInnerTexts()).join()
  const before = await order()
  await page.getByText('What matters').click()
  const near = page.getByRole('radiogroup', { name: 'Near the wished key' })
  await near.getByText('not', { exact: true }).click()
  await page.getByRole('radiogroup', { name: 'A low capo' }).getByText('most').click()
  await page.getByRole('radiogroup', { name: 'Open bass strings' }).getByText('not', { exact: true }).click()
  await page.getByRole('radiogroup', { name: 'Easy to play' }).getByText('most').click()
  await expect.poll(order).not.toBe(before)
  await page.getByText('Second guitar').click()
  await page.getByText('Instrument in B♭').click()
  const parts = page.getByTestId('partners')
  await expect(parts.getByRole('heading', { name: /Second guitar/ })).toBeVisible()
  await expect(parts.getByRole('heading', { name: /Instrument in B♭/ })).toContainText(
    'written 2 semitones above what sounds',
  )
})

test('the picture is walked by keys, and read out', async ({ page }) => {
  await arrangePasted(page)
  await fitSmall(page)
  await sweep(page)
  // 72 settings, some of them in two octaves: a column says which.
  await expect(page.getByTestId('fit-status')).toContainText(/1\d\d choices/)
  const octave = await page
    .getByRole('columnheader', { name: 'Octave' })
    .evaluate((th) => (th as HTMLTableCellElement).cellIndex)
  const octaves = await rows(page)
    .locator(`> :nth-child(${octave + 1})`)
    .allInnerTexts()
  expect(new Set(octaves).size).toBeGreaterThan(1)
  const chart = page.getByRole('slider', { name: /Effort against the distance/ })
  await chart.focus()
  const said = () => chart.getAttribute('aria-valuetext')
  const at = await said()
  expect(at).toMatch(/capo \d, sounds .* major.*, effort \d/)
  await page.keyboard.press('ArrowRight')
  await expect.poll(said).not.toBe(at)
  await page.keyboard.press('ArrowLeft')
  await expect.poll(said).toBe(at)
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(
    violations.filter((v) => v.impact === 'serious' || v.impact === 'critical').map((v) => v.id),
  ).toEqual([])
})

test('a sweep is stopped at once, keeps what it found; nothing allowed is said', async ({ page }) => {
  const music = Array.from({ length: 24 }, () => '"C"c2ge "Am"aecA|"F"fagf "G7"gfdB|').join('\n')
  await arrangePasted(page, `X:1\nT:Long Lane\nM:4/4\nL:1/8\nK:C\n${music}`)
  await page.getByRole('link', { name: 'Fit' }).click()
  await page.getByRole('button', { name: 'Find keys' }).click()
  await expect(rows(page).first()).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByTestId('fit-status')).toContainText('Stopped; what was found stays.')
  await expect(rows(page).first()).toBeVisible()
  for (const name of ['Standard', 'Drop D', 'D A D G A D'])
    await page.getByRole('checkbox', { name, exact: true }).uncheck()
  await expect(page.getByText('No tuning is allowed: tick at least one.')).toBeVisible()
  await expect(page.getByRole('button', { name: /^Find keys/ })).toBeDisabled()
})

/** A WAV file of chords, half a second each, every pitch off by some cents. */
const wav = (chords: readonly (readonly number[])[], cents: number): Buffer =>
  wavFile(chords.length / 2, (t) => {
    let x = 0
    for (const midi of chords[Math.min(chords.length - 1, Math.floor(2 * t))]!) {
      const f = 440 * 2 ** ((midi - 69 + cents / 100) / 12)
      for (let k = 1; k <= 4; k++)
        x += (0.12 / k ** 1.5) * Math.exp(-2 * (t % 0.5)) * Math.sin(2 * Math.PI * f * k * t)
    }
    return x
  })

test('a recording says its pitch in cents and its likely keys; what is none is refused', async ({ page }) => {
  await arrangePasted(page, SMALL_TUNE)
  await page.getByRole('link', { name: 'Fit' }).click()
  const recording = page.getByTestId('recording')
  const give = async (name: string, buffer: Buffer) => {
    const chooser = page.waitForEvent('filechooser')
    await recording.getByRole('button', { name: 'Look at a recording' }).click()
    await (await chooser).setFiles({ name, mimeType: 'audio/wav', buffer })
  }
  // D, G and A major chords, 23 cents sharp.
  const chords = [
    [50, 66, 69],
    [55, 62, 71],
    [57, 61, 64],
    [50, 62, 66],
    [55, 59, 62],
    [57, 64, 69],
    [50, 66, 74],
    [50, 62, 69],
  ]
  await give('porch.wav', wav(chords, 23))
  await expect(recording).toContainText(/2[234] cents sharp of A = 440 Hz/)
  await recording.getByRole('button', { name: 'D major' }).click()
  await expect(page.getByRole('combobox', { name: 'Preferred key' })).toHaveValue('D major')
  await give('notes.wav', Buffer.from('this is no sound'))
  await expect(recording).toContainText('notes.wav cannot be decoded as audio')
  await give(
    'still.wav',
    wav(
      Array.from({ length: 8 }, () => []),
      0,
    ),
  )
  await expect(recording).toContainText('still.wav is silent.')
})
