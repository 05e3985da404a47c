import { readFile } from 'node:fs/promises'
import { expect, test, type BrowserContext, type Page, type TestInfo } from '@playwright/test'
import { addHand, arrangePasted, chooseLevel, frets, settledFrets } from './bench.ts'

const TUNE =
  'X:1\nT:Ferry Bell\nM:4/4\nL:1/4\nQ:1/4=100\nK:C\n"C"cdec|"G7"d2 B2|"C"cege|"F"fagf|"C"edcd|"G7"dBGB|"C"c4|"C"c4|]\n'

const view = (page: Page, name: string) =>
  page.locator('.teach-views').getByText(name, { exact: true }).click()

/** @param name empty for nobody in particular */
async function teachFor(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: /^For / }).click()
  await page.getByRole('combobox', { name: 'For whom it is taught' }).click()
  await page.getByRole('option', { name: name || 'anybody: the hand of this tab' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: `For ${name || 'anybody'}`, exact: true })).toBeVisible()
}

/** The lesson file as it comes home. */
async function opened(page: Page, context: BrowserContext, info: TestInfo): Promise<Page> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Lesson file' }).click(),
  ])
  const path = info.outputPath('lesson.html')
  await file.saveAs(path)
  const home = await context.newPage()
  await home.goto(`file://${path}`)
  await expect(home.locator('.sheet .fr').first()).toBeVisible()
  return home
}

test('an easier version of a piece is found in the lesson, kept for one student, and handed out to them alone', async ({
  page,
  context,
}, info) => {
  await addHand(page, 'Wren')
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 4)
  await settledFrets(page)
  await page.getByRole('link', { name: 'Teach' }).click()
  await teachFor(page, 'Wren')
  await view(page, 'Piece')
  const written = await frets(page)
  const easier = page.getByTestId('easier-here')
  await easier.getByRole('button', { name: 'Look for easier versions' }).click()
  const rungs = easier.getByRole('listitem')
  await expect(rungs.last()).toContainText('as it is')
  const efforts = (await rungs.locator('> b').allInnerTexts()).map(Number)
  expect(efforts.length).toBeGreaterThan(1)
  expect([...efforts].sort((a, b) => a - b)).toEqual(efforts)
  // Taught so at once: other frets on the sheet, and a word that it is not the tab.
  await rungs.first().getByRole('button', { name: 'Teach it so' }).click()
  await expect(page.getByRole('button', { name: /^Taught otherwise here: / })).toBeVisible()
  await expect.poll(() => frets(page)).not.toEqual(written)
  const otherwise = await frets(page)
  await page.getByRole('button', { name: /^Taught otherwise here: / }).click()
  await expect.poll(() => frets(page)).toEqual(written)
  await rungs.first().getByRole('button', { name: 'Teach it so' }).click()
  await page.getByRole('button', { name: /^Taught otherwise here: / }).click()
  // Kept for the student, the lesson is so without asking; for anybody it is as written.
  await rungs.first().getByRole('button', { name: 'Keep for Wren' }).click()
  await expect(easier).toContainText('Wren plays it so')
  await expect.poll(() => frets(page)).toEqual(otherwise)
  await teachFor(page, '')
  await expect.poll(() => frets(page)).toEqual(written)
  await expect(easier.getByRole('button', { name: 'Teach it so' })).toBeVisible()
  await teachFor(page, 'Wren')
  await expect.poll(() => frets(page)).toEqual(otherwise)

  // Kept for whoever asks, a version can be chosen in the lesson file; what is Wren’s alone is not in it.
  await teachFor(page, '')
  await easier.getByRole('button', { name: 'Look for easier versions' }).click()
  await rungs.last().getByText('as it is').waitFor()
  await easier.getByRole('button', { name: 'Keep as ossia' }).first().click()
  await expect(easier.getByRole('button', { name: 'Teach it so' })).toHaveCount(2)
  await page.getByRole('link', { name: 'Hand out' }).click()
  const home = await opened(page, context, info)
  const fretsAtHome = () => home.locator('.sheet .fr').allTextContents()
  const first = await fretsAtHome()
  const choice = home.getByLabel('Version')
  await expect(choice.getByRole('option')).toHaveCount(2)
  await choice.selectOption({ index: 1 })
  await expect.poll(fretsAtHome).not.toEqual(first)
  await home.getByRole('button', { name: 'Next', exact: true }).click()
  await expect(home.locator('.step')).toContainText('Step 2 of')
  await choice.selectOption({ label: 'as taught' })
  await expect.poll(fretsAtHome).toEqual(first)
  // Where one was is kept.
  await expect(home.locator('.step')).toContainText('Step 2 of')
})

test('a log tells the plan what its student knows: the next lesson goes on from there, others begin anew', async ({
  page,
  context,
}, info) => {
  await addHand(page, 'Wren')
  await arrangePasted(page, TUNE)
  await chooseLevel(page, 1)
  await settledFrets(page)
  await page.getByRole('link', { name: 'Hand out' }).click()
  await teachFor(page, 'Wren')
  // At home: two pieces, the second not yet at its tempo.
  const home = await opened(page, context, info)
  const log = home.locator('.log')
  for (const [piece, bpm] of [
    ['1', '100'],
    ['2', '70'],
  ] as const) {
    await log.getByLabel('Pieces').selectOption(piece)
    await log.getByLabel('Tempo reached').fill(bpm)
    await log.getByLabel('Minutes').fill('9')
    if (piece === '2') await log.getByLabel('How it went').fill('the stretch to fret 4 hurts')
    await log.getByRole('button', { name: 'Write it down' }).click()
  }
  const [sent] = await Promise.all([
    home.waitForEvent('download'),
    log.getByRole('button', { name: 'Save the log as a file' }).click(),
  ])
  const logPath = info.outputPath('log.json')
  await sent.saveAs(logPath)
  expect(JSON.parse(await readFile(logPath, 'utf8'))).toMatchObject({ unit: 'phrase', title: 'Ferry Bell' })
  // Opened again, the tempos of the second piece begin where it was clean.
  await home.reload()
  await home.getByRole('group', { name: 'Pieces' }).getByRole('button', { name: '2', exact: true }).click()
  await expect(home.locator('.piece-info')).toContainText('then faster: ♩ = 70, ')
  await home.close()
  // Read back while somebody else is taught, it is filed under the student for whom the file was made.
  await page.getByRole('link', { name: 'Teach' }).click()
  await view(page, 'Plan')
  const plan = page.getByTestId('plan')
  await expect(plan.getByRole('button', { name: /^Piece 1,/ })).toBeVisible()
  await teachFor(page, '')
  await view(page, 'Log')
  await page.getByTestId('log').locator('input[type=file]').setInputFiles(logPath)
  await expect(page.getByTestId('returned')).toContainText('Wren, “Ferry Bell”: 2 new entries.')
  await expect(page.getByTestId('log').getByRole('table')).toHaveCount(0)
  await view(page, 'Plan')
  await expect(plan.getByTestId('known')).toHaveCount(0)
  await expect(plan.getByRole('button', { name: /^Piece 1,/ })).toBeVisible()
  await teachFor(page, 'Wren')
  await expect(plan.getByTestId('known')).toContainText('at tempo already: 1.')
  await expect(plan.getByTestId('known')).toContainText(/A clean one takes about \d+(\.\d)? tries/)
  await expect(plan.getByRole('button', { name: /^Piece 1,/ })).toHaveCount(0)
  await plan.getByRole('button', { name: /^Piece 2,/ }).click()
  await expect(page.getByTestId('piece')).toContainText('then faster: ♩ = 70, ')
  await view(page, 'Log')
  await expect(page.getByTestId('log').getByRole('row')).toHaveCount(3)
  const notes = page.getByRole('region', { name: 'What Wren wrote' })
  await expect(notes.getByRole('listitem')).toHaveCount(1)
  await expect(notes).toContainText(/\d{4}-\d\d-\d\d · .*the stretch to fret 4 hurts/)
})
