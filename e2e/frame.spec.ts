import { expect, test, type Page } from '@playwright/test'
import { openStored } from './stored.ts'
import { arrangePasted, atRest, paste, SMALL_TUNE, takeDemoByHand, unfoldEffort } from './bench.ts'

const STAGES = ['tune', 'fit', 'arrange', 'teach', 'practise', 'handout'] as const
const REFERENCES = [
  '/shapes?chord=G',
  '/shapes?do=name',
  '/shapes?do=path',
  '/neck',
  '/neck?card=scale',
  '/tuner',
  '/taste',
  '/students',
  '/repertoire',
  '/sets',
  '/settings',
  '/',
]

/** Each stage of the tune that is open, and each reference page, one after the other. */
async function everywhere(page: Page, look: (where: string) => Promise<void>): Promise<void> {
  const bench = page.url()
  for (const stage of STAGES) {
    await page.goto(bench.replace(/arrange$/, stage))
    await atRest(page)
    await look(stage)
  }
  for (const address of REFERENCES) {
    await page.goto(address)
    await atRest(page)
    await look(address)
  }
  // Somebody's own page, where anybody is on record.
  await page.goto('/students')
  await atRest(page)
  const student = page.getByTestId('roster').getByRole('link').first()
  if (await student.isVisible()) {
    await student.click()
    await atRest(page)
    await look('a student')
  }
}

const find = async (page: Page, words: string) => {
  await page.keyboard.press('Control+k')
  await page.getByRole('textbox', { name: 'Find anything' }).fill(words)
}

test('the window is named after tune and stage', async ({ page }) => {
  await arrangePasted(page)
  await expect(page).toHaveTitle('Gate Latch · Arrange · Velvet Porch')
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(page).toHaveTitle('Gate Latch · Teach · Velvet Porch')
  await page.getByRole('link', { name: 'Shapes' }).click()
  await expect(page).toHaveTitle('Shapes · Velvet Porch')
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page).toHaveTitle('Shelf · Velvet Porch')
})

test('from the top of the page the sheet is one key and Enter away; the measures of the effort are one stop', async ({
  page,
}) => {
  await arrangePasted(page)
  await unfoldEffort(page)
  await page.reload()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Skip to the sheet' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('group', { name: 'Sheet of Gate Latch' })).toBeFocused()
  await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('neck-head')).toContainText('Measure 1')
  // The cells: one is reached by Tab, the others by arrow keys.
  const cells = page.getByRole('group', { name: 'Effort' }).getByRole('button', { name: /^Measure \d/ })
  await expect(cells).toHaveCount(4)
  expect(await cells.evaluateAll((all) => all.map((c) => (c as HTMLElement).tabIndex).sort())).toEqual([
    -1, -1, -1, 0,
  ])
  await cells.first().focus()
  await page.keyboard.press('ArrowRight')
  await expect(cells.nth(1)).toBeFocused()
  await page.keyboard.press('End')
  await expect(cells.nth(3)).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('neck-head')).toContainText('Measure 4')
})

test('an address without a page leads to the shelf; a tune without a stage to its bench', async ({
  page,
}) => {
  await page.goto('/somewhere/else?x=1')
  await expect(page.getByText('There is no page at that address: here is the shelf.')).toBeVisible()
  expect(new URL(page.url()).pathname).toBe('/')
  await page.goto('/tunes/no-such-tune/arrange')
  await page.getByRole('link', { name: 'To the shelf' }).click()
  await arrangePasted(page)
  const bench = page.url()
  await page.goto(bench.replace(/\/arrange$/, ''))
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  expect(page.url()).toBe(bench)
  await page.goto('/tunes/no-such-tune/print')
  await expect(page.getByRole('link', { name: 'To the shelf' })).toBeVisible()
})

test('the palette finds every control of every page, folded ones too, and takes the keyboard there', async ({
  page,
}) => {
  test.slow()
  await arrangePasted(page)
  await page.locator('.tab-fret').nth(2).click()
  await everywhere(page, async (where) => {
    // Names as a screen reader says them, from the page itself; the palette has its own way to them.
    const names = await namesOfControls(page)
    expect(names.length).toBeGreaterThan(1)
    await page.keyboard.press('Control+k')
    const box = page.getByRole('textbox', { name: 'Find anything' })
    for (const name of names) {
      await box.fill(name)
      const offered = page.locator('.mantine-Spotlight-actionLabel')
      await expect(offered.filter({ hasText: name }).first(), `${where}: “${name}”`).toBeVisible()
    }
    await page.keyboard.press('Escape')
  })
})

/** Names of all enabled controls of the stage, as Chromium's own accessibility tree has them. */
async function namesOfControls(page: Page): Promise<string[]> {
  const snapshot = await page.locator('#stage').ariaSnapshot()
  const roles = 'button|link|textbox|combobox|checkbox|switch|slider|spinbutton|searchbox'
  const named = new RegExp(`^\\s*- '?(?:${roles}) "((?:[^"\\\\]|\\\\.)+)"(.*)$`)
  const names = new Set<string>()
  for (const line of snapshot.split('\n')) {
    const [, name, state] = named.exec(line) ?? []
    if (name && !/\[disabled\]/.test(state ?? '')) names.add(name.replace(/\\"/g, '"').replace(/''/g, "'"))
  }
  // Chord boxes say where every finger is: the palette finds them by the name of the chord.
  return [...names].filter((n) => !/\bstring \d|^Measure \d+: effort/i.test(n))
}

test('what is folded is found by name, and is there with the keyboard on it', async ({ page }) => {
  await arrangePasted(page)
  for (const [words, control] of [
    ['counts', page.getByRole('checkbox', { name: 'Counts' })],
    ['fretting hand', page.getByRole('combobox', { name: 'Fretting hand' })],
    ['count in', page.getByRole('switch', { name: 'Count in' })],
  ] as const) {
    await find(page, words)
    await page.keyboard.press('Enter')
    await expect(control).toBeFocused()
    await page.keyboard.press('Escape')
  }
  // A tune, a chord, a stage, a setting.
  await find(page, 'gate latch')
  await expect(page.getByText('Open “Gate Latch”')).toBeVisible()
  await page.getByRole('textbox', { name: 'Find anything' }).fill('bm7')
  // The list follows what is typed.
  await expect(page.locator('.mantine-Spotlight-actionLabel').first()).toContainText('Bm7')
  await page.keyboard.press('Enter')
  await expect(page).toHaveURL(/chord=Bm7/)
  await expect(page.getByText(/^Bm7: \d+ ways to lay it/)).toBeVisible()
  await page.goBack()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await find(page, 'go to teach')
  await page.keyboard.press('Enter')
  await expect(page.getByTestId('count')).toBeVisible()
  await find(page, 'names of notes')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Names of notes' })).toBeVisible()
})

test('the list of keys names those of the sheet and of the neck', async ({ page }) => {
  await arrangePasted(page)
  await page.keyboard.press('?')
  const list = page.getByRole('dialog', { name: 'Keys' })
  for (const does of ['Play', 'What to do with this measure', 'next beat', 'next measure', 'On the neck'])
    await expect(list).toContainText(does)
  await page.keyboard.press('Escape')
  await page.goto('/settings')
  await atRest(page)
  await page.keyboard.press('?')
  await expect(list).toBeVisible()
  await expect(list).not.toContainText('On the sheet')
})

test('help says what the page is for, and leads to its keys', async ({ page }) => {
  await arrangePasted(page)
  for (const [stage, words] of [
    ['Arrange', 'why each grip was chosen'],
    ['Fit', 'Which key, capo and tuning'],
    ['Hand out', 'What the student takes home'],
  ] as const) {
    await page.getByRole('link', { name: stage }).click()
    await atRest(page)
    await page.getByRole('button', { name: 'What this page is for' }).click()
    const help = page.getByRole('dialog', { name: `${stage}: what it is for` })
    await expect(help).toContainText(words)
    await expect(help.locator('p')).toHaveCount(3)
    await page.keyboard.press('Escape')
  }
  await page.keyboard.press('F1')
  await page.getByRole('button', { name: 'Keys of this page' }).click()
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
})

test.describe('the first steps', () => {
  test.use({ storageState: { cookies: [], origins: [] } })

  test('lead from a paste to a printed page, the next one lit; they can be ended and called again', async ({
    page,
  }) => {
    await page.addInitScript(() => {
      window.print = () => undefined
    })
    await page.goto('/')
    const guide = page.getByTestId('guide')
    const lit = page.locator('[data-guide]').filter({ visible: true })
    const shines = () =>
      lit.evaluateAll((all) =>
        all
          .filter((e) => getComputedStyle(e).boxShadow.includes('16px 5px'))
          .map((e) => e.textContent || e.ariaLabel),
      )
    await expect(guide).toContainText('Paste a tune or a song of yours')
    await expect(page.getByText(/a melody with the names of the chords over it/)).toBeVisible()
    await expect.poll(shines).toEqual(['Take the demo tunes', 'Paste a tune or song'])
    await page.getByRole('button', { name: 'Paste a tune or song' }).click()
    await page.getByLabel('What you have as text').fill(SMALL_TUNE)
    await page.getByRole('button', { name: 'Take it' }).click()
    await expect(guide).toContainText('press “Arrange this tune”')
    await expect.poll(shines).toEqual(['Arrange this tune'])
    await page.getByRole('link', { name: 'Arrange this tune' }).click()
    await expect(guide).toContainText('to hear it')
    await expect.poll(shines).toEqual(['Play'])
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    await expect(guide).toContainText('Hand out')
    await expect.poll(shines).toEqual(['Hand out'])
    await page.getByRole('link', { name: 'Hand out' }).click()
    await expect(guide).toContainText('This is the paper')
    await page.getByRole('button', { name: 'Print', exact: true }).click()
    await expect(guide).toContainText('That is the whole way')
    await guide.getByRole('button', { name: 'End this' }).click()
    await expect(guide).toHaveCount(0)
    await page.reload()
    await atRest(page)
    await expect(guide).toHaveCount(0)
    await page.getByRole('button', { name: 'What this page is for' }).click()
    await page.getByRole('button', { name: 'Show the first steps' }).click()
    await expect(guide).toBeVisible()
  })

  test('are ended at once by who does not want them', async ({ page }) => {
    await page.goto('/')
    await page.getByTestId('guide').getByRole('button', { name: 'End this' }).click()
    await paste(page, SMALL_TUNE)
    await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
    await expect(page.getByTestId('guide')).toHaveCount(0)
  })
})

test('on the shelf removal, rename, duplicate and a new tune are each undone by Ctrl+Z', async ({ page }) => {
  await arrangePasted(page)
  await page.getByRole('link', { name: 'Shelf' }).click()
  const titles = () => page.locator('tbody tr td:first-child a').allTextContents()
  const choose = async (title: string, what: string) => {
    await page.getByRole('button', { name: `What to do with ${title}`, exact: true }).click()
    await page.getByRole('menuitem', { name: what }).click()
    await expect(page.getByRole('menuitem')).toHaveCount(0)
  }
  await choose('Gate Latch', 'Duplicate')
  await expect.poll(titles).toEqual(['Gate Latch (copy)', 'Gate Latch'])
  await choose('Gate Latch (copy)', 'Rename')
  await page.getByRole('textbox', { name: 'Name' }).fill('Hinge')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect.poll(titles).toContain('Hinge')
  await choose('Gate Latch', 'Remove')
  await expect.poll(titles).toEqual(['Hinge'])
  await page.getByRole('button', { name: 'Write a new tune' }).click()
  await expect(page.getByRole('heading', { name: 'New tune' })).toBeVisible()
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect.poll(titles).toEqual(['New tune', 'Hinge'])
  const undo = async (said: string) => {
    await page.keyboard.press('Control+z')
    await expect(page.getByText(`Undone: ${said}`)).toBeVisible()
  }
  await undo('“New tune” put on the shelf')
  await expect.poll(titles).toEqual(['Hinge'])
  await undo('“Gate Latch” removed')
  await expect.poll(async () => (await titles()).sort()).toEqual(['Gate Latch', 'Hinge'])
  await undo('“Gate Latch (copy)” renamed')
  await expect.poll(async () => (await titles()).sort()).toEqual(['Gate Latch', 'Gate Latch (copy)'])
  await undo('“Gate Latch” duplicated')
  await expect.poll(titles).toEqual(['Gate Latch'])
  await page.keyboard.press('Control+z')
  await expect(page.getByText('There is nothing to undo here.')).toBeVisible()
  // What was put back by undo lies in the bin, not nowhere.
  await page.getByRole('button', { name: 'Bin: 2 tunes' }).click()
  await expect(page.getByTestId('bin')).toContainText('Gate Latch (copy)')
})

test('a page that is reloaded right after the demo was taken brings the rest of it, each tune as it is set there', async ({
  page,
}) => {
  await takeDemoByHand(page)
  await page.goto('/')
  await page.getByRole('link', { name: 'Letters from the Lock House' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await expect(page.getByRole('combobox', { name: 'Style' })).toHaveValue('Picking pattern')
  await page.getByRole('link', { name: 'Shelf' }).click()
  await expect(page.getByRole('link', { name: 'Willow Ferry' })).toBeVisible()
  await expect(page.getByText('being arranged')).toHaveCount(0)
  await expect(page.getByRole('row')).toHaveCount(12)
})

test('a phone reaches every place; no page goes sideways, on a phone or at twice the size', async ({
  page,
}) => {
  test.slow()
  await openStored(page, 'demo')
  await page.setViewportSize({ width: 390, height: 844 })
  const bar = page.getByRole('navigation', { name: 'Stages of the work' })
  for (const place of ['Shelf', 'Tune', 'Fit', 'Arrange', 'Teach', 'Practise', 'Hand out'])
    await expect(bar.getByRole('link', { name: place })).toBeInViewport({ ratio: 1 })
  await bar.getByRole('button', { name: 'Menu' }).click()
  for (const place of ['Shapes', 'Neck card', 'Settings', 'Dark mode', 'Find anything', 'Keys'])
    await expect(page.getByRole('menuitem', { name: place })).toBeInViewport({ ratio: 1 })
  await page.getByRole('menuitem', { name: 'Neck card' }).click()
  await expect(page.getByRole('heading', { name: 'Neck card' })).toBeVisible()
  await page.goBack()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await everywhere(page, async (where) => {
    // A phone, the narrowest phone, and a window of 1280 points at 200 %.
    for (const [width, height] of [
      [390, 844],
      [320, 640],
      [640, 400],
    ] as const) {
      await page.setViewportSize({ width, height })
      const over = await page.evaluate(() => {
        const room = document.querySelector('#stage > :last-child')!
        return Math.max(
          document.documentElement.scrollWidth - innerWidth,
          room.scrollWidth - room.clientWidth,
        )
      })
      expect(over, `${where} at ${width}`).toBeLessThanOrEqual(1)
    }
  })
})
