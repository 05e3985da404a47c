import { expect, test, type Page } from '@playwright/test'
import { openDemo } from './bench.ts'
import { pdfSheets } from './pdf.ts'

/** Notes what a print would show, in place of the dialog. */
async function watchPrints(page: Page): Promise<void> {
  await page.addInitScript(() => {
    window.print = () => {
      document.body.dataset['printed'] = 'yes'
    }
  })
}

/** The part that is being printed, as it comes on paper: nothing else of the page is on it. */
async function printed(page: Page) {
  await expect(page.locator('body')).toHaveAttribute('data-printed', 'yes')
  await page.emulateMedia({ media: 'print' })
  await expect(page.locator('#root')).toBeHidden()
  const part = page.getByTestId('printed-part')
  await expect(part).toBeVisible()
  return part
}

test('a card of the neck prints on a page of its own', async ({ page }) => {
  await watchPrints(page)
  await page.goto('/neck?card=scale')
  await page.getByRole('button', { name: 'Print this card' }).click()
  const part = await printed(page)
  await expect(part.getByRole('heading', { level: 1, includeHidden: true })).toHaveText(
    'Scales and safe frets',
  )
  await expect(part).toContainText('Guitar · Standard')
  expect(await part.locator('svg circle').count()).toBeGreaterThan(5)
  // When it is on paper, the page is as before.
  await page.evaluate(() => window.dispatchEvent(new Event('afterprint')))
  await page.emulateMedia({ media: 'screen' })
  await expect(part).toHaveCount(0)
  await expect(page.getByRole('heading', { name: 'Neck card' })).toBeVisible()
})

test('the shapes of a chord print as a sheet of boxes', async ({ page }) => {
  await watchPrints(page)
  await page.goto('/shapes?chord=G')
  await expect(page.locator('.shape-pick').first()).toBeVisible()
  const boxes = await page.locator('.shape-pick').count()
  await page.getByRole('button', { name: 'Print these shapes' }).click()
  const part = await printed(page)
  await expect(part.locator('h1')).toHaveText('G')
  await expect(part.locator('.shape-pick')).toHaveCount(boxes)
  await expect(part.locator('button:not(.shape-pick)').filter({ visible: true })).toHaveCount(0)
})

test('a partner’s part prints on a page of its own', async ({ page }) => {
  await watchPrints(page)
  await openDemo(page, "Lamplighter's Round")
  await page.getByRole('link', { name: 'Fit' }).click()
  await page.getByText('Second guitar', { exact: true }).click()
  await page.getByRole('button', { name: 'Find keys' }).click()
  await expect(page.getByTestId('partners')).toContainText('Second guitar', { timeout: 90_000 })
  await page.getByTestId('partners').getByRole('button', { name: 'Print this part' }).last().click()
  const part = await printed(page)
  await expect(part.locator('h1')).toHaveText("Lamplighter's Round")
  await expect(part.locator('h3')).toContainText('Second guitar')
  await expect(part.getByRole('listitem', { includeHidden: true })).toHaveCount(17)
})

test('a printed tune has its title and the number of the page at every foot', async ({ page }) => {
  await openDemo(page, "Lamplighter's Round")
  await page.goto(page.url().replace(/arrange.*$/, 'print'))
  await expect(page.locator('[data-system]').first()).toBeVisible()
  await expect(page.locator('[data-drawn]')).toHaveCount(await page.locator('[data-system]').count())
  // Every note of the tab has a head on the staff over it; a note that is tied over has another.
  const frets = await page.locator('.tab-fret').count()
  expect(frets).toBeGreaterThan(60)
  expect(await page.locator('[data-drawn] .vf-notehead').count()).toBeGreaterThanOrEqual(frets)
  const path = test.info().outputPath('tune.pdf')
  // On half sheets, so that there is more than one.
  await page.pdf({ path, width: '210mm', height: '148mm' })
  const sheets = pdfSheets(path)
  expect(sheets.length).toBeGreaterThan(1)
  sheets.forEach((sheet, i) =>
    expect(sheet).toMatch(new RegExp(`Lamplighter's Round +${i + 1} ?/ ?${sheets.length}\\s*$`)),
  )
})
