import AxeBuilder from '@axe-core/playwright'
import { expect, test, type Page } from '@playwright/test'
import { arrangePasted, atRest } from './bench.ts'
import { openStored } from './stored.ts'

/** What is unfolded on a page before it is looked at, by what the eye sees of it then. */
interface State {
  readonly called: string
  readonly unfold?: (page: Page) => Promise<void>
}

const press = (name: string | RegExp) => (page: Page) =>
  page.getByRole('button', { name, exact: true }).first().click()
const menu = (name: string | RegExp) => async (page: Page) => {
  await press(name)(page)
  await expect(page.getByRole('menu')).toBeVisible()
}
const dialog = (name: string | RegExp) => async (page: Page) => {
  await press(name)(page)
  await expect(page.getByRole('dialog')).toBeVisible()
}
const plain: State = { called: 'as it opens' }

/** Every page, with each of its dialogs and menus; a stage is an address of the tune that is open. */
const PAGES: Readonly<Record<string, readonly (readonly [string, readonly State[]])[]>> = {
  'shelf and tune': [
    [
      '/',
      [
        plain,
        { called: 'playing in', unfold: dialog('Play it in') },
        { called: 'menu of a tune', unfold: menu('What to do with Gate Latch') },
        {
          called: 'a paste that is understood',
          unfold: async (page) => {
            await press('Paste a tune or song')(page)
            await page
              .getByLabel('What you have as text')
              .fill('X:1\nT:Hinge\nM:4/4\nL:1/4\nK:C\n"C"cdec|]\n')
            await expect(page.getByTestId('understood')).toContainText('Hinge')
          },
        },
        { called: 'twelve bars', unfold: dialog('Twelve bars') },
        { called: 'palette', unfold: dialog('Find anything') },
        { called: 'help', unfold: dialog('What this page is for') },
      ],
    ],
    ['tune', [plain, { called: 'written on', unfold: press('Write') }]],
    ['fit', [plain]],
  ],
  bench: [
    [
      'arrange',
      [
        plain,
        {
          called: 'reasons and locks',
          unfold: async (page) => {
            await page.locator('.tab-fret').nth(3).click()
            for (const fold of ['Why this grip', 'Locks', 'Easier and fuller'])
              await page.getByText(fold).first().click()
            await expect(page.getByTestId('ways').getByRole('listitem').first()).toBeVisible()
          },
        },
        { called: 'more', unfold: dialog(/^More/) },
        { called: 'sheet', unfold: dialog('Sheet') },
        { called: 'history', unfold: dialog('History') },
        { called: 'export', unfold: menu('Export') },
        { called: 'capo', unfold: dialog(/^Capo|^No capo/) },
        { called: 'find', unfold: dialog('Find on the sheet') },
        { called: 'measure', unfold: menu('What to do with measure 1') },
        { called: 'playing', unfold: press('Playing') },
        { called: 'effort', unfold: press(/^Effort/) },
        {
          called: 'written on',
          unfold: async (page) => {
            await page.getByRole('button', { name: 'Write', exact: true }).click()
            await page.locator('.tab-fret').nth(3).click()
            await page.getByRole('button', { name: 'Form', exact: true }).click()
            await expect(page.getByTestId('form-menu')).toBeVisible()
          },
        },
      ],
    ],
    ['print', [plain]],
  ],
  'lesson and handout': [
    [
      'teach',
      [
        plain,
        ...['Piece', 'Script', 'Drills', 'Plan', 'Log'].map((view) => ({
          called: view,
          unfold: (page: Page) => page.locator('.teach-views').getByText(view, { exact: true }).click(),
        })),
        { called: 'options', unfold: dialog('How I teach') },
        { called: 'student', unfold: dialog(/^For /) },
      ],
    ],
    ['handout', [plain, { called: 'add a part', unfold: menu('Add a part') }]],
  ],
  studio: [
    [
      'practise',
      [plain, { called: 'a take', unfold: (page: Page) => page.getByText('Check a take').click() }],
    ],
    ['/students', [plain, { called: 'a student', unfold: toStudent }]],
    [
      '/repertoire',
      [
        plain,
        {
          called: 'more',
          unfold: (page) => page.getByRole('button', { name: 'More about' }).first().click(),
        },
      ],
    ],
    [
      '/sets',
      [
        plain,
        {
          called: 'as a book',
          unfold: async (page) => {
            await page.getByRole('link', { name: 'As a book' }).click()
            await expect(page.getByTestId('pages').getByRole('status')).toHaveText(/\d+ pages/)
          },
        },
        {
          called: 'on stage',
          unfold: async (page) => {
            await page.getByRole('button', { name: 'On stage' }).click()
            await expect(page.getByTestId('on-stage')).toBeVisible()
          },
        },
      ],
    ],
  ],
  references: [
    ['/shapes?chord=B', [plain]],
    ['/shapes?do=name&places=x-3-2-0-1-0', [plain]],
    ['/shapes?do=path', [plain]],
    ...['capo', 'tuning', 'scale', 'harmonics', 'roots'].map(
      (card) => [`/neck?card=${card}`, [plain]] as const,
    ),
    ['/tuner?capo=2', [plain]],
    ['/taste', [plain, { called: 'with entries', unfold: tasteWithEntries }]],
    [
      '/settings',
      [
        plain,
        { called: 'a hand', unfold: press('Add a hand') },
        { called: 'keys', unfold: (page) => page.keyboard.press('?') },
      ],
    ],
  ],
}

/** A new taste with a dislike in it. */
async function tasteWithEntries(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'New taste' }).click()
  await page.getByRole('combobox', { name: 'Like or dislike' }).click()
  await page.getByRole('option', { name: 'fills: few' }).click()
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByTestId('taste-entries')).toContainText('fills: few')
}

/** The page of the first student of the roster. */
async function toStudent(page: Page): Promise<void> {
  await page.getByTestId('roster').getByRole('link').first().click()
  await expect(page.getByTestId('given-tunes')).toBeVisible()
}

for (const [part, pages] of Object.entries(PAGES))
  test(`no accessibility fault on any page, dialog or menu, light and dark: ${part}`, async ({ page }) => {
    // Audits of whole pages: longer than one test usually takes.
    test.slow()
    page.setDefaultTimeout(20_000)
    // A short tune: every line of a sheet is drawn by the same parts.
    if (part === 'studio') await openStored(page, 'demo')
    else await arrangePasted(page)
    const bench = page.url()
    for (const [address, states] of pages)
      for (const { called, unfold } of states) {
        await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' })
        await page.goto(address.startsWith('/') ? address : bench.replace(/arrange$/, address))
        await atRest(page)
        await unfold?.(page)
        await atRest(page)
        expect.soft(await faults(page), `${address}, ${called}, light`).toEqual([])
        await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' })
        await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', 'dark')
        await atRest(page)
        // After dark only the colours are others.
        expect.soft(await faults(page, ['color-contrast']), `${address}, ${called}, dark`).toEqual([])
      }
  })

async function faults(page: Page, rules?: string[]): Promise<string[]> {
  const audit = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode()
  const { violations } = await (rules ? audit.withRules(rules) : audit).analyze()
  return violations.map((v) => `${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`)
}
