import { expect, test, type Page } from '@playwright/test'
import { arrangePasted, chooseLevel, done, openDemo, paste, settledFrets } from './bench.ts'

test.use({ viewport: { width: 1280, height: 1000 } })

const TUNE =
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=120\nK:D\n"D"dedc|"G"B2"A"c2|"D"dcBA|"D"d4|"G"bagf|"A"e2c2|"D"d4|"D"d4|]\n'

const sheet = (page: Page) => page.getByRole('group', { name: /^Sheet of/ })
const text = (page: Page) =>
  page.locator('.cm-line').evaluateAll((lines) => lines.map((l) => l.textContent).join('\n'))

/** Takes the pen on the Tune stage and goes to the first note. */
async function penAtStart(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await sheet(page).focus()
  await page.keyboard.press('Home')
  await expect(page.locator('.write-where')).toContainText('Measure 1, beat 1')
}

test('each system opens its own ABC beneath it; what does not match any note is counted', async ({
  page,
}) => {
  await paste(page, TUNE)
  const line = page.getByRole('button', { name: /^ABC of the line from measure/ }).nth(1)
  const name = (await line.getAttribute('aria-label'))!
  const number = Number(/\d+/.exec(name)![0])
  await line.click()
  const own = page.getByLabel(`ABC from measure ${number}`, { exact: true })
  const whole = await text(page)
  expect(whole).toContain((await own.inputValue()).trim())
  await own.press('Home')
  await own.pressSequentially('"Bm"f4|')
  await expect(page.getByTestId('aligned')).toContainText('1 notes are new and 0 are gone')
  await expect.poll(() => text(page)).toContain('"Bm"f4|')
  await own.press('Escape')
  await expect(page.getByText('9 measures')).toBeVisible()
  await page.getByText('Compare with the original').click()
  await expect(page.getByTestId('departures')).toContainText('1 measure departs from it')
  await expect(page.getByTestId('departures')).toContainText(`Measure ${number} is new`)
  // The other lines hold what they held.
  await page.getByRole('button', { name: 'ABC of the line from measure 1', exact: true }).click()
  expect(whole).toContain(
    (await page.getByLabel('ABC from measure 1', { exact: true }).inputValue()).trim().slice(0, 20),
  )
})

test('a rhythm is tapped, seen on its grid and written in one step', async ({ page }) => {
  await paste(page, TUNE)
  await penAtStart(page)
  await page.getByRole('button', { name: 'Tap rhythm' }).click()
  const tapping = page.getByTestId('tapping')
  // Taps as a keyboard sends them, with the times that they were struck at: a busy machine hears them late, and knows.
  const tap = (waits: number[]) =>
    tapping.getByRole('button', { name: 'Tap here (Space)' }).evaluate((pad, all) => {
      let at = performance.now()
      for (const wait of all) {
        at += wait
        const struck = new KeyboardEvent('keydown', { key: ' ', bubbles: true })
        Object.defineProperty(struck, 'timeStamp', { value: at })
        pad.dispatchEvent(struck)
      }
    }, waits)
  await tap([0, 740, 265, 480, 510])
  await expect(tapping.getByRole('listitem')).toHaveText(['D ¼.', 'E ⅛', 'D ¼', 'C♯ ¼'])
  await tapping.getByRole('button', { name: 'Write it' }).click()
  await expect.poll(() => text(page)).toContain('d3 e d2 c2 |')
  await page.getByRole('button', { name: 'Undo: Tapped rhythm' }).click()
  await expect.poll(() => text(page)).toContain('dedc')
  // Three to a beat, where that is allowed.
  await page.getByRole('button', { name: 'Tap rhythm' }).click()
  await tapping.getByLabel('or three to a beat').check()
  await tap([0, 170, 164, 168, 500])
  await expect(tapping.getByRole('listitem')).toHaveText(['D ⅓ ♩', 'E ⅓ ♩', 'D ⅓ ♩', 'C♯ ¼'])
  await tapping.getByRole('button', { name: 'Write it' }).click()
  await expect.poll(() => text(page)).toContain('(3:2:3d e d c2')
})

test('notes come from a MIDI keyboard, and from the keys on the screen that stand in for it', async ({
  page,
}) => {
  await page.addInitScript(() => {
    const input = { name: 'Attic keys', onmidimessage: null as ((e: { data: Uint8Array }) => void) | null }
    Object.assign(navigator, {
      requestMIDIAccess: () => Promise.resolve({ inputs: new Map([['a', input]]) }),
    })
    Object.assign(window, {
      strike: (...data: number[]) => input.onmidimessage?.({ data: new Uint8Array(data) }),
    })
  })
  await paste(page, TUNE)
  await penAtStart(page)
  await page.getByRole('button', { name: 'Keyboard', exact: true }).click()
  const keys = page.getByTestId('keys')
  await keys.getByRole('button', { name: 'Listen to a MIDI keyboard' }).click()
  await expect(keys).toContainText('Listening to Attic keys.')
  const strike = (...data: number[]) =>
    page.evaluate((d) => (window as unknown as { strike: (...d: number[]) => void }).strike(...d), data)
  await strike(0x90, 66, 90)
  await strike(0x80, 66, 0)
  await strike(0x90, 69, 90)
  await expect.poll(() => text(page)).toContain('F2 A2 d2')
  await keys.getByRole('button', { name: 'G4', exact: true }).click()
  await expect.poll(() => text(page)).toContain('F2 A2 G2')
})

test('the sheet is shown in sizes, as one line, with boxes and sounding names; a click still finds its note', async ({
  page,
}) => {
  await openDemo(page, "Lamplighter's Round")
  const menu = page.getByRole('button', { name: 'Sheet', exact: true })
  const chords = page.locator('.chord-name')
  await expect(chords.first()).toHaveText('G')
  const width = async () => (await page.locator('[data-system="0"]').boundingBox())!.width
  const before = await width()
  await menu.click()
  await page.getByText('As they sound').click()
  await page.getByText('Boxes of what the hand holds').click()
  await page.getByText('150 %').click()
  await page.keyboard.press('Escape')
  await expect(chords.first()).toHaveText('A')
  await expect(page.getByTestId('held-box').first()).toBeVisible()
  expect(Math.abs((await width()) - before)).toBeLessThan(2)
  await page.locator('.tab-fret').nth(3).click()
  await expect(page.getByTestId('neck-head')).toHaveText('Measure 1, beat 2')
  await menu.click()
  await page.getByText('One that runs on').click()
  await page.keyboard.press('Escape')
  await expect.poll(width).toBeGreaterThan(before)
  const tops = await page
    .locator('[data-system]')
    .evaluateAll((all) => new Set(all.map((s) => Math.round(s.getBoundingClientRect().top))).size)
  expect(tops).toBe(1)
  await page.locator('.tab-fret').nth(3).click()
  await expect(page.getByTestId('neck-head')).toHaveText('Measure 1, beat 2')
  // The view is kept for the device.
  await page.reload()
  await expect(chords.first()).toHaveText('A')
})

test('notes say how they are played; what may be left out is left out for this hand', async ({ page }) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await page.locator('.tab-fret').nth(2).click()
  await page.getByRole('button', { name: 'How it is played' }).click()
  await page.getByTestId('expression').getByText('mp', { exact: true }).click()
  await page.getByTestId('expression').getByText('rit.', { exact: true }).click()
  await expect(page.locator('.expression')).toHaveText('mp rit.')
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await page.getByLabel('Words to the student here').fill('keep finger three down')
  await page.keyboard.press('Enter')
  await expect(page.locator('.remark')).toHaveText('keep finger three down')
  await page.getByTestId('write-bar').getByRole('button', { name: 'may be left out' }).click()
  const inBrackets = page.locator('.tab-fret').filter({ hasText: /^\(/ })
  await expect(inBrackets).toHaveCount(1)
  await page.getByRole('button', { name: 'Sheet', exact: true }).click()
  await page.getByText('Usual adult hand leaves out what may be left out').click()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('left-out')).toBeVisible()
  await expect(inBrackets).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Write', exact: true })).toBeDisabled()
  await page.getByRole('button', { name: 'Show all of it' }).click()
  await expect(inBrackets).toHaveCount(1)
})

test('some measures are arranged alone after the tune changed; the rest may be left as it is', async ({
  page,
}) => {
  await arrangePasted(page, TUNE)
  const before = await settledFrets(page)
  await page.getByRole('link', { name: /Tune$/ }).click()
  await penAtStart(page)
  await page.keyboard.press('Shift+ArrowUp')
  await expect.poll(() => text(page)).toContain("d'2")
  await page.getByRole('link', { name: /Arrange$/ }).click()
  await expect(page.getByText('The tune has changed since this was arranged.')).toBeVisible()
  await page.locator('.tab-fret').first().click()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'Only measure 1' }).click()
  await expect(page.getByRole('button', { name: 'Undo: One measure arranged again' })).toBeEnabled()
  const after = await settledFrets(page)
  expect(after.join()).not.toBe(before.join())
  expect(after.slice(-12)).toEqual(before.slice(-12))
  await page.getByRole('button', { name: 'Leave it as it is' }).click()
  await expect(page.getByText('The tune has changed since this was arranged.')).toBeHidden()
})

test('versions are kept by name, seen and heard side by side, and taken to the bench', async ({ page }) => {
  await arrangePasted(page, TUNE)
  const first = await settledFrets(page)
  const versions = page.getByRole('button', { name: 'History' })
  await versions.click()
  await page.getByRole('button', { name: 'Keep as “easy”' }).click()
  await expect(page.getByRole('group', { name: 'easy' })).toBeVisible()
  await page.keyboard.press('Escape')
  await chooseLevel(page, 4)
  await done(page, 'Level 4')
  const full = await settledFrets(page)
  expect(full.join()).not.toBe(first.join())
  await versions.click()
  await page.getByRole('group', { name: 'easy' }).getByRole('button', { name: 'Side by side' }).click()
  await page.keyboard.press('Escape')
  const kept = page.getByTestId('beside-version')
  await expect(kept.getByText('easy')).toBeVisible()
  await expect(page.getByTestId('beside-bench')).toContainText(/\d+ notes differ/)
  await expect(page.getByTestId('beside-bench').locator('.tab-halo.changed').first()).toBeAttached()
  await kept.getByRole('button', { name: 'Hear this one' }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(kept.getByTestId('play-cursor')).toBeVisible()
  await expect(page.getByTestId('beside-bench').getByTestId('play-cursor')).toBeHidden()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await page.getByRole('button', { name: 'Close the version' }).click()
  await versions.click()
  await page.getByRole('group', { name: 'easy' }).getByRole('button', { name: 'To the bench' }).click()
  await page.keyboard.press('Escape')
  await done(page, 'Version “easy” to the bench')
  expect((await settledFrets(page)).join()).toBe(first.join())
  await page.getByRole('button', { name: 'Undo: Version “easy” to the bench' }).click()
  await expect.poll(() => settledFrets(page)).toEqual(full)
})

test('a whole voice or string is chosen at once, by keys and by mouse', async ({ page }) => {
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 3)
  await settledFrets(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await page.locator('.tab-fret').nth(2).click()
  await sheet(page).focus()
  // Two measures are marked, the bass of both is chosen.
  await page.keyboard.press('Shift+ArrowRight')
  const chosen = page.locator('.tab-halo.chosen')
  await page.keyboard.press('Alt+b')
  await expect(chosen).toHaveCount(await page.locator('.tab-halo.chosen').count())
  const bass = await chosen.count()
  expect(bass).toBeGreaterThan(1)
  await expect(page.locator('.write-where')).toHaveText(`${bass} notes chosen`)
  await page.keyboard.press('O')
  const left = page.locator('.tab-fret').filter({ hasText: /^\(/ })
  await expect(left).toHaveCount(bass)
  await page.getByRole('button', { name: /^Undo: Sign on a note/ }).click()
  await expect(left).toHaveCount(0)
  // Escape means one note again, and only then puts the pen down. (Over a button it closes the button's hint first.)
  await page.getByRole('heading', { level: 1 }).hover()
  await page.keyboard.press('Escape')
  await expect(chosen).toHaveCount(0)
  await expect(page.getByTestId('write-bar')).toBeVisible()
  // By mouse: what lies on a string, taken out in one step.
  await page.locator('.tab-fret').nth(2).click()
  await page.getByRole('combobox', { name: 'Which notes' }).click()
  await page.getByRole('option', { name: 'String 4' }).click()
  const before = await page.locator('.tab-fret').count()
  const onString = await chosen.count()
  expect(onString).toBeGreaterThan(0)
  await page.getByTestId('write-bar').getByRole('button', { name: 'Erase' }).click()
  await expect(page.locator('.tab-fret')).toHaveCount(before - onString)
  await page.getByRole('button', { name: /^Undo: Note erased/ }).click()
  await expect(page.locator('.tab-fret')).toHaveCount(before)
})

test('measures are kept as an ossia, exchanged, and played by one student alone', async ({ page }) => {
  await page.goto('/settings')
  await page.getByRole('button', { name: 'Add a hand' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill('Wren')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByTestId('players')).toContainText('Wren')
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 2)
  const full = await settledFrets(page)
  await page.locator('.tab-fret').nth(1).click()
  const panel = page.getByTestId('ossias')
  await panel.getByText('Alternatives (ossia)').click()
  await panel.getByLabel('What this ossia does otherwise').fill('with its bass')
  await panel.getByRole('button', { name: 'Keep as it is now' }).click()
  await expect(panel.getByRole('listitem')).toContainText('Measure 1: with its bass')
  // Written otherwise, then both change places.
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await page.locator('.tab-fret').nth(1).click()
  await page.keyboard.press('Alt+b')
  await page.keyboard.press('Delete')
  await expect.poll(async () => (await settledFrets(page)).length).toBeLessThan(full.length)
  const bare = await settledFrets(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await panel.getByRole('button', { name: 'Exchange with the main version' }).click()
  await expect.poll(() => settledFrets(page)).toEqual(full)
  // The bare version is Wren's: seen while Wren's hand is in use, and put aside to write.
  await panel.getByRole('combobox', { name: 'Played' }).click()
  await page.getByRole('option', { name: 'Wren' }).click()
  await expect(page.getByRole('button', { name: 'Undo: Ossia Wren' })).toBeVisible()
  expect(await settledFrets(page)).toEqual(full)
  const bench = page.url()
  await page.goto('/settings')
  await page.getByTestId('players').getByRole('button', { name: 'Use' }).click()
  await page.goto(bench)
  await expect(page.getByTestId('own-measures')).toContainText('As Wren plays it: Measure 1: with its bass')
  await expect.poll(() => settledFrets(page)).toEqual(bare)
  await page.getByTestId('own-measures').getByRole('button', { name: 'As it is written' }).click()
  await expect.poll(() => settledFrets(page)).toEqual(full)
})

test('a note of the tab is parted in three and tied, and the tab stays an answer to its tune', async ({
  page,
}) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  const bar = page.getByTestId('write-bar')
  await expect(bar).toBeVisible()
  await page.locator('.tab-fret.melody').nth(1).click()
  await expect(page.locator('.write-where')).toContainText('melody')
  await page.keyboard.press('Alt+t')
  await expect(page.getByRole('button', { name: 'Undo: Triplet' })).toBeVisible()
  // The second third is written over its rest.
  const before = await page.locator('.tab-fret').count()
  await sheet(page).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('3')
  await expect(page.locator('.tab-fret')).toHaveCount(before + 1)
  await expect(page.getByText('The tune has changed since this was arranged')).toHaveCount(0)
  // Measures 7 and 8 both hold one D: tied, the second is struck no more.
  await page.getByRole('button', { name: 'Undo: Fret' }).click()
  await page.getByRole('button', { name: 'Undo: Triplet' }).click()
  const notes = await page.locator('.tab-fret.melody').count()
  await page
    .locator('.tab-fret.melody')
    .nth(notes - 2)
    .click()
  await bar.getByRole('button', { name: 'Tie to the next' }).click()
  await expect(page.locator('.tab-fret.melody')).toHaveCount(notes - 1)
  await expect(page.getByText('The tune has changed since this was arranged')).toHaveCount(0)
})
