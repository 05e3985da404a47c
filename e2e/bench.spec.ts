import { expect, test } from '@playwright/test'
import { readFileSync } from 'node:fs'
import {
  arrangePasted,
  chooseLevel,
  chooseStyle,
  frets,
  paste,
  settledFrets,
  SMALL_TUNE,
  spoken,
  takeDemo,
  goToMeasure,
  openDemo,
} from './bench.ts'

test('a tune of one’s own becomes tab: pasted, read, arranged', async ({ page }) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
  await expect(page.getByText('C major · 4 measures · ♩ = 120')).toBeVisible()
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.locator('.chord-name')).toHaveText(['C', 'F', 'G7', 'C', 'C'])
  // Measure 1 at level 1: C in the bass under C D E C of the melody, in first position.
  await expect.poll(async () => (await frets(page)).slice(0, 5)).toEqual(['1', '3', '3', '0', '1'])
  await expect(page.locator('[data-drawn]').first()).toBeAttached()
})

test('style, level and capo change the arrangement; undo and redo bring each back', async ({ page }) => {
  await arrangePasted(page)
  const first = await frets(page)
  await chooseStyle(page, 'Alternating bass')
  await expect(page.getByRole('button', { name: 'Undo: Style: Alternating bass' })).toBeEnabled()
  await chooseLevel(page, 3)
  await expect(page.getByRole('button', { name: 'Undo: Level 3' })).toBeEnabled()
  const full = await settledFrets(page)
  expect(full.length).toBeGreaterThan(first.length)
  await page.getByRole('button', { name: 'Capo, now 0' }).click()
  await page.getByRole('button', { name: 'capo 5' }).hover()
  await expect(page.getByTestId('capo-example')).toContainText('goes on sounding; the hand holds')
  await page.getByRole('button', { name: 'capo 5' }).click()
  await expect(page.getByTestId('setup')).toContainText('shapes in G major · capo 5 · sounds C major')
  await expect(page.locator('.chord-name').first()).toHaveText('G')
  for (let i = 0; i < 2; i++) await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByRole('button', { name: 'Redo: Level 3' })).toBeEnabled()
  await page.getByRole('button', { name: /^Redo/ }).click()
  await expect.poll(() => frets(page)).toEqual(full)
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('Control+z')
  await page.keyboard.press('Control+z')
  await expect.poll(() => frets(page)).toEqual(first)
  await expect(page.getByRole('button', { name: 'Nothing to undo' })).toBeDisabled()
})

test('the sheet is walked by keys, and the neck and the spoken text follow', async ({ page }) => {
  await arrangePasted(page)
  const sheet = page.getByRole('group', { name: 'Sheet of Gate Latch' })
  await sheet.focus()
  await page.keyboard.press('ArrowRight')
  await expect(spoken(page)).toContainText('Measure 1, beat 1, C')
  await expect(spoken(page)).toContainText('string 5, fret 3, finger 3, picked with p')
  await expect(
    page.getByTestId('neck').getByRole('img', { name: 'Finger 3 on string 5 at fret 3' }),
  ).toBeAttached()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('neck-head')).toHaveText('Measure 1, beat 2')
  await page.keyboard.press('End')
  await expect(spoken(page)).toContainText('Measure 4, beat 1')
  await page.getByText('Why this grip').click()
  await expect(
    page.getByTestId('reasons').or(page.getByText('Nothing weighs against this grip.')),
  ).toBeVisible()
})

test('a click on the sheet selects, the effort ribbon goes to its measure', async ({ page }) => {
  await takeDemo(page)
  await page.locator('.tab-fret').nth(4).click()
  await expect(page.getByTestId('neck-head')).toContainText('Measure 1')
  await goToMeasure(page, 12)
  await expect(page.getByTestId('neck-head')).toHaveText('Measure 12, beat 1')
  await expect(page.locator('[data-system]').filter({ has: page.locator('.chosen-column') })).toBeInViewport()
})

test('only systems near the view are drawn on a long tune', async ({ page }) => {
  const music = Array.from({ length: 50 }, () => '"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|').join('\n')
  await arrangePasted(page, `X:1\nT:Long Lane\nM:4/4\nL:1/4\nK:C\n${music}`)
  const all = await page.locator('[data-system]').count()
  expect(all).toBeGreaterThan(40)
  await expect.poll(() => page.locator('[data-drawn]').count()).toBeGreaterThan(2)
  expect(await page.locator('[data-drawn]').count()).toBeLessThan(16)
  await page.getByRole('group', { name: 'Sheet of Long Lane' }).focus()
  await page.keyboard.press('End')
  await expect(spoken(page)).toContainText('Measure 200')
  await expect(page.locator(`[data-system="${all - 1}"] [data-drawn]`)).toBeAttached()
})

test('a tab that is reloaded loses nothing; removing has an undo; search, rename and duplicate work', async ({
  page,
}) => {
  await arrangePasted(page)
  await chooseLevel(page, 2)
  await expect(page.getByRole('button', { name: 'Undo: Level 2' })).toBeEnabled()
  const before = await settledFrets(page)
  await page.reload()
  await expect.poll(() => frets(page)).toEqual(before)
  await expect(page.getByRole('button', { name: 'Undo: Level 2' })).toBeEnabled()
  await page.getByRole('link', { name: 'Shelf' }).click()
  await page.getByRole('button', { name: /What to do with Gate Latch/ }).click()
  await page.getByRole('menuitem', { name: 'Duplicate' }).click()
  await expect(page.getByRole('link', { name: 'Gate Latch (copy)' })).toBeVisible()
  await expect(page.getByRole('menuitem')).toHaveCount(0)
  await page.getByRole('button', { name: 'What to do with Gate Latch (copy)' }).click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Hinge')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('link', { name: 'Hinge' })).toBeVisible()
  await page.getByLabel('Find a tune', { exact: true }).fill('hin')
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toHaveCount(0)
  await page.getByRole('button', { name: 'What to do with Hinge' }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await expect(page.getByText('No tune is called that.')).toBeVisible()
  await page.getByRole('button', { name: 'Put it back' }).click()
  await page.getByRole('link', { name: 'Hinge' }).click()
  await expect.poll(() => frets(page)).toEqual(before)
})

test('the ABC is edited in place: errors are marked, ids and undo survive, the arrangement turns stale', async ({
  page,
}) => {
  await arrangePasted(page)
  await page.getByRole('link', { name: /Tune$/ }).click()
  const editor = page.getByRole('textbox', { name: 'The tune in ABC' })
  await editor.click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type('"G"G2@A2|')
  await expect(page.getByText('1 error')).toBeVisible()
  await expect(page.getByTestId('problems')).toContainText('"@" means nothing here')
  await expect(page.locator('.cm-lintRange')).toBeVisible()
  await expect(page.getByText('5 measures')).toBeVisible()
  await page.locator('.rail a', { hasText: 'Arrange' }).click()
  await expect(page.getByText('The tune has changed since this was arranged.')).toBeVisible()
  await page.getByRole('button', { name: 'Arrange again' }).click()
  await expect(page.getByText('The tune has changed since this was arranged.')).toBeHidden()
  await expect(page.locator('.measure-number').last()).toHaveText('5')
})

test('Space plays and stops, the cursor moves, the loop stays in its measures', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(page.getByTestId('play-cursor')).toHaveAttribute('data-measure', '1')
  await expect(page.getByTestId('play-cursor')).toHaveAttribute('data-measure', '2')
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await expect(page.getByTestId('play-cursor')).toBeHidden()
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Playing', exact: true }).click()
  await expect(page.getByText('Measure 4 is marked')).toBeVisible()
  await goToMeasure(page, 3)
  await page.getByRole('button', { name: 'Extend to measure 3' }).click()
  await expect(page.getByText('Measures 3–4 are marked')).toBeVisible()
  await page.getByRole('button', { name: 'Clear the mark' }).click()
  await goToMeasure(page, 4)
  await page.getByRole('button', { name: 'Mark measure 4' }).click()
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('Space')
  await expect(page.getByTestId('play-cursor')).toHaveAttribute('data-measure', '4')
  // The cursor runs to the end of the measure and begins it again.
  const cursor = page.getByTestId('play-cursor')
  const across = async () => (await cursor.boundingBox())?.x ?? 0
  let furthest = 0
  await expect
    .poll(async () => {
      const x = await across()
      const again = x < furthest - 40
      furthest = Math.max(furthest, x)
      return again
    })
    .toBe(true)
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(cursor).toHaveAttribute('data-measure', '4')
})

test('a marked measure goes faster loop by loop; a voice is turned off while it plays', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Playing', exact: true }).click()
  const panel = page.getByRole('group', { name: 'Playing', exact: true })
  const tempo = panel.getByRole('slider', { name: /^Tempo/ })
  await tempo.focus()
  await tempo.press('ArrowLeft')
  await tempo.press('ArrowLeft')
  await expect(panel).toContainText('Tempo · 90 %')
  await panel.getByRole('radiogroup', { name: 'A little faster after' }).getByText('each loop').click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await panel.getByRole('radiogroup', { name: 'Bass' }).getByText('Off').click()
  await expect(
    panel.getByRole('radiogroup', { name: 'Bass' }).getByRole('radio', { name: 'Off' }),
  ).toBeChecked()
  await expect(panel).toContainText('Tempo · 95 %')
  await expect(panel).toContainText('Tempo · 100 %')
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
})

test('the tab is downloaded as aligned text and printed without a broken system', async ({ page }) => {
  await takeDemo(page)
  const waiting = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Export' }).click()
  await page.getByRole('menuitem', { name: 'Tab as text' }).click()
  const download = await waiting
  expect(download.suggestedFilename()).toBe("Lamplighter's Round.txt")
  const text = readFileSync(await download.path(), 'utf8')
  expect(text).toContain('capo 2; chord names are shapes')
  expect(text.split('\n').filter((l) => /^[EADGB] \|/.test(l)).length % 6).toBe(0)
  await page.getByRole('button', { name: 'Export' }).click()
  await page.getByRole('menuitem', { name: 'Print' }).click()
  await expect(page.getByText('Capo 2, chord names are shapes; sounds A major')).toBeVisible()
  await expect
    .poll(() => page.locator('[data-drawn]').count())
    .toBe(await page.locator('[data-system]').count())
  expect(
    await page
      .locator('.system')
      .first()
      .evaluate((e) => getComputedStyle(e).breakInside),
  ).toBe('auto')
  await page.emulateMedia({ media: 'print' })
  expect(
    await page
      .locator('.system')
      .first()
      .evaluate((e) => getComputedStyle(e).breakInside),
  ).toBe('avoid')
  await expect(page.getByRole('link', { name: 'Back to the bench' })).toBeHidden()
})

test('everything is in the palette, and the keys are listed under ?', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Space')
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+k')
  await page.getByRole('textbox', { name: 'Find anything' }).fill('print')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Back to the bench' })).toBeVisible()
})

test('a file dropped on the Shelf is read', async ({ page }) => {
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'Teach a tune on guitar or mandolin' })).toBeVisible()
  const data = await page.evaluateHandle((abc) => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([abc], 'gate.abc', { type: 'text/plain' }))
    return transfer
  }, SMALL_TUNE)
  await page.dispatchEvent('body', 'dragenter', { dataTransfer: data })
  await expect(page.getByText('Let go to put it on the shelf')).toBeVisible()
  await page.dispatchEvent('body', 'drop', { dataTransfer: data })
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
})

test('long work shows its progress, can be stopped, and leaves the arrangement as it was', async ({
  page,
}) => {
  test.setTimeout(300_000)
  const music = Array.from(
    { length: 120 },
    (_, i) => `"C"c2ge "Am"aec${'ABcdefg'[i % 7]}|"F"fagf "G7"gfdB|"Dm"dfaf "G"gbgd|"C"c2e2 c4|`,
  ).join('\n')
  await arrangePasted(page, `X:1\nT:Long Lane\nM:4/4\nL:1/8\nK:C\n${music}`)
  await chooseStyle(page, 'Alternating bass')
  await expect(page.getByRole('button', { name: 'Undo: Style: Alternating bass' })).toBeEnabled()
  const before = await settledFrets(page)
  await chooseLevel(page, 5)
  await expect(page.getByRole('progressbar', { name: 'Arranging' })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(page.getByRole('progressbar', { name: 'Arranging' })).toBeHidden()
  expect(await settledFrets(page)).toEqual(before)
  await expect(page.getByRole('button', { name: 'Undo: Style: Alternating bass' })).toBeEnabled()
  await expect(page.getByRole('radio', { name: 'Level 1' })).toBeChecked()
})

test('the independent audit speaks under the neck', async ({ page }) => {
  await arrangePasted(page)
  await expect(page.getByTestId('audit')).toHaveText(
    'Checked: every melody note is kept, 5 of 5 chords have their root.',
  )
})

test('text that is being typed survives a killed tab, readable or not', async ({ page, context }) => {
  await paste(page, SMALL_TUNE)
  const editor = page.getByRole('textbox', { name: 'The tune in ABC' })
  await editor.click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('not yet a tune')
  const address = page.url()
  await page.close({ runBeforeUnload: false })
  const again = await context.newPage()
  await again.goto(address)
  await expect(again.getByRole('textbox', { name: 'The tune in ABC' })).toContainText('not yet a tune')
  await expect(again.getByText('The tune below is the last one that could.')).toBeVisible()
  await expect(again.getByText('4 measures')).toBeVisible()
})

test('the neck is walked by keys', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('button', { name: 'String 1, fret 0: E4' }).focus()
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowLeft')
  await expect(page.getByRole('button', { name: 'String 2, fret 1: C4' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByText('The sound could not start')).toHaveCount(0)
})

test('over the sheet stand fifteen controls at most, and two whole systems are in view; the player covers none', async ({
  page,
}) => {
  await openDemo(page, 'The Ferry at Dusk')
  await page.locator('[data-drawn]').first().waitFor()
  for (const size of [
    { width: 1280, height: 800 },
    { width: 1366, height: 768 },
  ]) {
    await page.setViewportSize(size)
    const head = page.locator('.bench-head')
    // Buttons and fields; what is chosen among several (the level) is one.
    const single = await head.locator('button:visible, input:not([type="radio"]):visible').count()
    const several = await head.locator('[role="radiogroup"]:visible').count()
    expect(single + several).toBeLessThanOrEqual(15)
    const player = (await page.getByRole('button', { name: 'Play', exact: true }).boundingBox())!
    const whole = await page
      .locator('[data-system]')
      .evaluateAll(
        (lines, top) => lines.filter((l) => l.getBoundingClientRect().bottom <= top).length,
        player.y,
      )
    expect(whole).toBeGreaterThanOrEqual(2)
  }
  // Nothing is chosen yet, and the neck is not empty.
  await expect(page.getByText('Click a note on the sheet', { exact: true })).toBeVisible()
  await expect(page.getByTestId('neck-head')).toContainText('Pickup, beat 3')
})

test('a tab is there before the font of its staff, and the staff as soon as the font is', async ({
  page,
}) => {
  let isAsked!: () => void
  let bring!: () => void
  const asked = new Promise<void>((done) => (isAsked = done))
  const brought = new Promise<void>((done) => (bring = done))
  await page.route(/bravura.*\.woff2$/, async (route) => {
    isAsked()
    await brought
    await route.continue()
  })
  await page.goto('/')
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page.getByLabel('What you have as text').fill(SMALL_TUNE)
  await page.getByRole('button', { name: 'Take it' }).click()
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await asked
  await expect(page.locator('.vf-stavenote')).toHaveCount(0)
  bring()
  await expect(page.locator('.vf-stavenote').first()).toBeVisible()
})
