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
  spoken,
  goToMeasure,
  unfoldEffort,
  switchLayer,
  openMore,
} from './bench.ts'

/** A tune of our own with two parts of four measures. */
const TWO_HALVES =
  'X:1\nT:Cellar Steps\nM:4/4\nL:1/4\nQ:1/4=100\nK:G\n' +
  '"G"GBdB|"C"c2e2|"D7"dcBA|"G"G4|"Em"gfed|"C"e2c2|"D7"A2F2|"G"G4|]\n'

const noteAt = (page: Page, measure: number) =>
  page.getByRole('button', { name: new RegExp(`^Measure ${measure}: effort`) })

test('a measure has a menu of its own, by mouse and by key: a section begins, joins again, is heard again; not on a page written out', async ({
  page,
}) => {
  await arrangePasted(page, TWO_HALVES)
  await goToMeasure(page, 5)
  const menu = page.getByRole('menu')
  await page.keyboard.press('m')
  await menu.getByRole('menuitem', { name: 'New section here' }).click()
  await done(page, 'Cut at measure 5')
  await expect(page.locator('.chip')).toHaveCount(2)
  // Where a section begins it can be joined to the one before, and not be cut.
  await page.getByRole('button', { name: 'What to do with measure 5' }).click()
  await expect(menu.getByRole('menuitem', { name: 'New section here' })).toHaveCount(0)
  await menu.getByRole('menuitem', { name: 'Join to the one before' }).click()
  await done(page, 'Joined two sections')
  await expect(page.locator('.chip')).toHaveCount(0)
  await page.keyboard.press('m')
  await menu.getByRole('menuitem', { name: /measure 5/ }).click()
  await expect(page.locator('.marked-measure')).not.toHaveCount(0)
  // A page written out has other measures than the score.
  await page.getByRole('button', { name: 'Sheet', exact: true }).click()
  await page.getByText('Written out').click()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('neck-head')).toBeVisible()
  await expect(page.getByRole('button', { name: /^What to do with/ })).toHaveCount(0)
})

test('a tune is cut into sections, each with its own style and level; every step can be taken back', async ({
  page,
}) => {
  await arrangePasted(page, TWO_HALVES)
  const whole = await settledFrets(page)
  await goToMeasure(page, 5)
  await page.getByRole('button', { name: 'What to do with measure 5' }).click()
  await page.getByRole('menuitem', { name: 'New section here' }).click()
  await done(page, 'Cut at measure 5')
  await expect(page.locator('.chip')).toHaveText([/^1–4 Melody and bass 1$/, /^5–8 Melody and bass 1$/])
  await chooseStyle(page, 'Arpeggio')
  await done(page, 'Style: Arpeggio')
  await chooseLevel(page, 3)
  await done(page, 'Level 3')
  await expect(page.locator('.chip')).toHaveText([/^1–4 Melody and bass 1$/, /^5–8 Arpeggio 3$/])
  expect((await settledFrets(page)).length).toBeGreaterThan(whole.length + 6)
  // The section under the selected note is the one that choices are for.
  await goToMeasure(page, 2)
  await expect(page.locator('.chip').first()).toHaveAttribute('aria-pressed', 'true')
  await page.locator('.chip').nth(1).click()
  await page.getByRole('button', { name: 'Join to the one before' }).click()
  await done(page, 'Joined two sections')
  await expect(page.locator('.chip')).toHaveCount(0)
  await page.keyboard.press('Control+z')
  await expect(page.locator('.chip')).toHaveCount(2)
  for (const label of ['Level 3', 'Style: Arpeggio', 'Cut at measure 5']) {
    await done(page, label)
    await page.getByRole('button', { name: `Undo: ${label}` }).click()
  }
  await expect.poll(() => frets(page)).toEqual(whole)
})

test('schools change the result: strict alternation is drawn and said stroke by stroke', async ({ page }) => {
  await arrangePasted(page, TWO_HALVES)
  await chooseStyle(page, 'Flatpicked lead')
  await done(page, 'Style: Flatpicked lead')
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('combobox', { name: 'Strokes of the pick' }).click()
  await page.getByRole('option', { name: 'Down and up in strict turn' }).click()
  await done(page, 'Playing habits: Down and up in strict turn')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'More: 1 own' })).toBeVisible()
  await switchLayer(page, 'Picking hand')
  await page.getByRole('group', { name: /^Sheet of/ }).focus()
  const strokes: string[] = []
  for (let i = 0; i < 6; i++) {
    await page.keyboard.press('ArrowRight')
    await expect(spoken(page)).toContainText('stroke')
    strokes.push(/(down|up) stroke/.exec((await spoken(page).textContent())!)![1]!)
  }
  expect(strokes).toEqual(['down', 'up', 'down', 'up', 'down', 'up'])
  await expect(page.locator('.stroke-sign').first()).toBeVisible()
})

test('what is locked stays through another level, is seen on the sheet, and can be let go', async ({
  page,
}) => {
  await arrangePasted(page, TWO_HALVES)
  await goToMeasure(page, 2)
  await page.getByText('Locks', { exact: true }).click()
  await page.getByRole('button', { name: 'Lock: Measure 2 as it is' }).click()
  await done(page, 'Locked measure 2')
  await expect(page.locator('.lock-sign')).toHaveCount(1)
  const spokenIn = async (measure: number) => {
    await goToMeasure(page, measure)
    await expect(spoken(page)).toContainText(`Measure ${measure},`)
    return spoken(page).textContent()
  }
  const locked = await spokenIn(2)
  await chooseStyle(page, 'Chord melody')
  await done(page, 'Style: Chord melody')
  await chooseLevel(page, 4)
  await done(page, 'Level 4')
  expect(await spokenIn(2)).toBe(locked)
  await page.getByRole('button', { name: 'Unlock Measure 2, beat 1:' }).click()
  await done(page, 'Took a lock off')
  await expect(page.locator('.lock-sign')).toHaveCount(0)
  await expect.poll(() => spokenIn(2)).not.toBe(locked)
})

test('another way is looked for, tried on the sheet and kept; it is locked and can be taken back', async ({
  page,
}) => {
  await arrangePasted(page, TWO_HALVES)
  const before = await settledFrets(page)
  await goToMeasure(page, 3)
  await page.getByText('Why this grip').click()
  await expect(page.getByTestId('reasons').locator('li').first()).toBeVisible()
  const ways = page.getByTestId('ways').getByRole('listitem')
  await expect(ways.first()).toContainText(/string \d (fret \d+, finger [1-4]|open)/)
  await expect(ways.first()).toContainText('Came second because')
  await page.getByTestId('ways').getByText('Measure 3').click()
  await expect(ways.nth(1)).toContainText('Cost +')
  await ways.first().getByRole('button', { name: 'Try' }).click()
  await expect(page.locator('.tab-halo.changed').first()).toBeAttached()
  await ways.first().getByRole('button', { name: 'Keep' }).click()
  await done(page, 'Another way in measure 3')
  await expect(page.locator('.lock-sign').first()).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect.poll(() => frets(page)).toEqual(before)
  await expect(page.locator('.lock-sign')).toHaveCount(0)
})

test('choices in quick succession all hold, and each is taken back by itself', async ({ page }) => {
  await arrangePasted(page, TWO_HALVES)
  const first = await settledFrets(page)
  await chooseStyle(page, 'Arpeggio')
  await chooseLevel(page, 3)
  await chooseLevel(page, 4)
  await done(page, 'Level 4')
  await expect(page.getByRole('combobox', { name: 'Style' })).toHaveValue('Arpeggio')
  for (const label of ['Level 4', 'Level 3', 'Style: Arpeggio']) {
    await page.getByRole('button', { name: `Undo: ${label}` }).click()
    await expect(page.getByRole('button', { name: `Redo: ${label}` })).toBeEnabled()
  }
  await expect.poll(() => frets(page)).toEqual(first)
})

test('before and after are compared on the sheet', async ({ page }) => {
  await arrangePasted(page, TWO_HALVES)
  const first = await settledFrets(page)
  await chooseLevel(page, 3)
  await done(page, 'Level 3')
  const second = await settledFrets(page)
  expect(second).not.toEqual(first)
  await page.getByRole('button', { name: 'History' }).click()
  await page.getByRole('button', { name: 'See and hear it as it was before “Level 3”' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('comparing')).toContainText('before “Level 3”')
  await expect.poll(() => frets(page)).toEqual(first)
  await page.getByRole('button', { name: 'Back to now' }).click()
  await expect.poll(() => frets(page)).toEqual(second)
})

test('effort is said with its parts, and against a partner’s tempo', async ({ page }) => {
  await arrangePasted(page, TWO_HALVES)
  await expect(page.getByRole('button', { name: /^Effort \d/ })).toContainText(/Playable up to ♩ = \d+/)
  await unfoldEffort(page)
  await expect(page.getByTestId('effort-summary')).toContainText(/Limit: .* in measure \d/)
  await expect(page.getByTestId('effort-summary')).toContainText('within reach')
  await expect(noteAt(page, 1)).toHaveAccessibleName(/a second.*playable up to ♩ = \d+/)
  await page.getByRole('textbox', { name: /partner’s tempo/ }).fill('420')
  await done(page, 'Goal ♩ = 420')
  await expect(page.getByTestId('effort-summary')).toContainText('fall short')
  await expect(noteAt(page, 1)).toHaveAccessibleName(/only up to/)
  await page.reload()
  await expect(page.getByTestId('effort-summary')).toContainText('fall short')
})

test('the mandolin has its own styles, strokes and intervals', async ({ page }) => {
  await openDemo(page, 'Nightjar over the Weir')
  await expect(page.getByTestId('setup')).toContainText('Mandolin · G major')
  const first = page.locator('[data-system="0"]')
  await expect(first.locator('.tab-line')).toHaveCount(4)
  await expect(page.locator('.interval').first()).toHaveText(/^(3rd|4th|5th|6th)/)
  await page.getByRole('combobox', { name: 'Style' }).click()
  await expect(page.getByRole('option', { name: 'Flatpicked lead' })).toBeVisible()
  await expect(page.getByRole('option', { name: 'Drone' })).toHaveCount(0)
  await page.getByRole('option', { name: 'Flatpicked lead' }).click()
  await done(page, 'Style: Flatpicked lead')
  await expect(page.locator('.interval')).toHaveCount(0)
})

test('two parts become one instrument, and what is dropped is listed', async ({ page }) => {
  await openDemo(page, 'Two Chairs')
  await expect(page.getByTestId('left-out')).toContainText('of the second part is left out')
  await page.getByTestId('left-out').locator('summary').click()
  await page
    .getByTestId('left-out')
    .getByRole('button', { name: /Measure \d/ })
    .first()
    .click()
  await expect(page.getByTestId('neck-head')).toContainText('Measure')
})

test('a bare melody is harmonised three ways; the chosen one stays a suggestion until it is written', async ({
  page,
}) => {
  await paste(page, 'X:1\nT:Bare Boards\nM:3/4\nL:1/4\nQ:1/4=90\nK:D\nD2F|A2F|G2B|A3|d2B|A2F|E2C|D3|]\n')
  await page.getByRole('button', { name: 'Suggest chords' }).click()
  const dialog = page.getByRole('dialog', { name: 'Chords for this melody' })
  await expect(dialog.getByRole('region')).toHaveCount(3)
  const lines = await dialog.locator('.harmony-line').allTextContents()
  expect(new Set(lines).size).toBe(3)
  await dialog.getByRole('button', { name: 'Take these' }).nth(2).click()
  await expect(page.locator('.chord-name.suggested').first()).toBeVisible()
  await expect(page.locator('.chord-name:not(.suggested)')).toHaveCount(0)
  await expect
    .poll(async () => (await page.locator('.chord-name').allTextContents()).join(' '))
    .toBe(lines[2]!.replaceAll(/[|·]/g, ' ').trim().replaceAll(/\s+/g, ' '))
  await page.getByRole('button', { name: 'Write them into the ABC' }).click()
  await expect(page.getByLabel('The tune in ABC')).toContainText('"D"D2F')
  await expect(page.locator('.chord-name.suggested')).toHaveCount(0)
})

test('a tune that lies low under its chords is offered a better key, and takes it with one click', async ({
  page,
}) => {
  await openDemo(page, 'The Ferry at Dusk')
  await chooseStyle(page, 'Chord melody')
  await done(page, 'Style: Chord melody')
  const offered = page.getByTestId('better-key')
  await expect(offered).toContainText(/melody notes lie below string 2 in this key/)
  const button = offered.getByRole('button', { name: /^Play it in / })
  const name = (await button.textContent())!
  await button.click()
  await done(page, name)
  await expect(offered).toHaveCount(0)
  await expect(page.getByText(/every melody note is kept/)).toBeVisible()
  await page.getByRole('button', { name: `Undo: ${name}` }).click()
  await expect(offered).toBeVisible()
})

test('a section swings, and the tune ends slower and held: marked on the sheet, undone step by step', async ({
  page,
}) => {
  await arrangePasted(page)
  const before = await settledFrets(page)
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.getByRole('radiogroup', { name: 'Feel' }).getByText('Shuffle').click()
  await done(page, 'Feel: Shuffle')
  await page.getByRole('radiogroup', { name: 'The end' }).getByText('Slower, and held').click()
  await done(page, 'Feel: Slower, and held')
  await page.keyboard.press('Escape')
  await expect(page.getByText('Shuffle: eighths long and short, two to one')).toBeVisible()
  await expect(page.getByRole('button', { name: 'More: 2 own' })).toBeVisible()
  await expect(page.locator('.systems').getByText('rit.')).toBeVisible()
  expect(await settledFrets(page)).toEqual(before)
  await page.getByRole('button', { name: 'Undo: Feel: Slower, and held' }).click()
  await page.getByRole('button', { name: 'Undo: Feel: Shuffle' }).click()
  await expect(page.getByText('Shuffle: eighths long and short, two to one')).toBeHidden()
})

test('parts of the form: an intro, a tag and a turnaround become sections, each taken back by one undo', async ({
  page,
}) => {
  await arrangePasted(page)
  const plain = await frets(page)
  const form = async (item: string) => {
    await openMore(page)
    await page.getByRole('button', { name: 'Form', exact: true }).click()
    await page.getByRole('menuitem', { name: item }).click()
    await page.keyboard.press('Escape')
  }
  await form('From a turnaround')
  await done(page, 'Form: From a turnaround')
  await expect(page.locator('.chord-name').filter({ hasText: /^(C|Am|Dm|G7)$/ })).toHaveCount(8)
  await expect(page.locator('.chip')).toHaveText([/^1–2 Melody and bass 1$/, /^3–6 Melody and bass 1$/])
  await form('Tag: the last measures again')
  await done(page, 'Form: Tag: the last measures again')
  await expect(page.locator('.section-name').getByText('Tag')).toBeVisible()
  await page.getByRole('button', { name: /^Undo: Form/ }).click()
  await page.getByRole('button', { name: /^Undo: Form/ }).click()
  await expect.poll(() => frets(page)).toEqual(plain)
})

test('the bass strings of a chord are said, a wrong one is told, and the last chord ends in harmonics', async ({
  page,
}) => {
  await arrangePasted(page)
  await chooseStyle(page, 'Alternating bass')
  await chooseLevel(page, 3)
  await page.getByRole('button', { name: 'More', exact: true }).click()
  const field = page.getByLabel('Bass strings under a chord')
  await field.fill('C 5 7')
  await expect(page.getByText('“7” is no string')).toBeVisible()
  await field.fill('C 5 4 6 4')
  await field.press('Enter')
  await done(page, 'Playing habits: C 5 4 6 4')
  await page.getByRole('radiogroup', { name: 'The last chord' }).getByText('Harmonics at 12').click()
  await done(page, 'Feel: Harmonics at 12')
  await page.keyboard.press('Escape')
  await page.getByRole('group', { name: 'Sheet of Gate Latch' }).focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect(spoken(page)).toContainText('string 4')
  await expect(page.locator('.tab-fret').last()).toContainText('‹12›')
})

test('a mandolin takes any style in one click: what it cannot play gives way, and that is said', async ({
  page,
}) => {
  await arrangePasted(page)
  await page.getByRole('combobox', { name: 'Instrument' }).click()
  await page.getByRole('option', { name: 'Mandolin' }).click()
  await done(page, 'Instrument: Mandolin; Melody and bass became Double stops')
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await expect(page.getByTestId('audit')).toContainText('every melody note is kept')
  const styles = page.getByRole('combobox', { name: 'Style' })
  await styles.hover()
  await expect(page.getByText('they are for the guitar')).toBeVisible()
  await styles.click()
  await expect(page.getByRole('option', { name: 'Flatpicked lead' })).toBeVisible()
  await expect(page.getByRole('option', { name: 'Alternating bass' })).toHaveCount(0)
})
