import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Browser, type Page } from '@playwright/test'
import { arrangePasted, openDemo } from './bench.ts'
import { pdfFonts, pdfInfo, pdfPages, pdfSheets, pdfText } from './pdf.ts'

const pages = (page: Page) => page.getByTestId('pages')
/** The words on the pages, which stand in a shadow of their own. */
const onPaper = (page: Page) => page.locator('.handout-paper')
const blocks = (page: Page) => page.locator('.handout-blocks li .block-name')

async function toHandout(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Hand out' }).click()
  await expect(pages(page).getByRole('status')).toHaveText(/One page|\d+ pages/)
}

async function add(page: Page, part: string): Promise<void> {
  await page.getByRole('button', { name: 'Add a part' }).click()
  await page.getByRole('menuitem', { name: part, exact: true }).click()
}

async function saved(page: Page, button: string, name: string): Promise<string> {
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: button }).click(),
  ])
  const path = test.info().outputPath(name)
  await file.saveAs(path)
  return path
}

const serious = async (page: Page) =>
  (await new AxeBuilder({ page }).analyze()).violations
    .filter((v) => v.impact === 'serious' || v.impact === 'critical')
    .map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)

test('on request the notes stand over the tab, on the page and in the PDF', async ({ page }) => {
  await openDemo(page, 'Cold Pump Handle')
  await toHandout(page)
  const staves = () =>
    onPaper(page).evaluate((host) => host.shadowRoot!.querySelectorAll('svg.tab svg text').length)
  const systems = () => onPaper(page).evaluate((host) => host.shadowRoot!.querySelectorAll('svg.tab').length)
  await expect.poll(systems).toBeGreaterThan(1)
  expect(await staves()).toBe(0)
  expect(pdfFonts(await saved(page, 'Save as PDF', 'plain.pdf'))).not.toContain('Bravura')
  await page.getByText('Staff above', { exact: true }).click()
  await expect.poll(staves).toBeGreaterThan(40)
  // Clef, heads and signs come with their font, and nothing stands beyond the paper.
  expect(pdfFonts(await saved(page, 'Save as PDF', 'staff.pdf'))).toContain('Bravura')
  const beyond = await onPaper(page).evaluate(
    (host) =>
      [...host.shadowRoot!.querySelectorAll('.page')].flatMap((sheet) => {
        const { left, right } = sheet.getBoundingClientRect()
        return [...sheet.querySelectorAll('svg.tab svg text')].filter((e) => {
          const box = e.getBoundingClientRect()
          return box.left < left || box.right > right
        })
      }).length,
  )
  expect(beyond).toBe(0)
  // It is kept with the handout.
  await page.reload()
  await expect.poll(staves).toBeGreaterThan(40)
})

test('from a demo tune to two printed pages: parts added, moved and taken off, words of one’s own, a PDF', async ({
  page,
}) => {
  await openDemo(page, 'Cold Pump Handle')
  await toHandout(page)
  await expect(blocks(page)).toHaveText([
    'Title',
    'Capo, tuning, key',
    'Shapes and patterns',
    'Tab',
    'Practice plan',
  ])
  await add(page, 'Your own words')
  await page.getByRole('textbox', { name: 'Your own words' }).fill('Slowly by the window, <b>twice</b>.')
  await expect(onPaper(page)).toContainText('Slowly by the window, <b>twice</b>.')
  await page.getByRole('button', { name: 'Take off Shapes and patterns' }).click()
  // By keys: lifted, two up, put down.
  const handle = page.getByRole('button', { name: 'Move Your own words' })
  await handle.focus()
  await page.keyboard.press('Space')
  await expect(page.locator('.handout-blocks li.dragging')).toHaveCount(1)
  const told = page.locator('[id^="DndLiveRegion"]')
  for (let i = 0; i < 2; i++) {
    const before = await told.textContent()
    await page.keyboard.press('ArrowUp')
    await expect(told).not.toHaveText(before!)
  }
  await page.keyboard.press('Space')
  await expect(blocks(page)).toHaveText([
    'Title',
    'Capo, tuning, key',
    'Your own words',
    'Tab',
    'Practice plan',
  ])
  // By mouse: the plan before the tab.
  const from = (await page.getByRole('button', { name: 'Move Practice plan' }).boundingBox())!
  const to = (await page.getByRole('button', { name: 'Move Tab' }).boundingBox())!
  await page.mouse.move(from.x + 8, from.y + 8)
  await page.mouse.down()
  await page.mouse.move(from.x + 8, from.y - 10, { steps: 5 })
  await page.mouse.move(to.x + 8, to.y - 4, { steps: 8 })
  await page.mouse.up()
  await expect(blocks(page)).toHaveText([
    'Title',
    'Capo, tuning, key',
    'Your own words',
    'Practice plan',
    'Tab',
  ])
  await expect(pages(page).getByRole('status')).toHaveText('2 pages')
  const path = await saved(page, 'Save as PDF', 'handout.pdf')
  expect(pdfPages(path)).toBe(2)
  const text = pdfText(path)
  for (const said of [
    'Cold Pump Handle',
    'No capo',
    'Slowly by the window, <b>twice</b>.',
    'Practice plan',
    'Warm up',
    '2 of 2',
  ])
    expect(text).toContain(said)
  // Every page has the title at its foot.
  for (const sheet of pdfSheets(path)) expect(sheet).toMatch(/Cold Pump Handle .*\d of 2\s*$/)
  // The browser's own print has the same pages.
  const printed = test.info().outputPath('printed.pdf')
  await page.pdf({ path: printed, preferCSSPageSize: true })
  expect(pdfPages(printed)).toBe(2)
  expect(pdfText(printed)).toContain('Practice plan')
  expect(pdfText(printed)).not.toContain('Add a part')
  // Nothing is cut: all measures stand on the pages, and every piece inside its page.
  const outside = await onPaper(page).evaluate(
    (host) =>
      [...host.shadowRoot!.querySelectorAll('.page')].flatMap((p) => {
        const box = p.getBoundingClientRect()
        const foot = p.querySelector('footer')!.getBoundingClientRect()
        return [...p.querySelectorAll('.body > *')].filter((e) => {
          const own = e.getBoundingClientRect()
          return own.right > box.right || own.bottom > foot.top + 1
        })
      }).length,
  )
  expect(outside).toBe(0)
  // Kept: another visit finds it as it was left.
  await page.getByRole('link', { name: 'Arrange' }).click()
  await toHandout(page)
  await expect(blocks(page)).toHaveText([
    'Title',
    'Capo, tuning, key',
    'Your own words',
    'Practice plan',
    'Tab',
  ])
  expect(await serious(page)).toEqual([])
})

test('letter paper and large print, some measures alone, and every part in four languages', async ({
  page,
}) => {
  await arrangePasted(page)
  await toHandout(page)
  await page.getByText('Letter', { exact: true }).click()
  await page.getByRole('switch', { name: 'Large print' }).check({ force: true })
  for (const part of ['Step by step', 'Drills', 'Form', 'Words with chords', 'Sounding chords'])
    await add(page, part)
  await page.getByRole('textbox', { name: 'To measure' }).first().fill('2')
  const said: [string, RegExp][] = [
    ['English', /Step by step.*In a row|Put the \w+ finger/s],
    ['French (by machine)', /Plan de travail.*Pas à pas.*Posez/s],
    ['Spanish (by machine)', /Plan de práctica.*Paso a paso.*Pon el/s],
    ['Filipino (by machine)', /Plano ng ensayo.*Hakbang-hakbang.*Ilagay ang/s],
  ]
  for (const [language, words] of said) {
    await page.getByRole('combobox', { name: 'Language' }).click()
    await page.getByRole('option', { name: language }).click()
    await expect(onPaper(page)).toContainText(words)
    await expect(onPaper(page)).not.toContainText(/undefined|\{\w+\}/)
  }
  const path = await saved(page, 'Save as PDF', 'large.pdf')
  expect(pdfInfo(path)).toMatch(/612 x 792 pts \(letter\)/)
  await expect(pages(page).getByRole('status')).toHaveText(`${pdfPages(path)} pages`)
  expect(pdfText(path)).toContain('Hakbang-hakbang')
})

const SUNG =
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=120\nK:C\n"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|"C"cdec|"G7"d2B2|"C"edcB|"C"c4|]\nw:one two three four five six se-ven eight nine ten\n'

/** Opens a lesson file from the disk with the network off. */
async function opened(browser: Browser, path: string, width: number, height: number) {
  const context = await browser.newContext({ viewport: { width, height }, offline: true })
  const page = await context.newPage()
  const wrong: string[] = []
  page.on('pageerror', (e) => wrong.push(e.message))
  page.on('console', (m) => m.type() === 'error' && wrong.push(m.text()))
  page.on(
    'request',
    (r) =>
      r.url().startsWith('file:') ||
      r.url().startsWith('data:') ||
      r.url().startsWith('blob:') ||
      wrong.push(r.url()),
  )
  await page.goto(`file://${path}`)
  return { page, wrong, context }
}

test('a lesson file teaches without a network on phone and tablet, and its log comes back', async ({
  page,
  browser,
}) => {
  await arrangePasted(page, SUNG)
  await page.getByRole('link', { name: 'Teach' }).click()
  await page.locator('.teach-views').getByText('Piece', { exact: true }).click()
  await page.getByRole('textbox', { name: 'What you say to this piece' }).fill('Let the lamp <i>glow</i>.')
  await toHandout(page)
  const path = await saved(page, 'Lesson file', 'lesson.html')
  for (const [width, height] of [
    [390, 844],
    [1024, 768],
  ] as const) {
    const { page: lesson, wrong, context } = await opened(browser, path, width, height)
    await expect(lesson.getByRole('heading', { level: 1 })).toHaveText('Gate Latch')
    await expect(lesson.locator('.count')).toHaveText('1')
    await expect(lesson.getByText('Let the lamp <i>glow</i>.')).toBeVisible()
    await lesson.getByRole('button', { name: 'Next' }).click()
    await expect(lesson.locator('.where')).toHaveText(/Step 2 of \d+/)
    await lesson.keyboard.press('ArrowRight')
    await expect(lesson.locator('.where')).toHaveText(/Step 3 of/)
    // Nothing is wider than the screen.
    expect(await lesson.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
    // It plays in a loop and says where it is.
    await lesson.getByLabel('Loop').selectOption('measure')
    await lesson.getByRole('button', { name: 'Play', exact: true }).click()
    await expect(lesson.locator('.where')).toHaveText(/Step [124-9] of/)
    await lesson.getByRole('button', { name: 'Stop' }).click()
    await expect(lesson.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
    expect(await serious(lesson)).toEqual([])
    if (width === 390) {
      // Practised by the list: three clean ones make it rise, and it is in the log by itself.
      const pane = lesson.locator('.practise')
      await expect(pane.getByRole('listitem').first()).toContainText('new')
      const rung = pane.locator('[aria-current="step"]')
      const begun = await rung.innerText()
      for (let i = 0; i < 3; i++) await pane.getByRole('button', { name: 'Clean' }).click()
      await expect(rung).not.toHaveText(begun)
      await pane.getByRole('button', { name: 'Play this piece' }).click()
      await lesson.getByRole('button', { name: 'Stop' }).click()
      await pane.getByRole('button', { name: 'Into the log' }).click()
      await expect(lesson.locator('.entries li')).toHaveText([new RegExp(`${begun} · 3×`)])
      await lesson.getByLabel('Tempo reached').fill('70')
      await lesson.getByLabel('Minutes').fill('15')
      await lesson.getByLabel('How it went').fill('<b>better</b>')
      await lesson.getByRole('button', { name: 'Write it down' }).click()
      await expect(lesson.locator('.entries li')).toHaveText([
        /♩ = 70 · 3× · 15 min · <b>better<\/b>/,
        /· 3×/,
      ])
      const [log] = await Promise.all([
        lesson.waitForEvent('download'),
        lesson.getByRole('button', { name: 'Save the log as a file' }).click(),
      ])
      await log.saveAs(test.info().outputPath('log.json'))
    }
    expect(wrong).toEqual([])
    await context.close()
  }
  await page.getByRole('link', { name: 'Teach' }).click()
  await page.locator('.teach-views').getByText('Log', { exact: true }).click()
  const log = page.getByTestId('log')
  const file = log.locator('input[type=file]')
  await file.setInputFiles({
    name: 'no.json',
    mimeType: 'application/json',
    buffer: Buffer.from('{"format":"x"}'),
  })
  await expect(log.getByRole('alert')).toContainText('not a practice log')
  await file.setInputFiles(test.info().outputPath('log.json'))
  await expect(log.getByRole('row').nth(1)).toContainText(/Piece 1, measures 1 to 4.*1.*16.*♩ = 72/)
  await expect(log.getByRole('alert')).toHaveCount(0)
})

test('a title with markup runs nothing on the page, on paper or in the lesson file', async ({
  page,
  browser,
}) => {
  const title = `<img src=x onerror="document.title='RAN'">"Quoted"`
  await arrangePasted(page, `X:1\nT:${title}\nM:4/4\nL:1/4\nK:C\n"C"cdec|"C"c4|]\n`)
  await toHandout(page)
  await expect(onPaper(page)).toContainText('"Quoted"')
  expect(await onPaper(page).evaluate((h) => h.shadowRoot!.querySelectorAll('img').length)).toBe(0)
  const pdf = await saved(page, 'Save as PDF', 'odd.pdf')
  expect(pdfText(pdf)).toContain('"Quoted"')
  const {
    page: lesson,
    wrong,
    context,
  } = await opened(browser, await saved(page, 'Lesson file', 'odd.html'), 390, 844)
  await expect(lesson.getByRole('heading', { level: 1 })).toHaveText(title)
  expect(await lesson.title()).toBe(title)
  expect(await lesson.locator('img').count()).toBe(0)
  expect(wrong).toEqual([])
  await context.close()
})

test('where no server makes a PDF that is said before anybody asks, and the print dialog is named', async ({
  page,
}) => {
  await page.addInitScript(() => {
    window.print = () => void (document.body.dataset['printed'] = 'yes')
  })
  await arrangePasted(page)
  await page.route('**/api/pdf', (route) => route.fulfill({ json: { available: false } }))
  await toHandout(page)
  await expect(page.getByText('choose “Save as PDF” in the print dialog')).toBeVisible()
  await page.getByRole('button', { name: 'PDF by the print dialog' }).click()
  await expect(page.locator('body')).toHaveAttribute('data-printed', 'yes')
})

test('a PDF that fails says what to do instead', async ({ page }) => {
  await arrangePasted(page)
  await page.route('**/api/pdf', (route) =>
    route.request().method() === 'GET'
      ? route.fulfill({ json: { available: true } })
      : route.fulfill({
          status: 501,
          json: { error: 'No Chromium is installed here; use the print dialog of the browser.' },
        }),
  )
  await toHandout(page)
  await page.getByRole('button', { name: 'Save as PDF' }).click()
  await expect(page.getByText('use the print dialog of the browser')).toBeVisible()
})
