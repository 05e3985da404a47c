import { expect, test, type Page } from '@playwright/test'
import { takeDemo } from './bench.ts'

const shape = (page: Page, frets: string) => page.locator(`.shape-pick[data-frets="${frets}"]`)

test('a teacher types a chord, picks a shape, and reads what each finger does and what must not ring', async ({
  page,
}) => {
  await page.goto('/shapes')
  await page.getByLabel('Chord', { exact: true }).fill('B')
  await shape(page, '7-x-4-4-4-x').click()
  const side = page.locator('.shapes-side')
  await expect(side.getByRole('heading', { name: 'B', exact: true })).toBeVisible()
  await expect(side).toContainText('low root under the little finger')
  await expect(side).toContainText('stretch 85 mm')
  const notes = page.getByTestId('shape-notes')
  await expect(notes).toContainText('String 5 is stopped by the flat side of finger 4')
  await expect(notes).toContainText('String 1 is not played: touching it is harmless')
  await expect(notes).toContainText('If every string rang, B6/9 would be heard')
  await side.getByText('Same notes, easier hand').click()
  await expect(side.locator('[data-same]').first()).toBeVisible()
})

test('wishes narrow the list; wishes that leave nothing say which one to give up', async ({ page }) => {
  await page.goto('/shapes?chord=C')
  await expect(shape(page, 'x-3-2-0-1-0')).toBeVisible()
  await page.getByText('Wishes: bass').click()
  await page.getByLabel('Bass note').fill('E')
  await expect(page.locator('.shapes-side').getByRole('heading', { name: 'C/E' })).toBeVisible()
  await expect(shape(page, 'x-3-2-0-1-0')).toHaveCount(0)
  await page.getByLabel('Widest stretch').fill('1')
  await page.getByLabel('Must ring').fill('1 2 3 4 5 6')
  await expect(page.getByRole('alert')).toContainText('No shape of C/E meets all of this')
  await page.getByRole('button', { name: 'Give up “Widest stretch”' }).click()
  await expect(page.locator('.shape-pick').first()).toBeVisible()
})

test('an unknown chord offers the nearest that is understood', async ({ page }) => {
  await page.goto('/shapes')
  await page.getByLabel('Chord', { exact: true }).fill('Cm7foo')
  await page.getByRole('button', { name: 'Take Cm7' }).click()
  await expect(page.getByLabel('Chord', { exact: true })).toHaveValue('Cm7')
  await expect(shape(page, 'x-3-5-3-4-3')).toBeVisible()
})

test('two shapes are compared with the way of every finger', async ({ page }) => {
  await page.goto('/shapes?chord=C')
  await shape(page, 'x-3-2-0-1-0').click()
  await page.getByRole('button', { name: 'Compare with the next' }).click()
  await page.getByLabel('Chord', { exact: true }).fill('Am')
  await shape(page, 'x-0-2-2-1-0').click()
  const compare = page.getByRole('region', { name: 'Two shapes compared' })
  await expect(compare).toContainText('From C to Am')
  await expect(compare).toContainText('1 stays on string 2 fret 1')
  await expect(page.getByTestId('best-pair')).toContainText('other fingers')
  await expect(compare).toContainText(/3 moves from string 5 fret 3 to string 3 fret 2, \d+ mm/)
})

test('places clicked on the neck are named, with the capo by shape and sound; a claim is checked', async ({
  page,
}) => {
  await page.goto('/shapes?do=name')
  const place = (string: number, fret: number) => page.locator(`[data-place="${string}.${fret}"]`)
  for (const [s, f] of [
    [5, 3],
    [4, 2],
    [3, 0],
    [2, 1],
    [1, 0],
  ] as const)
    await place(s, f).click()
  const names = page.getByTestId('names')
  await expect(names.getByRole('heading')).toHaveText('C')
  await page.getByRole('textbox', { name: 'Capo' }).fill('3')
  await expect(names.getByRole('heading')).toHaveText('C sounds E♭')
  await expect(page.getByTestId('same-pitch')).toContainText('G4 is also had on string 2 fret 5')
  await page.getByLabel('Check what was said of it').fill('G')
  await expect(page.getByTestId('claim')).toContainText('True: string 1 fret 0 is G4')
  await page.getByLabel('Check what was said of it').fill('2 of G')
  await expect(page.getByTestId('claim')).toContainText('Not so: string 1 fret 0 is G4, degree 1')
})

test('the neck is played by keyboard alone', async ({ page }) => {
  await page.goto('/shapes?do=name')
  await page.locator('[data-place="1.0"]').focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('Enter')
  for (let i = 0; i < 5; i++) await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowLeft')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('names')).toContainText('G')
  await expect.poll(() => new URL(page.url()).searchParams.get('places')).toBe('3-2-x-x-x-3')
})

test('a progression is laid out, what is not understood is said, the top note can lead', async ({ page }) => {
  await page.goto('/shapes?do=path')
  await page.getByLabel('Chords in a row').fill('C Am Fxx G')
  await expect(page.getByRole('alert')).toContainText('“Fxx” is left out')
  await expect(page.locator('.path > li')).toHaveCount(3)
  await expect(page.locator('.path > li').nth(1)).toContainText('1 stays on string 2 fret 1')
  await page.getByLabel('Chords in a row').fill('G Em C D')
  await expect(page.locator('.path > li')).toHaveCount(4)
  await page.getByText('and the top note').click()
  await expect(page.getByTestId('path-says')).toContainText('4 shapes')
})

test('the neck card: capo, tuning, safe frets, harmonics, bass strings', async ({ page }) => {
  await page.goto('/neck?capo=3')
  const capo = page.getByTestId('capo-table')
  await expect(capo.locator('tr.chosen')).toContainText('B♭')
  // G, Em, C, D shapes at capo 3 sound B flat, Gm, E flat, F (common practice).
  await expect(capo.locator('tr.chosen td')).toHaveText(['B♭', 'Gm', 'E♭', 'F', 'Cm', 'G', 'C', '82 mm'])
  await page.getByText('Tuning', { exact: true }).first().click()
  await page.goto('/neck?card=tuning')
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'Open D' }).click()
  const tuning = page.getByTestId('tuning-table')
  await expect(tuning.locator('tbody tr').first()).toContainText('down 2 semitones from E2')
  await expect(page.getByText('The open strings sound D.')).toBeVisible()
  await page.goto('/neck?card=scale&tuning=dadgad')
  await expect(page.getByTestId('safe-frets')).toContainText('0, 2, 4, 7, 9, 12')
  await page.goto('/neck?card=harmonics')
  const seventh = page.getByTestId('harmonics-table').getByRole('row', { name: /over fret 7/ })
  await expect(seventh).toContainText('E4')
  await expect(seventh).toContainText('+2')
  await page.goto('/neck?card=roots')
  await expect(page.locator('[data-root="G 6"]')).toBeVisible()
  await expect(page.locator('[data-root="C 5"]')).toBeVisible()
  await expect(page.locator('[data-root="D 4"]')).toBeVisible()
})

test('a tuning that cannot be is refused where it is typed', async ({ page }) => {
  await page.goto('/neck?card=tuning')
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'Own tuning…' }).click()
  await page.getByLabel('Notes, lowest string first').fill('D A D G A')
  await expect(page.getByText('6 notes are needed, 5 are there.')).toBeVisible()
  await page.getByLabel('Notes, lowest string first').fill('E2 A2 D3 G3 B3 E6')
  await expect(page.getByText(/it would break/)).toBeVisible()
  await page.getByLabel('Notes, lowest string first').fill('C G D G A D')
  await expect(page.getByTestId('tuning-table').locator('tbody tr').first()).toContainText('C2')
})

test('notes are called as the settings say, on every page; a smaller hand measures otherwise', async ({
  page,
}) => {
  await page.goto('/settings')
  await page.getByText('German: C Fis B H').click()
  await page.getByRole('button', { name: 'Add a hand' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Wren')
  await page.getByLabel('Fingers 1 and 4').fill('0')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('alert')).toContainText('0 mm is no reach')
  await page.getByRole('button', { name: 'Find it on the neck' }).click()
  await page.getByRole('button', { name: /frets 5 and 8/ }).click()
  await page.getByText('Left-handed').click()
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await page.getByTestId('players').getByRole('button', { name: 'Use' }).click()
  await page.goto('/shapes')
  await page.getByLabel('Chord', { exact: true }).fill('H7')
  await expect(page.locator('.shapes-side').getByRole('heading', { name: 'H7' })).toBeVisible()
  await expect(page.locator('.shapes-side')).toContainText(/of this hand’s [5-8]\d/)
  await page.reload()
  await expect(page.locator('.shapes-side').getByRole('heading', { name: 'H7' })).toBeVisible()
  // The demo comes arranged for the usual hand: the bench says so and offers this one.
  await takeDemo(page)
  await expect(page.getByText('arranged for another hand than the one in use (Wren)')).toBeVisible()
  await page.getByRole('button', { name: 'Arrange again' }).click()
  await expect(page.getByTestId('setup')).toContainText('Wren')
})

test('a pinned shape is held by the arranger, and can be taken off again', async ({ page }) => {
  await takeDemo(page)
  const bench = page.url()
  const name = (await page.locator('.chord-name').first().textContent())!
  await page.goto(`/shapes?chord=${encodeURIComponent(name.replace('♯', '#').replace('♭', 'b'))}`)
  const other = page.locator('.shape-pick[data-frets]').nth(2)
  await other.click()
  const frets = (await other.getAttribute('data-frets'))!
  await page.getByRole('button', { name: 'Pin to a tune' }).click()
  await page.getByRole('menuitem', { name: "Lamplighter's Round" }).click()
  await expect(page.getByText(/is pinned to/)).toBeVisible()
  await page.goto(bench)
  await expect(page.getByTestId('pins')).toContainText(frets)
  await page.getByRole('button', { name: 'Arrange again' }).click()
  await expect(page.getByRole('button', { name: 'Arrange again' })).toBeHidden()
  await page.getByRole('button', { name: /Take the .* shape off/ }).click()
  await expect(page.getByTestId('pins')).toHaveCount(0)
  await expect(page.getByText('The tune has changed since this was arranged.')).toBeVisible()
})

test('a tune is arranged in another tuning; the setup line, the neck and undo follow', async ({ page }) => {
  await takeDemo(page)
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'Drop D', exact: true }).click()
  await expect(page.getByTestId('setup')).toContainText('Drop D')
  await expect(page.getByText(/every melody note is kept/)).toBeVisible()
  await page.getByRole('button', { name: 'Undo: Tuning: Drop D' }).click()
  await expect(page.getByTestId('setup')).not.toContainText('Drop D')
})

test('every shape is listed on request, a handful at a time; the palette leads everywhere', async ({
  page,
}) => {
  await page.goto('/shapes?chord=C13')
  await expect(page.locator('.shape-pick').first()).toBeVisible()
  const few = await page.locator('.shape-pick[data-frets]').count()
  await page.getByRole('button', { name: 'Show every shape' }).click()
  await expect(page.getByRole('button', { name: /\d+ more…/ }).first()).toBeVisible()
  expect(await page.locator('.shape-pick[data-frets]').count()).toBeGreaterThan(few)
  await page.getByText('Wishes: bass').click()
  await page.getByLabel('Must ring').fill('9')
  await expect(page.getByText('string numbers')).toBeVisible()
  await page.keyboard.press('Control+k')
  await page.getByRole('textbox', { name: 'Find anything' }).fill('neck card')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Neck card' })).toBeVisible()
})

test('on a phone the finder is used by touch', async ({ browser }) => {
  const phone = await browser.newContext({
    viewport: { width: 390, height: 844 },
    hasTouch: true,
    isMobile: true,
  })
  const page = await phone.newPage()
  await page.goto('http://localhost:4317/shapes?chord=G')
  await page.locator('.shape-pick').nth(1).tap()
  await expect(page.locator('.shapes-side')).toContainText('Strum')
  const overflow = await page.evaluate(() => document.documentElement.scrollWidth > innerWidth + 1)
  expect(overflow).toBe(false)
  await phone.close()
})
