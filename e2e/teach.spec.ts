import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { arrangePasted, chooseLevel, frets, openDemo, paste, settledFrets } from './bench.ts'

const TUNE =
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=120\nK:C\n"C"cdec|"G7"d2 B2|"C"cege|"F"fagf|"C"edcd|"G7"dBGB|"C"c4|"C"c4|]\n'

const step = (page: Page) => page.getByTestId('step')
const count = (page: Page) => page.getByTestId('count')

const loop = (page: Page, name: string) =>
  page.locator('.teach-play').getByText(name, { exact: true }).click()
const view = (page: Page, name: string) =>
  page.locator('.teach-views').getByText(name, { exact: true }).click()

async function toTeach(page: Page): Promise<void> {
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 2)
  await settledFrets(page)
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(count(page)).toHaveText('1')
}

test('a lesson goes step by step, by button and by key: count, fingers, what is plucked', async ({
  page,
}) => {
  await toTeach(page)
  await expect(step(page)).toContainText('Measure 1')
  await expect(step(page)).toContainText(/\w+ finger on string \d, fret \d/)
  await expect(step(page)).toContainText(/Pluck/)
  await page.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(count(page)).toHaveText('2')
  await page.keyboard.press('ArrowRight')
  await expect(count(page)).toHaveText('3')
  await page.keyboard.press('PageUp')
  await expect(count(page)).toHaveText('2')
  await page.getByRole('button', { name: 'Back', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Back', exact: true })).toBeDisabled()
  // A whole measure on; the sheet follows to the last one.
  await page.keyboard.press('Shift+ArrowRight')
  await expect(step(page)).toContainText('Measure 2')
  for (let i = 0; i < 6; i++) await page.keyboard.press('Shift+ArrowRight')
  await expect(step(page)).toContainText('Measure 8')
  await expect(page.locator('.chosen-column')).toBeInViewport()
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(step(page)).toContainText('Measure 7')
  // Piece by piece: each begins where the last one ends, and says its hardest measure.
  const pieces = page.getByRole('list', { name: 'Pieces' })
  await expect(pieces.getByRole('button').first()).toHaveText('1 1–2')
  // The second measure holds its last note: the melody breathes there.
  await expect(pieces.getByRole('button').nth(1)).toHaveText('2 3–6')
  await pieces.getByRole('button').nth(1).click()
  await expect(step(page)).toContainText('Measure 3')
  await expect(page.locator('.teach-pieces')).toContainText(/Hardest: measure [3-6]/)
  await loop(page, 'piece')
  await expect(page.locator('.marked-measure')).not.toHaveCount(0)
})

test('the words of the whole script are those of the tab; a line leads to its step', async ({ page }) => {
  await toTeach(page)
  await view(page, 'Script')
  const script = page.getByTestId('script')
  await expect(script.getByRole('button').first()).toBeVisible()
  const lines = await script.getByRole('button').allInnerTexts()
  // Every fret on the sheet is named once: "string n at fret m" or "string n open", in a row on one string the fret alone.
  const named = lines.flatMap((l) =>
    /In a row on string \d: /.test(l)
      ? l.split(' – ').map((item) => /fret (\d+) with/.exec(item)?.[1] ?? '0')
      : [...l.matchAll(/string \d (?:at fret (\d+)|open)/g)].map((m) => m[1] ?? '0'),
  )
  await page.getByRole('link', { name: 'Arrange' }).click()
  const onSheet = await settledFrets(page)
  expect([...named].sort()).toEqual([...onSheet].sort())
  await page.getByRole('link', { name: 'Teach' }).click()
  await view(page, 'Script')
  await script.getByRole('button').nth(4).click()
  await expect(step(page)).toContainText('Measure 2')
  const { violations } = await new AxeBuilder({ page }).analyze()
  expect(
    violations
      .filter((v) => v.impact === 'serious' || v.impact === 'critical')
      .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`),
  ).toEqual([])
})

test('a piece has its goal, tempos and notes; a plan leads to it; drills are tab to be heard', async ({
  page,
}) => {
  await toTeach(page)
  await view(page, 'Piece')
  const piece = page.getByTestId('piece')
  await expect(piece.getByRole('heading', { level: 2 })).toHaveText('Piece 1, measures 1 to 2')
  await expect(piece).toContainText(/3 clean ones in a row, then faster: ♩ = \d+/)
  const rungs = await piece
    .getByRole('group', { name: 'Play this piece at' })
    .getByRole('button')
    .allInnerTexts()
  const tempos = rungs.map((r) => Number(r.replace(/\D/g, '')))
  expect(tempos.at(-1)).toBe(120)
  expect([...tempos].sort((a, b) => a - b)).toEqual(tempos)
  // A rung sets loop and tempo.
  await piece.getByRole('button', { name: `♩ = ${tempos[0]}`, exact: true }).click()
  await expect(page.locator('.teach-tempo')).toContainText(`${Math.round((tempos[0]! / 120) * 100)} %`)
  await expect(page.locator('.marked-measure')).not.toHaveCount(0)
  await piece.getByRole('textbox', { name: 'What you say to this piece' }).fill('Thumb stays soft.')
  // The unit of teaching is a setting.
  await page.getByRole('button', { name: 'How I teach' }).click()
  await page.getByRole('combobox', { name: 'At once' }).click()
  await page.getByRole('option', { name: 'a measure' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('list', { name: 'Pieces' }).getByRole('button')).toHaveCount(8)
  await view(page, 'Plan')
  const plan = page.getByTestId('plan')
  await expect(plan.getByRole('heading')).toHaveText('Lesson 1, 30 minutes')
  const items = await plan.getByRole('listitem').allInnerTexts()
  const minutes = items.flatMap((i) => /(\d+) min$/.exec(i)?.[1] ?? [])
  expect(minutes.reduce((sum, m) => sum + Number(m), 0)).toBeLessThanOrEqual(30)
  await plan.getByRole('button', { name: 'Piece 1, measure 1' }).click()
  await expect(piece.getByRole('heading', { level: 2 })).toHaveText('Piece 1, measure 1')
  // The words to the passage are still there, as its first piece begins where the phrase did.
  await expect(piece.getByRole('textbox')).toHaveValue('Thumb stays soft.')
  await view(page, 'Drills')
  const drills = page.getByTestId('drills')
  await expect(drills.getByRole('list').getByRole('button').first()).toHaveText(
    /Measure \d: up to ♩ = \d+, then/,
  )
  await drills.getByRole('button', { name: 'Hear it: the picking on open strings' }).click()
  await expect(drills.getByRole('button', { name: 'Stop: the picking on open strings' })).toBeVisible()
  // The lesson's own button plays the lesson again.
  await page.locator('.teach-play').getByRole('button').first().click()
  await expect(drills.getByRole('button', { name: 'Stop: the picking on open strings' })).toHaveCount(0)
})

test('layers: the tune alone, the bass alone, the picking on one shape; fingers by number, in short', async ({
  page,
}) => {
  await toTeach(page)
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  const shown = async () => (await frets(page)).length
  const whole = await shown()
  const layer = async (name: string) => {
    const before = await frets(page)
    await page.getByRole('combobox', { name: 'Layer' }).click()
    await page.getByRole('option', { name, exact: true }).click()
    await expect.poll(() => frets(page)).not.toEqual(before)
    return shown()
  }
  const tune = await layer('Tune alone')
  const bass = await layer('Bass alone')
  expect(tune).toBeGreaterThan(10)
  expect(tune + bass).toBeLessThanOrEqual(whole)
  expect(await layer('Picking on one shape')).toBe(whole)
  await layer('All of it')
  await page.getByRole('button', { name: 'How I teach' }).click()
  await page.getByRole('combobox', { name: 'Sentences' }).click()
  await page.getByRole('option', { name: 'short' }).click()
  await page.getByRole('combobox', { name: 'Fingers' }).click()
  await page.getByRole('option', { name: 'by number' }).click()
  await page.getByRole('combobox', { name: 'Notes', exact: true }).click()
  await page.getByRole('option', { name: 'letters', exact: true }).click()
  await page.keyboard.press('Escape')
  await expect(step(page)).toContainText(/[Ff]inger \d (to )?string \d, fret \d/)
  await expect(step(page)).toContainText(/string \d (fret \d|open) = [A-G]/)
})

test('without a tab the stage says what to do', async ({ page }) => {
  await paste(page, TUNE)
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(page.getByRole('heading', { name: 'There is no tab to teach yet.' })).toBeVisible()
  await page.getByRole('main').getByRole('link', { name: 'Arrange this tune' }).click()
  expect((await settledFrets(page)).length).toBeGreaterThan(10)
})

for (const [name, width, height] of [
  ['phone', 390, 844],
  ['tablet', 1024, 768],
  ['laptop', 1366, 768],
] as const)
  test(`on a ${name} the instruction, the count and Next are in view from the first moment, and at every step`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height })
    await openDemo(page, "Lamplighter's Round")
    await page.getByRole('link', { name: 'Teach' }).click()
    await expect(count(page)).toBeVisible()
    const next = page.getByRole('button', { name: 'Next', exact: true })
    // The page is as high as the screen: nothing is scrolled to.
    const whole = () =>
      page.evaluate(() => {
        const room = document.querySelector('#stage > :last-child')!
        return room.scrollHeight - room.clientHeight
      })
    for (let i = 0; i < 8; i++) {
      const said = step(page).locator('li')
      for (const shown of [count(page), said.first(), said.last(), next])
        await expect(shown).toBeInViewport({ ratio: 1 })
      expect(await whole()).toBeLessThanOrEqual(0)
      const box = (await next.boundingBox())!
      expect(box.height).toBeGreaterThanOrEqual(44)
      await next.click()
    }
    // One hand does all of it: what is pressed stands in the lower half.
    for (const pressed of ['Back', 'Next', 'Hear it']) {
      const { y } = (await page.getByRole('button', { name: pressed, exact: true }).boundingBox())!
      expect(y).toBeGreaterThan(height / 2)
    }
    await loop(page, 'measure')
    await page.getByRole('button', { name: 'Hear it' }).click()
    await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
    await page.getByRole('button', { name: 'Stop' }).click()
  })

test('a page that is reloaded goes on at its step and in its view', async ({ page }) => {
  await toTeach(page)
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowRight')
  const where = await page.getByText(/^Step \d+ of \d+$/).textContent()
  await page.reload()
  await expect(step(page)).toContainText('Measure 2')
  await expect(page.getByText(/^Step \d+ of \d+$/)).toHaveText(where!)
  await view(page, 'Plan')
  await page.reload()
  await expect(page.getByTestId('plan')).toBeVisible()
})

test('the full screen has a way out that is seen', async ({ page }) => {
  await toTeach(page)
  const leave = page.getByRole('button', { name: 'Leave full screen' })
  await expect(leave).toBeHidden()
  await page.getByRole('button', { name: 'Full screen', exact: true }).click()
  await expect(leave).toBeInViewport({ ratio: 1 })
  for (const shown of [
    count(page),
    step(page).locator('li').last(),
    page.getByRole('button', { name: 'Next', exact: true }),
  ])
    await expect(shown).toBeInViewport({ ratio: 1 })
  await leave.click()
  await expect(page.getByRole('button', { name: 'Full screen', exact: true })).toBeVisible()
  await expect(leave).toBeHidden()
})

test('a lesson goes from one beat to another, and a beat is played again and again', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('link', { name: 'Teach' }).click()
  const step = page.getByTestId('step')
  await expect(step).toContainText('Measure 1')
  for (let i = 0; i < 2; i++) await page.keyboard.press('ArrowRight')
  await expect(step).toContainText('Step 3 of ')
  await page.getByRole('button', { name: 'Begin here' }).click()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(step).toContainText('Measure 2')
  await page.getByRole('button', { name: 'End here' }).click()
  await expect(page.getByTestId('bounds')).toHaveText(/^measure 1, beat \d to measure 2, beat 1$/)
  await loop(page, 'as chosen')
  // Back and on stay inside.
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowLeft')
  await expect(page.getByRole('button', { name: 'Back', exact: true })).toBeDisabled()
  await expect(step).toContainText('Step 3 of ')
  for (let i = 0; i < 20; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByRole('button', { name: 'Next', exact: true })).toBeDisabled()
  await expect(step).toContainText('Measure 2')
  await page.getByRole('button', { name: 'The whole tune again' }).click()
  await expect(page.getByTestId('bounds')).toHaveCount(0)
  await expect(page.getByRole('button', { name: 'Next', exact: true })).toBeEnabled()
  // The beat alone: the cursor stays in its measure and begins it again and again.
  await loop(page, 'beat')
  await page.getByRole('button', { name: 'Hear it' }).click()
  await expect(page.getByTestId('play-cursor')).toHaveAttribute('data-measure', '2')
  await page.getByRole('button', { name: 'Stop' }).click()
})
