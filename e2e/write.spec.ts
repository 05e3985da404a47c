import { expect, test, type Page } from '@playwright/test'
import {
  arrangePasted,
  chooseLevel,
  chooseStyle,
  done,
  frets,
  openDemo,
  paste,
  settledFrets,
  goToMeasure,
  unfoldEffort,
} from './bench.ts'

// Tall enough that no system leaves the view when the bar opens: only those near it are drawn.
test.use({ viewport: { width: 1280, height: 1150 } })

/** A tune of our own with an open bass and a bare beat. */
const TUNE =
  'X:1\nT:Cellar Steps\nM:4/4\nL:1/4\nQ:1/4=100\nK:G\n' +
  '"G"GBdB|"C"c2e2|"D7"dcBA|"G"G4|"Em"gfed|"C"e2c2|"D7"A2F2|"G"G4|]\n'

const sheet = (page: Page) => page.getByRole('group', { name: /^Sheet of/ })
const bar = (page: Page) => page.getByTestId('write-bar')
const where = (page: Page) => bar(page).locator('.write-where')
const refusal = (page: Page) => page.getByTestId('refusal')
const side = (page: Page) => page.locator('.bench-side')
/** Takes the pen; the bar comes with it and moves the sheet. */
const pen = async (page: Page) => {
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(bar(page)).toBeVisible()
}
const text = (page: Page) =>
  page.locator('.cm-line').evaluateAll((lines) => lines.map((l) => l.textContent).join('\n'))

/** Frets of one measure as the page shows them, by string. */
const hit = async (page: Page, system: number, x: number, string: number) => {
  const box = page.locator(`[data-system="${system}"]`)
  const line = (await box
    .locator('.tab-line')
    .nth(string - 1)
    .boundingBox())!
  const own = (await box.boundingBox())!
  await box.click({ position: { x, y: line.y - own.y } })
}

/** Where a fret stands in its system. */
async function xOf(page: Page, nth: number): Promise<number> {
  const fret = (await page.locator('.tab-fret').nth(nth).boundingBox())!
  const own = (await page.locator('[data-system="0"]').boundingBox())!
  return fret.x + fret.width / 2 - own.x
}

test('a tune is written from nothing by keyboard alone: notes, lengths, chords, form, then its tab', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Write a new tune' })).toBeVisible()
  await page.keyboard.press('n')
  await expect(page.getByRole('heading', { name: 'New tune' })).toBeVisible()
  await expect(where(page)).toContainText('Measure 1, beat 1: rest')
  await sheet(page).focus()
  await page.keyboard.press('Home')
  const type = async (keys: string) => {
    for (const key of keys) await page.keyboard.press(key)
  }
  await type('cegc')
  await page.keyboard.press('+')
  await type('aa')
  await expect(where(page)).toContainText('Measure 3, beat 1')
  await type('gr')
  await expect.poll(() => text(page)).toContain("c2 e2 g2 c'2 | a4 a4 | g4 z4 |")
  // Back to the first note: an octave and half a step lower, then tied over.
  await page.keyboard.press('Home')
  await page.keyboard.press('Shift+ArrowDown')
  await expect(where(page)).toContainText('Measure 1, beat 1: C4')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(where(page)).toContainText('C♯4')
  await page.keyboard.press('Alt+ArrowDown')
  await bar(page).getByLabel('Chord here').fill('Am')
  await page.keyboard.press('Enter')
  await expect.poll(() => text(page)).toContain('"Am"C2 e2')
  await page.getByRole('button', { name: 'Form' }).click()
  const form = page.getByTestId('form-menu')
  await form.getByLabel('A section begins here').fill('Verse')
  await form.getByRole('button', { name: 'Set' }).first().click()
  await expect.poll(() => text(page)).toContain('P:Verse')
  await page.keyboard.press('Escape')
  // The third measure ends early: its rest is cut, and can be put back.
  await sheet(page).focus()
  for (let i = 0; i < 12 && !(await where(page).innerText()).startsWith('Measure 3'); i++)
    await page.keyboard.press('ArrowRight')
  await expect(where(page)).toContainText('Measure 3')
  await page.getByRole('button', { name: 'Form' }).click()
  await form.getByRole('combobox', { name: 'Ends early, after' }).click()
  await page.getByRole('option', { name: '4 eighths' }).click()
  await expect.poll(() => text(page)).toContain('| g4 |')
  await form.getByRole('combobox', { name: 'Ends early, after' }).click()
  await page.getByRole('option', { name: 'its whole length' }).click()
  await expect.poll(() => text(page)).toContain('| g4 z4 |')
  await page.keyboard.press('Escape')
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  const arranged = await settledFrets(page)
  expect(arranged.length).toBeGreaterThan(6)
})

test('eight measures with eight chords take 70 keystrokes or fewer on an empty page, and chords by mouse none', async ({
  page,
}) => {
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Write a new tune' })).toBeVisible()
  let strokes = 0
  const press = async (...keys: string[]) => {
    for (const key of keys) await page.keyboard.press(key)
    strokes += keys.length
  }
  await press('n')
  // The pen stands at beat 1 and the keys write at once.
  await expect(where(page)).toContainText('Measure 1, beat 1')
  for (const chord of ['C', 'F', 'G', 'C', 'A', 'D', 'G', 'C']) {
    await press('k', chord, 'Enter')
    await press('c', 'e', 'g', 'e')
  }
  expect(strokes).toBeLessThanOrEqual(70)
  await expect.poll(() => text(page)).toContain('"C"c2 e2 g2 e2 | "F"c2')
  expect((await text(page)).match(/"[A-G]"/g)).toEqual(
    ['C', 'F', 'G', 'C', 'A', 'D', 'G', 'C'].map((c) => `"${c}"`),
  )
  // By measure, back and forth.
  await sheet(page).focus()
  await page.keyboard.press('Home')
  await page.keyboard.press('Control+ArrowRight')
  await page.keyboard.press('Control+ArrowRight')
  await expect(where(page)).toContainText('Measure 3, beat 1')
  await page.keyboard.press('Control+ArrowLeft')
  await expect(where(page)).toContainText('Measure 2, beat 1')
})

test('the tab is corrected by key: frets, fingers, signs; refusals offer the nearest; every step comes back', async ({
  page,
}) => {
  await arrangePasted(page, TUNE)
  const opening = await settledFrets(page)
  await page.keyboard.press('w')
  await expect(bar(page)).toBeVisible()
  await hit(page, 0, await xOf(page, 3), 2)
  await expect(where(page)).toHaveText('Measure 1, beat 3, string 2: melody')
  // A fret beyond the neck is refused, with another place for the pitch where there is one.
  await page.keyboard.press('2')
  await expect.poll(() => frets(page)).not.toEqual(opening)
  await expect(page.locator('.lock-sign').first()).toBeVisible()
  await page.keyboard.press('ArrowUp')
  await expect(where(page)).toHaveText('Measure 1, beat 3, string 1: nothing yet')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Shift+Digit4')
  await expect(bar(page).getByRole('button', { name: 'Finger 4' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('e')
  await expect(bar(page).getByRole('button', { name: 'accent' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('h')
  await expect(bar(page).getByRole('button', { name: 'hammer-on' })).toHaveAttribute('aria-pressed', 'true')
  // A slide from nowhere and the bottleneck have keys too, and say when they cannot be.
  await page.keyboard.press('Alt+s')
  await expect(bar(page).getByRole('button', { name: 'slide in from below' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await expect(page.getByTestId('slide-sign')).toBeVisible()
  await page.keyboard.press('Alt+a')
  await expect(bar(page).getByRole('button', { name: 'slide in from below' })).toHaveAttribute(
    'aria-pressed',
    'false',
  )
  await page.keyboard.press('Alt+a')
  await expect(page.getByTestId('slide-sign')).toHaveCount(0)
  await page.keyboard.press('Alt+k')
  await expect(bar(page).getByRole('button', { name: 'bottleneck' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('Alt+k')
  await page.keyboard.press('h')
  // A hammer-on that goes down is refused, and a pull-off offered.
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('h')
  await expect(refusal(page)).toContainText('A hammer-on goes up')
  await refusal(page).getByRole('button', { name: 'Do the nearest' }).click()
  await expect(bar(page).getByRole('button', { name: 'pull-off' })).toHaveAttribute('aria-pressed', 'true')
  await expect(refusal(page)).toHaveCount(0)
  // The history knows every step by name, and leads back to the opening.
  await page.getByRole('button', { name: 'History' }).click()
  const steps = page.getByRole('list', { name: 'History' }).getByRole('button')
  await expect(steps).toHaveText([
    'Attacknow',
    ...Array<string>(3).fill('Attack'),
    ...Array<string>(3).fill('Sign on a note'),
    ...['Attack', 'Sign on a note', 'Finger', 'Fret', 'As it came in'],
  ])
  await steps.last().click()
  await expect.poll(() => frets(page)).toEqual(opening)
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => frets(page)).not.toEqual(opening)
})

test('what is written by hand stays through another level, is seen, and can be let go', async ({ page }) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await pen(page)
  await hit(page, 0, await xOf(page, 2), 5)
  await expect(where(page)).toHaveText('Measure 1, beat 2, string 5: nothing yet')
  await expect(bar(page).getByRole('combobox', { name: 'What a new note is' })).toHaveValue('Automatic: bass')
  await page.keyboard.press('2')
  await expect(where(page)).toHaveText('Measure 1, beat 2, string 5: bass')
  const typed = page.locator('[data-note^="t."]')
  await expect(typed).toHaveText(/^2/)
  await page.keyboard.press('Escape')
  await chooseLevel(page, 3)
  await settledFrets(page)
  await expect(typed).toHaveText(/^2/)
  await page.getByTestId('locks').locator('summary').click()
  await expect(page.getByTestId('locks')).toContainText('note written by hand')
  await page.getByRole('button', { name: 'Take all locks off' }).click()
  await expect(typed).toHaveCount(0)
})

test('by mouse alone: places from the neck, a length, another string, measures put in, copied, moved, taken out', async ({
  page,
}) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await pen(page)
  const x = await xOf(page, 3)
  await hit(page, 0, x, 3)
  await page.getByTestId('neck').locator('[data-place="3.2"]').click()
  await expect(where(page)).toHaveText('Measure 1, beat 3, string 3: second voice')
  await bar(page).getByText('⅛', { exact: true }).click()
  await expect(bar(page).getByRole('radio', { name: 'eighth' })).toBeChecked()
  await bar(page).getByRole('button', { name: 'Same pitch, one string lower' }).click()
  await expect(where(page)).toHaveText('Measure 1, beat 3, string 4: second voice')
  await bar(page).getByRole('button', { name: 'Erase' }).click()
  await expect(where(page)).toHaveText('Measure 1, beat 3, string 4: nothing yet')
  await unfoldEffort(page)
  const measures = page.getByRole('button', { name: /^Measure \d+: effort/ })
  await expect(measures).toHaveCount(8)
  const menu = async (name: string) => {
    await bar(page).getByRole('button', { name: 'Measures' }).click()
    await page.getByRole('menuitem', { name }).click()
  }
  await menu('Empty measure after')
  await expect(measures).toHaveCount(9)
  await menu('Copy the measure')
  await menu('Put what was copied after')
  await expect(measures).toHaveCount(10)
  await menu('Move one measure later')
  await menu('Take the measure out')
  await expect(measures).toHaveCount(9)
  // The arrangement is still an answer to the tune: nothing asks for another one.
  await expect(page.getByText('The tune has changed since this was arranged.')).toHaveCount(0)
  for (let i = 0; i < 4; i++) await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(measures).toHaveCount(8)
})

test('an overfull measure and a busy string are refused with what can be written', async ({ page }) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await pen(page)
  // Under the whole note of measure 4: the string of a sounding melody note is busy.
  await goToMeasure(page, 4)
  await hit(page, 0, await xOf(page, 4), 6)
  await bar(page).getByText('½', { exact: true }).click()
  await expect(where(page)).toContainText('beat 4, string 6')
  await page.keyboard.press('3')
  await expect(refusal(page)).toContainText('The measure has room for ¼ from here.')
  await refusal(page).getByRole('button', { name: 'Write ¼' }).click()
  await expect(where(page)).toHaveText('Measure 1, beat 4, string 6: bass')
  await page.keyboard.press('2')
  await page.keyboard.press('1')
  await expect(page.locator('[data-note^="t."]')).toHaveText(/^1/)
})

test('pasted tab becomes a tune with its tab: places kept, rhythm marked as a guess, misfits said where they are', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page
    .getByLabel('What you have as text')
    .fill(
      'Evening Step\nCapo 2\n  D         A\n' +
        'e|-----0---|-3-----?-|\nB|---1---1-|-----0---|\nG|-0-------|---0---0-|\n' +
        'D|---------|---------|\nA|-3-------|---------|\nE|---------|-3-------|\n',
    )
  const found = page.getByTestId('understood')
  await expect(found).toContainText('line 4, column 20: "?" means nothing here')
  await expect(found).toContainText('it is guessed from the spacing')
  // The notes spell what the names say: they are taken for what sounds, and that can be said otherwise.
  await expect(found.getByRole('radio', { name: 'The sound: D sounds, the hand holds C' })).toBeChecked()
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('heading', { name: 'Evening Step' })).toBeVisible()
  expect((await settledFrets(page)).slice().sort()).toEqual(
    ['3', '0', '1', '0', '1', '3', '3', '0', '0', '0'].sort(),
  )
  await expect(page.getByTestId('setup')).toContainText('capo 2')
  // The hand holds C: each finger where a player has it, and down for the whole figure.
  const fingers = page.locator('[data-system="0"] .finger')
  await expect.poll(async () => (await fingers.allTextContents()).slice(0, 3).sort()).toEqual(['1', '1', '3'])
  // Nothing is added to what was pasted, whatever the style; to fill round it is asked for.
  const given = await settledFrets(page)
  await expect(page.getByTestId('given-tab')).toContainText('as you gave it')
  await chooseStyle(page, 'Alternating bass')
  await done(page, 'Style: Alternating bass')
  expect(await settledFrets(page)).toEqual(given)
  await page.getByTestId('given-tab').getByRole('button', { name: 'Fill round it' }).click()
  await done(page, 'Filled round what was typed')
  expect((await settledFrets(page)).length).toBeGreaterThan(given.length)
  await expect(page.locator('[data-note^="t."]')).toHaveText([/^3/, /^3/])
  await page.getByRole('button', { name: 'Undo: Filled round what was typed' }).click()
  await expect(page.getByTestId('given-tab')).toBeVisible()
  await expect.poll(() => settledFrets(page)).toEqual(given)
})

test('a figure is played again on other chords, a moment once more, and erased as a whole', async ({
  page,
}) => {
  await paste(
    page,
    'Mill Lane\n\n  C\ne|-------0-|\nB|-----1---|\nG|---0-----|\nD|---------|\nA|-3-------|\nE|---------|\n',
  )
  await expect(page.getByRole('heading', { name: 'Mill Lane' })).toBeVisible()
  await expect.poll(() => settledFrets(page)).toEqual(['3', '0', '1', '0'])
  await pen(page)
  await page.locator('.tab-fret').first().click()
  await bar(page).getByRole('button', { name: 'Measures' }).click()
  await page.getByRole('menuitem', { name: 'Same figure on other chords…' }).click()
  const asked = page.getByRole('dialog', { name: 'Same figure: Measure 1' })
  await asked.getByLabel('On which chords').fill('G | X')
  await expect(asked).toContainText('“X” is no chord name.')
  await asked.getByLabel('On which chords').fill('G | Am')
  await expect(asked.getByRole('status')).toHaveText('2 measures: G | Am')
  await page.keyboard.press('Enter')
  await done(page, 'Figure on other chords')
  await expect
    .poll(() => settledFrets(page))
    .toEqual(['3', '0', '1', '0', '3', '0', '0', '3', '0', '2', '1', '0'])
  await expect(page.locator('.chord-name')).toHaveText(['C', 'G', 'Am'])
  // The last measure, its first moment.
  await page.locator('.tab-fret').nth(8).click()
  await page.keyboard.press('Shift+Delete')
  await done(page, 'Note erased')
  expect(await settledFrets(page)).toHaveLength(11)
})

test('the form is a map that plays; it is shown as signs or written out, on paper too', async ({ page }) => {
  await openDemo(page, "Lamplighter's Round")
  const line = page.getByTestId('form-line')
  await expect(line).toContainText('Verse × 2')
  await expect(line).toContainText('24 measures played, 1:03 min')
  await unfoldEffort(page)
  const measures = page.getByRole('button', { name: /^Measure \d+: effort/ })
  await expect(measures).toHaveCount(17)
  await line.getByRole('button', { name: /Verse × 2/ }).click()
  await page.getByRole('menuitem', { name: /^Play from Chorus/ }).click()
  await expect(side(page).getByText(/^Measure 10, beat/)).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Sheet', exact: true }).click()
  await page.getByText('Written out').click()
  await expect(measures).toHaveCount(24)
  await expect(page.getByRole('button', { name: 'Write', exact: true })).toBeDisabled()
  await page.getByText('2', { exact: true }).locator('visible=true').last().click()
  await expect(page.locator('[data-system]')).toHaveCount(12)
  // What was chosen is kept for this device.
  await page.reload()
  await expect(page.locator('[data-system]')).toHaveCount(12)
  await page.goto(page.url().replace('/arrange', '/print'))
  await expect(page.locator('.print-sheet [data-system]')).toHaveCount(12)
})

test('measures are found by what the hand does, and gone through one by one', async ({ page }) => {
  await arrangePasted(page, TUNE)
  await settledFrets(page)
  await page.keyboard.press('/')
  await page.getByRole('textbox', { name: 'Find on the sheet' }).fill('chord C')
  await expect(page.getByText('2 places; Enter goes from one to the next.')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(side(page).getByText(/^Measure 2, beat/)).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(side(page).getByText(/^Measure 6, beat/)).toBeVisible()
  await page.getByRole('textbox', { name: 'Find on the sheet' }).fill('bottle cap')
  await expect(page.getByText('Nothing like that on this sheet.')).toBeVisible()
})

test('places are said in a row: read as they are typed, a wrong claim is said, written in one step', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Write a new tune' }).click()
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.getByTestId('form-line')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Write', exact: true })).toBeEnabled()
  await pen(page)
  await sheet(page).focus()
  await page.keyboard.press('Home')
  const row = page.getByRole('textbox', { name: 'Places in a row' })
  await row.fill('2: 1 3=E')
  await expect(page.getByTestId('row-read')).toHaveText('String 2, fret 3 is D4, not what “3=E” says.')
  await row.fill('2: 1 3=D 1: 0 3 6.3+1.3 -')
  await expect(page.getByTestId('row-read')).toHaveText('C4 D4 E4 G4 G2+G4 –')
  await row.press('Enter')
  await expect.poll(async () => (await frets(page)).sort()).toEqual(['0', '1', '3', '3', '3', '3'])
  await expect(where(page)).toContainText('Measure 2, beat 3')
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.locator('.tab-fret')).toHaveCount(0)
})
