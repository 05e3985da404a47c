import { expect, test } from '@playwright/test'
import {
  arrangePasted,
  chooseStyle,
  done,
  frets,
  openDemo,
  settledFrets,
  spoken,
  goToMeasure,
  switchLayer,
  openMore,
} from './bench.ts'

/** A song of our own, with words. */
const SONG =
  'X:1\nT:Attic Stairs\nM:4/4\nL:1/4\nQ:1/4=96\nK:C\n"C"EGc2|"F"AFA2|"G"BdB2|"C"c4|]\n' +
  'w: Up the stairs, down the hall, light the lamp once.\n'

test('a song is accompanied: words under the melody, a pattern that is chosen, laid and written', async ({
  page,
}) => {
  await openDemo(page, 'Letters from the Lock House')
  await expect(page.locator('.lyric').first()).toHaveText('Wa-')
  await expect(page.getByTestId('audit')).toContainText('the melody is sung')
  const before = await settledFrets(page)
  await page.getByRole('button', { name: 'Pattern: Millwheel' }).click()
  await expect(page.getByTestId('spoken-pattern')).toHaveText('On G: 6 with 1, 3, 4, 2, 6, 3, 4, 2')
  await page.getByRole('button', { name: 'Rowing boat' }).click()
  await expect(page.getByTestId('spoken-pattern')).toHaveText('On G: 6, 3, 2, 3, 1, 3, 2, 3')
  await page.getByRole('button', { name: 'Use this pattern' }).click()
  await done(page, 'Pattern: Rowing boat')
  const chosen = await settledFrets(page)
  expect(chosen).not.toEqual(before)
  // On the grid: string 1 joins the bass on beat 1.
  await page.getByRole('button', { name: 'Pattern: Rowing boat', exact: true }).click()
  await page.getByRole('button', { name: 'String 1, 1: 1' }).click()
  await expect(page.getByLabel('In writing')).toHaveValue('b1 3 2 3 1 3 2 3')
  await page.getByRole('button', { name: 'Use this pattern' }).click()
  await done(page, 'Pattern: your own')
  expect((await settledFrets(page)).length).toBeGreaterThan(chosen.length)
  // Kept under a name of one's own, it is there for other tunes too.
  await page.getByRole('button', { name: 'Pattern: your own', exact: true }).click()
  await page.getByLabel('Keep it for other tunes, as').fill('Slow ferry')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByText('Kept as Slow ferry.')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Pattern: Slow ferry', exact: true })).toBeVisible()
  const address = page.url()
  await arrangePasted(page, SONG)
  await chooseStyle(page, 'Picking pattern')
  await done(page, 'Style: Picking pattern')
  await page.getByRole('button', { name: /^Pattern:/ }).click()
  await page.getByRole('button', { name: 'Slow ferry', exact: true }).click()
  await expect(page.getByLabel('In writing')).toHaveValue('b1 3 2 3 1 3 2 3')
  await page.getByRole('button', { name: 'Take Slow ferry out of the library' }).click()
  await expect(page.getByRole('button', { name: 'Slow ferry', exact: true })).toHaveCount(0)
  await page.goto(address)
  // In writing: what cannot be read is said, with the way out, and not taken.
  await page.getByRole('button', { name: 'Pattern: your own', exact: true }).click()
  await page.getByLabel('In writing').fill('b 3 2')
  await expect(page.getByText('Measure 1 of the pattern has 3 steps, and 8 fill it. Add 5')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Use this pattern' })).toBeDisabled()
  await page.getByRole('button', { name: 'Back to the usual one' }).click()
  await done(page, 'Pattern: Millwheel')
  expect(await settledFrets(page)).toEqual(before)
})

test('a strum is said in words, placed by the arm, counted; asked about where it can fall in two ways', async ({
  page,
}) => {
  await arrangePasted(page, SONG)
  await chooseStyle(page, 'Strum')
  await done(page, 'Style: Strum')
  await page.getByRole('button', { name: /^Pattern:/ }).click()
  const words = page.getByLabel('Say a strum')
  await words.fill('down down down-up down-up')
  await words.press('Enter')
  await expect(page.getByText('It falls on 1, 2, 3, 3 &, 4, 4 &.')).toBeVisible()
  await expect(page.getByLabel('In writing')).toHaveValue('D . D . D U D U')
  await words.fill('down up')
  await page.getByRole('button', { name: 'Place it' }).click()
  await expect(page.getByText('It can fall in more than one way. Which is meant?')).toBeVisible()
  await words.fill('down dwn')
  await page.getByRole('button', { name: 'Place it' }).click()
  await expect(page.getByText('“dwn” is neither a down nor an up stroke.')).toBeVisible()
  await words.fill('down down down-up down-up')
  await words.press('Enter')
  await page.getByRole('button', { name: 'Use this pattern' }).click()
  await done(page, 'Pattern: your own')
  await switchLayer(page, 'Counts')
  await expect
    .poll(async () => (await page.locator('.count').allTextContents()).slice(0, 6))
    .toEqual(['1', '2', '3', '&', '4', '&'])
  // A full stroke on C takes five strings, the upstroke four at most.
  expect((await frets(page)).slice(0, 5).sort()).toEqual(['0', '0', '1', '2', '3'])
  await expect(page.getByTestId('audit')).toContainText('4 of 4 chords have their root')
})

test('what an accompaniment cannot do is said, and leads to its measure', async ({ page }) => {
  await arrangePasted(page, SONG)
  await chooseStyle(page, 'Picking pattern')
  await done(page, 'Style: Picking pattern')
  await page.getByRole('button', { name: /^Pattern:/ }).click()
  await page.getByLabel('In writing').fill('b . 6 . 3 . 2 .')
  await page.getByRole('button', { name: 'Use this pattern' }).click()
  await done(page, 'Pattern: your own')
  await page
    .getByTestId('remarks')
    .getByRole('button', { name: /^Measure 1: the shape of C mutes string 6; string . is plucked instead\./ })
    .click()
  await expect(page.getByText(/^Measure 1, beat 1/).first()).toBeVisible()
})

test('ornaments of the source are played, swapped in one action, and left out where asked', async ({
  page,
}) => {
  await arrangePasted(
    page,
    'X:1\nT:Linen Press\nM:4/4\nL:1/4\nQ:1/4=80\nK:D\n"D"(de) f2|"G"~g2 "A"{f}e2|"D"d e d2|"D"d4|]\n',
  )
  await expect(page.locator('.join-letter').first()).toHaveText('h')
  await expect(page.locator('.tab-grace').first()).toBeVisible()
  const plain = await settledFrets(page)
  // A slide in measure 3 in place of a plucked note.
  await goToMeasure(page, 3)
  await page.getByRole('group', { name: /Sheet|Linen Press/ }).press('ArrowRight')
  await page.getByTestId('sounded').getByText('Slide').click()
  await done(page, 'Slide in measure 3')
  await expect(page.locator('title', { hasText: /^Slide on string/ })).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await expect.poll(() => frets(page)).toEqual(plain)
  await openMore(page)
  await page.getByRole('button', { name: 'Ornaments: As written' }).click()
  await page.getByRole('menuitem', { name: /^Plain/ }).click()
  await page.keyboard.press('Escape')
  await done(page, 'Ornaments: Plain')
  await expect(page.locator('.join-letter')).toHaveCount(0)
  await expect(page.getByTestId('ornaments-left')).toContainText('2 ornaments are left out')
})

test('a bend before the stroke and an artificial harmonic are asked for, drawn, and spoken', async ({
  page,
}) => {
  await arrangePasted(
    page,
    'X:1\nT:Copper Gate\nM:4/4\nL:1/4\nQ:1/4=80\nK:D\n"D"d2 f e|"G"g f e d|"D"f2 a2|"A"e3 d|"D"d4|]\n',
  )
  const melody = page.locator('.tab-fret.melody')
  await melody.nth(1).click()
  await page.getByTestId('sounded').getByText('Bent before it is struck').click()
  await done(page, 'Bent before it is struck in measure 1')
  await expect(spoken(page)).toContainText('with the string pushed up before the stroke')
  await melody.nth(2).click()
  await expect(spoken(page)).toContainText('the bend released')
  await melody.nth(8).click()
  await page.getByTestId('sounded').getByText('Artificial harmonic').click()
  await done(page, 'Artificial harmonic in measure 3')
  await expect(melody.nth(8)).toHaveText(/^\d+‹\d+›/)
  await expect(spoken(page)).toContainText(
    /artificial harmonic: string \d stopped at fret \d+, touched over fret/,
  )
  await expect(page.getByTestId('audit')).toContainText('every melody note is kept')
  // Taken back, it is as it was.
  await page.getByTestId('sounded').getByText('Automatic').click()
  await expect(melody.nth(8)).not.toHaveText(/‹/)
})

test('an easier version is found by effort, tried, kept as an ossia for the second time round, and used', async ({
  page,
}) => {
  await openDemo(page, "Lamplighter's Round")
  await goToMeasure(page, 3)
  const full = await settledFrets(page)
  const panel = page.getByTestId('easier')
  await panel.getByText('Easier and fuller').click()
  await panel.getByText('Tune', { exact: true }).click()
  await panel.getByRole('button', { name: 'Look for versions' }).click()
  const rungs = panel.getByRole('listitem')
  await expect(rungs.filter({ hasText: 'as it is' })).toHaveCount(1)
  const efforts = (await rungs.locator('> b').allTextContents()).map(Number)
  expect(efforts).toEqual([...efforts].sort((a, b) => a - b))
  await rungs.first().getByRole('button', { name: 'Try' }).click()
  await expect.poll(async () => (await frets(page)).length).toBeLessThan(full.length)
  await rungs.first().getByRole('button', { name: 'Try' }).click()
  await expect.poll(() => frets(page)).toEqual(full)
  await rungs.first().getByRole('button', { name: 'Keep as ossia' }).click()
  const ossias = page.getByTestId('ossias')
  await ossias.getByRole('button', { name: 'Show on the sheet' }).click()
  await expect(page.getByTestId('ossia-shown')).toBeVisible()
  const easy = await settledFrets(page)
  expect(easy.length).toBeLessThan(full.length)
  await ossias.getByRole('combobox', { name: 'Played' }).click()
  await page.getByRole('option', { name: 'on pass 2' }).click()
  await done(page, 'Ossia on pass 2')
  await page.getByTestId('ossia-shown').getByRole('button', { name: 'Back to the main version' }).click()
  await expect.poll(() => frets(page)).toEqual(full)
  await page.reload()
  await expect(page.getByTestId('ossias').getByRole('combobox', { name: 'Played' })).toHaveValue('on pass 2')
  // Taught behind the usual measures, with its own sheet.
  await page.getByRole('link', { name: 'Teach' }).click()
  await page.getByText('Script', { exact: true }).click()
  const second = page.getByTestId('script').locator('section').filter({ hasText: ', the second time' })
  await second.first().getByRole('button').first().click()
  await expect(page.getByTestId('step')).toContainText('the second time')
  await expect.poll(async () => (await frets(page)).slice(0, 8)).toEqual(easy.slice(0, 8))
})

test('a twelve-bar form is made, shuffled with its turnaround, and needs no melody', async ({ page }) => {
  await arrangePasted(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'Twelve bars' }).click()
  await page.getByRole('combobox', { name: 'Form' }).click()
  await page.getByRole('option', { name: /^To the fourth/ }).click()
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.getByRole('heading', { name: 'Twelve bars in A' })).toBeVisible()
  await chooseStyle(page, 'Shuffle')
  await done(page, 'Style: Shuffle')
  // Root and fifth of A: string 5 open, string 4 at fret 2.
  expect((await settledFrets(page)).slice(0, 4)).toEqual(['0', '2', '0', '2'])
  await expect(page.getByTestId('audit')).toContainText('12 of 12 chords have their root')
})

test('the bottleneck asks for an open tuning, and lies straight across', async ({ page }) => {
  await openDemo(page, 'Siding at Sundown')
  await expect(page.getByTestId('audit')).toContainText('every melody note is kept')
  await expect(page.locator('title', { hasText: /^Slide on string/ }).first()).toBeAttached()
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'Standard', exact: true }).click()
  await expect(page.getByText('choose open D, open G or open C', { exact: false })).toBeVisible()
})
