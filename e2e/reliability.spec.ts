import { readFileSync } from 'node:fs'
import { chromium, expect, test, type Page } from '@playwright/test'
import { arrangePasted, askToTake, chooseLevel, done, frets, paste, SMALL_TUNE, spoken } from './bench.ts'
import { CHROMIUM } from './playwright.config.ts'

const trouble = (page: Page) => page.getByTestId('storage-trouble')
const level = (page: Page) => page.getByRole('radiogroup', { name: 'Level' }).locator('input:checked')
const text = (page: Page) => page.getByRole('textbox', { name: 'The tune in ABC' })

/** Lets the browser take nothing more of the page, as where its storage is full; or takes that back. */
const full = (page: Page, on: boolean) =>
  page.evaluate((isFull) => {
    const own = IDBObjectStore.prototype as IDBObjectStore & { roomy?: Pick<IDBObjectStore, 'put' | 'add'> }
    own.roomy ??= { put: own.put, add: own.add }
    const refuse = () => {
      throw new DOMException('The quota has been exceeded.', 'QuotaExceededError')
    }
    own.put = isFull ? refuse : own.roomy.put
    own.add = isFull ? refuse : own.roomy.add
  }, on)

/** Changes the first row of a table of the store, as an earlier session or another program could have left it. */
async function put(page: Page, table: string, change: object): Promise<void> {
  await page.evaluate(
    async ([name, changed]) => {
      const open = indexedDB.open('velvet-porch')
      const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
      const store = db.transaction(name, 'readwrite').objectStore(name)
      const all = store.getAll()
      await new Promise((resolve) => (all.onsuccess = resolve))
      const over = store.put({ ...(all.result[0] as object), ...changed })
      await new Promise((resolve) => (over.onsuccess = resolve))
      db.close()
    },
    [table, change] as const,
  )
}

test('without storage the page says so at once, and what is pasted stays where it can be copied', async ({
  page,
}) => {
  await page.addInitScript(() => Object.defineProperty(window, 'indexedDB', { value: undefined }))
  await askToTake(page, SMALL_TUNE)
  await expect(trouble(page)).toContainText('This browser stores nothing for this page')
  await expect(page.getByLabel('What you have as text')).toHaveValue(SMALL_TUNE)
  await expect(page.getByRole('dialog').getByRole('alert')).toContainText('Nothing could be read')
})

test('a full storage is said once; the change stays on the page and is stored when there is room', async ({
  page,
}) => {
  await arrangePasted(page)
  const before = await frets(page)
  await full(page, true)
  await chooseLevel(page, 3)
  await expect(trouble(page)).toContainText('The browser’s storage is full')
  await expect.poll(() => frets(page)).not.toEqual(before)
  const saving = page.waitForEvent('download')
  await trouble(page).getByRole('button', { name: 'Save everything as a file' }).click()
  const saved = JSON.parse(readFileSync(await (await saving).path(), 'utf8')) as {
    rows: { arrangements: { regions: { level: number }[] }[] }
  }
  expect(saved.rows.arrangements[0]!.regions[0]!.level).toBe(3)
  await full(page, false)
  await trouble(page).getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('button', { name: /^Undo: / })).toBeEnabled()
  await expect(trouble(page)).toBeHidden()
  await page.reload()
  await expect(level(page)).toHaveValue('3')
})

test('a first arrangement that storage has no room for is on the page all the same', async ({ page }) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByText('4 measures')).toBeVisible()
  await full(page, true)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(trouble(page)).toContainText('full')
  await expect.poll(async () => (await frets(page)).length).toBeGreaterThan(0)
  await full(page, false)
  await trouble(page).getByRole('button', { name: 'Try again' }).click()
  await expect(trouble(page)).toBeHidden()
  const shown = await frets(page)
  await page.reload()
  await expect.poll(() => frets(page)).toEqual(shown)
})

test('ABC that is typed while storage is full stays in the editor and can be saved as a file', async ({
  page,
}) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByText('4 measures')).toBeVisible()
  await full(page, true)
  await text(page).click()
  await page.keyboard.press('Control+End')
  await page.keyboard.type('|"C"c4|]')
  await expect(trouble(page)).toContainText('full')
  await expect(text(page)).toContainText('|"C"c4|]')
  // Read in the meantime, it is on the page and still not stored: nothing says that it is.
  await expect(page.getByText('5 measures')).toBeVisible()
  await expect(page.getByText('Saved', { exact: true })).toHaveCount(0)
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save the text as a file' }).click()
  expect(readFileSync(await (await saving).path(), 'utf8')).toContain('|"C"c4|]')
})

test('a window that reads writes nothing by any key, and has its turn when the other is closed', async ({
  context,
}) => {
  const [first, second] = [await context.newPage(), await context.newPage()]
  await arrangePasted(first)
  await chooseLevel(first, 3)
  await done(first, 'Level 3')
  await second.goto(first.url())
  await expect(second.getByText('This tune is open in another window')).toBeVisible()
  await second.bringToFront()
  await second.keyboard.press('Control+z')
  await second.keyboard.press('w')
  await second.keyboard.press('Control+k')
  const palette = second.getByRole('dialog')
  await expect(palette.getByText('Play', { exact: true })).toBeVisible()
  await expect(palette.getByText(/^(Undo|Redo|Write)/)).toHaveCount(0)
  await second.keyboard.press('Escape')
  await expect(palette).toBeHidden()
  await done(first, 'Level 3')
  await expect(level(first)).toHaveValue('3')
  await first.close()
  await expect(second.getByText('This tune is open in another window')).toBeHidden()
  await second.keyboard.press('Control+z')
  await expect(level(second)).toHaveValue('1')
})

test('a window whose tune was taken over gets it back when the other is closed', async ({ context }) => {
  const [first, second] = [await context.newPage(), await context.newPage()]
  await arrangePasted(first)
  await second.goto(first.url())
  await second.getByRole('button', { name: 'Work here instead' }).click()
  await expect(first.getByText('This tune is open in another window')).toBeVisible()
  await second.close()
  await expect(first.getByText('This tune is open in another window')).toBeHidden()
  await chooseLevel(first, 3)
  await done(first, 'Level 3')
})

test('a removed tune lies in the bin, comes back from there, and can be deleted for good', async ({
  page,
}) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByText('4 measures')).toBeVisible()
  const remove = async () => {
    await page.goto('/')
    await page.getByRole('button', { name: 'What to do with Gate Latch' }).click()
    await page.getByRole('menuitem', { name: 'Remove' }).click()
    await expect(page.getByRole('link', { name: 'Gate Latch' })).toBeHidden()
    await page.reload()
    await page.getByRole('button', { name: 'Bin: 1 tune' }).click()
    await expect(page.getByTestId('bin')).toContainText('30 more days of use')
  }
  await remove()
  await page.getByRole('button', { name: 'Put “Gate Latch” back' }).click()
  await expect(page.getByTestId('bin')).not.toContainText('Gate Latch')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toBeVisible()
  await remove()
  await page.getByRole('button', { name: 'Delete “Gate Latch” for good' }).click()
  await expect(page.getByTestId('bin')).not.toContainText('Gate Latch')
})

test('one file with everything brings a wiped browser back', async ({ page, browser }) => {
  await arrangePasted(page)
  await chooseLevel(page, 3)
  await done(page, 'Level 3')
  const before = await frets(page)
  await page.goto('/settings')
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save everything as a file' }).click()
  const file = await (await saving).path()
  await expect(page.getByTestId('your-data').getByRole('status')).toContainText('Saved as')
  const fresh = await browser.newContext()
  const there = await fresh.newPage()
  await there.goto('/settings')
  await there.getByTestId('your-data').locator('input[type=file]').setInputFiles(file)
  await expect(there.getByText(/The file of .* holds 1 tune/)).toBeVisible()
  await expect(there.getByTestId('restore-changes')).toContainText('1 tune comes: “Gate Latch”')
  await there.getByRole('button', { name: 'Add what is missing' }).click()
  await expect(there.getByText('1 tune was brought in.')).toBeVisible()
  // One step takes it back, and it is brought in again.
  await there.getByTestId('your-data').getByRole('button', { name: 'Undo' }).click()
  await expect(there.getByText('Everything is as it was before.')).toBeVisible()
  await there.getByTestId('your-data').locator('input[type=file]').setInputFiles(file)
  await there.getByRole('button', { name: 'Replace everything' }).click()
  await expect(there.getByText('1 tune was brought in.')).toBeVisible()
  await there.goto('/')
  await there.getByRole('link', { name: 'Gate Latch' }).click()
  await expect.poll(() => frets(there)).toEqual(before)
  await there.getByRole('button', { name: 'Undo: Level 3' }).click()
  await expect.poll(() => frets(there)).not.toEqual(before)
  await fresh.close()
})

test('the app keeps a backup of the day by itself, in a chosen folder too, and brings it back', async ({
  page,
}) => {
  // A folder of the browser's own stands in for one of the device.
  await page.addInitScript(() => {
    Object.assign(window, {
      showDirectoryPicker: async () =>
        (await navigator.storage.getDirectory()).getDirectoryHandle('Lessons', { create: true }),
    })
  })
  await arrangePasted(page)
  await page.goto('/settings')
  const daily = page.getByTestId('daily-backups')
  await expect(daily).toContainText('None yet')
  await daily.getByRole('button', { name: 'Write it into a folder too' }).click()
  await expect(daily).toContainText('Written into “Lessons”.')
  await expect(daily.getByRole('listitem')).toHaveText(/^\d{4}-\d{2}-\d{2}, 1 tune/)
  const files = await page.evaluate(async () => {
    const folder = await (await navigator.storage.getDirectory()).getDirectoryHandle('Lessons')
    const names: string[] = []
    for await (const name of (folder as unknown as { keys: () => AsyncIterable<string> }).keys())
      names.push(name)
    return names
  })
  expect(files).toEqual([expect.stringMatching(/^velvet-porch \d{4}-\d{2}-\d{2}\.zip$/)])
  await page.goto('/')
  await page.getByRole('button', { name: 'What to do with Gate Latch' }).click()
  await page.getByRole('menuitem', { name: 'Remove' }).click()
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toHaveCount(0)
  await page.goto('/settings')
  await daily.getByRole('button', { name: /^Bring .* back$/ }).click()
  await page.getByRole('button', { name: 'Replace everything' }).click()
  await expect(page.getByText('1 tune was brought in.')).toBeVisible()
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toBeVisible()
})

test('a tune goes out as a file with its tab and comes in again; another JSON file is refused with a word', async ({
  page,
}) => {
  await arrangePasted(page)
  const before = await frets(page)
  await page.goto('/')
  await page.getByRole('button', { name: 'What to do with Gate Latch' }).click()
  const saving = page.waitForEvent('download')
  await page.getByRole('menuitem', { name: 'Save as a file' }).click()
  const saved = await saving
  expect(saved.suggestedFilename()).toBe('Gate Latch.json')
  await page.getByTestId('file').setInputFiles(await saved.path())
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page).toHaveURL(/arrange/)
  await expect.poll(() => frets(page)).toEqual(before)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toHaveCount(2)
  await page
    .getByTestId('file')
    .setInputFiles([{ name: 'x.json', mimeType: 'application/json', buffer: Buffer.from('{"a":1}') }])
  await expect(page.getByText('This JSON file is none of ours')).toBeVisible()
})

test('a tab that cannot be read leaves its tune: data out, and the tune without it', async ({ page }) => {
  await arrangePasted(page)
  await put(page, 'arrangements', { regions: [] })
  await page.reload()
  await expect(page.getByText('The tab of this tune cannot be read from storage')).toBeVisible()
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save this data' }).click()
  expect(readFileSync(await (await saving).path(), 'utf8')).toContain('"regions": []')
  await page.getByRole('button', { name: 'Open the tune without its tab' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
})

test('a tab that a newer version wrote is left as it is, and said to be one', async ({ page }) => {
  await arrangePasted(page)
  await put(page, 'arrangements', { schema: 99, fromTomorrow: true })
  await page.reload()
  await expect(page.getByRole('heading', { name: 'A newer version of the app wrote this' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Open the tune without its tab' })).toHaveCount(0)
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save this data' }).click()
  expect(JSON.parse(readFileSync(await (await saving).path(), 'utf8'))).toMatchObject({
    schema: 99,
    fromTomorrow: true,
  })
})

test('typed text that is older than what is stored does not come over it; it can still be had', async ({
  page,
}) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByText('4 measures')).toBeVisible()
  const url = page.url()
  await page.goto('/settings')
  await put(page, 'tunes', { rev: 7, title: 'Newer' })
  const id = /tunes\/([^/]+)/.exec(url)![1]!
  await put(page, 'drafts', { id, text: 'X:1\nT:Old\nK:C\nCDE|', rev: 3, ancestors: ['1.x'], at: Date.now() })
  await page.goto(url)
  await expect(page.getByTestId('older-text')).toContainText('was not stored')
  await expect(page.getByRole('heading', { name: 'Newer' })).toBeVisible()
  await expect(text(page)).toContainText('T:Gate Latch')
  await page.getByRole('button', { name: 'Show the older text' }).click()
  await expect(text(page)).toContainText('T:Old')
  await expect(page.getByRole('heading', { name: 'Old' })).toBeVisible()
})

test('text that cannot be read is there again after the page was closed', async ({ context }) => {
  const page = await context.newPage()
  await paste(page, SMALL_TUNE)
  await expect(page.getByText('4 measures')).toBeVisible()
  await text(page).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('no tune any more')
  await expect(page.getByText('The tune below is the last one that could.')).toBeVisible()
  const url = page.url()
  await page.close()
  const again = await context.newPage()
  await again.goto(url)
  await expect(text(again)).toContainText('no tune any more')
  await expect(again.getByText('The tune below is the last one that could.')).toBeVisible()
})

test('ABC with blocks of PostScript is read, and what was left out is said', async ({ page }) => {
  await paste(page, SMALL_TUNE.replace('K:C\n', 'K:C\n%%beginps\n/a { 1 } def\n%%endps\n'))
  await expect(page.getByText('4 measures')).toBeVisible()
  await expect(page.getByTestId('problems')).toContainText('a block of ps')
})

test('under another name, over plain http, the whole job works', async () => {
  const browser = await chromium.launch({
    ...CHROMIUM,
    args: [...CHROMIUM.args, '--host-resolver-rules=MAP studio.test 127.0.0.1'],
  })
  const page = await (await browser.newContext({ baseURL: 'http://studio.test:4317' })).newPage()
  await page.goto('/')
  expect(await page.evaluate(() => [window.isSecureContext, 'randomUUID' in crypto])).toEqual([false, false])
  await arrangePasted(page)
  await chooseLevel(page, 3)
  await done(page, 'Level 3')
  await page.locator('.tab-fret').first().click()
  await expect(spoken(page)).toContainText('string')
  await browser.close()
})
