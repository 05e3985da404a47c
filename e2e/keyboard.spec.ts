import { expect, test, type Page } from '@playwright/test'

const OWN =
  'X:1\nT:Low Tide Lane\nM:4/4\nL:1/4\nQ:1/4=96\nK:G\n"G"B2 AG|"C"E G2 A|"D"A2 FD|"G"G4|\n"Em"e2 dB|"C"c2 BA|"D"A F D2|"G"G4|]\n'

/** Goes on by the Tab key until a control is reached, as somebody does who has no mouse. */
async function tabTo(page: Page, name: string | RegExp, role: 'button' | 'link' | 'radio' = 'button') {
  const wanted = page.getByRole(role, { name }).first()
  await expect(wanted).toBeAttached()
  for (let i = 0; i < 80; i++) {
    if (await wanted.evaluate((e) => e === document.activeElement)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`${String(name)} is not reached by 80 presses of Tab`)
}

/** Finds a control by its name, and uses it. */
async function find(page: Page, words: string) {
  await page.keyboard.press('Control+k')
  const box = page.getByRole('textbox', { name: 'Find anything' })
  await expect(box).toBeFocused()
  await page.keyboard.type(words)
  await expect(page.locator('.mantine-Spotlight-actionLabel').first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(box).toBeHidden()
}

test('the whole job without a mouse: a song pasted, read, fitted, arranged, corrected, heard, taught, printed', async ({
  page,
}) => {
  test.slow()
  await page.addInitScript(() => {
    window.print = () => void (document.body.dataset['printed'] = 'yes')
  })
  await page.goto('/')
  await expect(page.getByRole('button', { name: 'Paste a tune or song' })).toBeVisible()
  // Brought.
  await page.keyboard.press('p')
  await expect(page.getByLabel('What you have as text')).toBeFocused()
  await page.keyboard.insertText(OWN)
  await expect(page.getByTestId('understood')).toContainText('Low Tide Lane')
  await expect(page.getByRole('button', { name: 'Take it' })).toBeEnabled()
  await tabTo(page, 'Take it')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Low Tide Lane' })).toBeVisible()
  // Fitted: the best key is taken.
  await find(page, 'go to fit')
  await tabTo(page, 'Find keys')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Find keys again' })).toBeVisible({ timeout: 90_000 })
  await tabTo(page, 'Use this')
  await page.keyboard.press('Enter')
  await expect(page).toHaveTitle(/Arrange/)
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  // Another style and level, from the palette and by arrow keys.
  await find(page, 'style')
  const arpeggio = page.getByRole('option', { name: 'Arpeggio', exact: true })
  await expect(async () => {
    await page.keyboard.press('ArrowDown')
    await expect(arpeggio).toHaveAttribute('data-combobox-selected', { timeout: 500 })
  }).toPass()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Undo: Style: Arpeggio' })).toBeEnabled()
  await find(page, 'level 3')
  await expect(page.getByRole('button', { name: 'Undo: Level 3' })).toBeEnabled()
  // The sheet is walked; a finger is chosen otherwise; that is taken back.
  await find(page, 'why this grip')
  await page.reload()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('group', { name: /^Sheet of/ })).toBeFocused()
  for (let i = 0; i < 3; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('neck-head')).toContainText('Measure 1')
  await page.keyboard.press('w')
  await expect(page.getByTestId('write-bar')).toBeVisible()
  await page.keyboard.press('Home')
  await expect(page.getByTestId('pen-cell')).toBeVisible()
  const written = page.getByRole('button', { name: /^Undo: / })
  const before = await written.getAttribute('aria-label')
  await page.keyboard.press('3')
  await expect(written).not.toHaveAttribute('aria-label', before!)
  await page.keyboard.press('Control+z')
  await expect(written).toHaveAttribute('aria-label', before!)
  await page.keyboard.press('w')
  await expect(page.getByTestId('write-bar')).toHaveCount(0)
  // Heard.
  await page.keyboard.press('Escape')
  await find(page, 'play')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await find(page, 'stop')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  // Taught.
  await find(page, 'go to teach')
  await expect(page.getByTestId('count')).toHaveText('1')
  await page.keyboard.press('ArrowRight')
  await expect(page.getByText(/^Step 2 of/)).toBeVisible()
  // Handed out.
  await find(page, 'go to hand out')
  await expect(page.getByTestId('pages').getByRole('status')).toHaveText(/page/)
  await tabTo(page, 'Print')
  await page.keyboard.press('Enter')
  await expect(page.locator('body')).toHaveAttribute('data-printed', 'yes')
})
