import { expect, type Page } from '@playwright/test'
import { openStored } from './stored.ts'

/** A short tune of our own, for pasting. */
export const SMALL_TUNE =
  'X:1\nT:Gate Latch\nM:4/4\nL:1/4\nQ:1/4=120\nK:C\n"C"cdec|"F"f2"G7"d2|"C"edcB|"C"c4|]\n'

const FIRST_OF_DEMO = "Lamplighter's Round"

/** Ends on the bench of the first demo tune. */
export const takeDemo = (page: Page): Promise<void> => openDemo(page, FIRST_OF_DEMO)

/** Ends on the bench of the first demo tune, with all of them on the shelf. */
export async function takeDemoByHand(page: Page, base = ''): Promise<void> {
  await page.goto(`${base}/`)
  await page.getByRole('button', { name: 'Take the demo tunes' }).click()
  await expect(page.getByRole('heading', { name: FIRST_OF_DEMO })).toBeVisible({ timeout: 40_000 })
  await expect(page.locator('.tab-fret').first()).toBeVisible()
}

/** Opens one of the demo tunes on the bench. Others may be on the shelf, or none. */
export async function openDemo(page: Page, title: string): Promise<void> {
  if (await openStored(page, 'demo', { title })) return
  await takeDemoByHand(page)
  await page.goto('/')
  await page.getByRole('link', { name: title }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
}

/**
 * A text pasted, and taken: ends when the preview is gone.
 * @param base where the app is, for a browser that was not told
 */
export async function paste(page: Page, abc: string, base = ''): Promise<void> {
  await askToTake(page, abc, base)
  await expect(page.getByTestId('understood')).toHaveCount(0)
}

/** A text pasted, and asked to be taken. */
export async function askToTake(page: Page, abc: string, base = ''): Promise<void> {
  await page.goto(`${base}/`)
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page.getByLabel('What you have as text').fill(abc)
  await page.getByRole('button', { name: /^Take (it|all)/ }).click()
}

/** A pasted tune, arranged; ends on the bench. */
export async function arrangePasted(page: Page, abc = SMALL_TUNE, base = ''): Promise<void> {
  if (abc === SMALL_TUNE && (await openStored(page, 'gateLatch', { base }))) return
  await arrangeByHand(page, abc, base)
}

export async function arrangeByHand(page: Page, abc: string, base = ''): Promise<void> {
  await paste(page, abc, base)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
}

/** Waits until every line of the sheet that is in view, or near it, is drawn: lines far away are empty boxes. */
async function drawn(page: Page): Promise<void> {
  await page.waitForFunction(
    () =>
      new Promise<boolean>((tell) => {
        const lines = document.querySelectorAll('.system')
        // A sheet that knows no width yet has no lines.
        if (!lines.length) return tell(document.querySelector('.systems') === null)
        // The same margin as the sheet's own.
        const observer = new IntersectionObserver(
          (entries) => {
            observer.disconnect()
            tell(entries.every((e) => !e.isIntersecting || e.target.childElementCount > 0))
          },
          { rootMargin: '700px' },
        )
        for (const line of lines) observer.observe(line)
      }),
  )
}

/** Frets as the page shows them, in the order of the sheet. */
export async function frets(page: Page): Promise<string[]> {
  await drawn(page)
  return await page.locator('.tab-fret').evaluateAll((all) => all.map((e) => e.firstChild!.textContent!))
}

export const spoken = (page: Page) => page.getByTestId('spoken')

/** Frets on the bench once nothing is being arranged; a stage that is being left has a sheet of its own. */
export async function settledFrets(page: Page): Promise<string[]> {
  await expect(page.locator('.bench-sheet[aria-busy="false"]')).toBeVisible()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  return frets(page)
}

export async function chooseStyle(page: Page, style: string): Promise<void> {
  await page.getByRole('combobox', { name: 'Style' }).click()
  await page.getByRole('option', { name: style, exact: true }).click()
}

export async function chooseLevel(page: Page, level: number): Promise<void> {
  await page
    .getByRole('radiogroup', { name: 'Level' })
    .locator('label')
    .nth(level - 1)
    .click()
}

/** Waits until the last command is this one. */
export async function done(page: Page, label: string): Promise<void> {
  await expect(page.getByRole('button', { name: `Undo: ${label}` })).toBeEnabled()
}

/** Sets up the hand of a student, with an adult's spans. */
export async function addHand(page: Page, name: string): Promise<void> {
  await page.goto('/settings')
  await page.getByRole('button', { name: 'Add a hand' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill(name)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByTestId('players')).toContainText(name)
}

/** Effort over the sheet, measure by measure. */
export async function unfoldEffort(page: Page): Promise<void> {
  const line = page.getByRole('button', { name: /^Effort \d/ })
  if ((await line.getAttribute('aria-expanded')) !== 'true') await line.click()
  await expect(line).toHaveAttribute('aria-expanded', 'true')
}

/** Switches a layer of the sheet in its menu. */
export async function switchLayer(page: Page, layer: string): Promise<void> {
  await page.getByRole('button', { name: 'Sheet', exact: true }).click()
  await page.getByRole('checkbox', { name: layer, exact: true }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('checkbox', { name: layer, exact: true })).toHaveCount(0)
}

/** What is chosen less often, unfolded. */
export const openMore = (page: Page): Promise<void> => page.getByRole('button', { name: /^More/ }).click()

/** Goes to a measure by its cell of effort. */
export async function goToMeasure(page: Page, number: number): Promise<void> {
  await unfoldEffort(page)
  await page.getByRole('button', { name: new RegExp(`^Measure ${number}: effort`) }).click()
}

/** A page that shows its title and nothing that moves or is on its way. */
export async function atRest(page: Page): Promise<void> {
  await expect(page.getByRole('heading', { level: 1, includeHidden: true }).first()).toBeVisible()
  await expect(page.locator('.mantine-Loader-root')).toHaveCount(0)
  await page.waitForFunction(() => document.getAnimations().every((a) => a.playState !== 'running'))
}
