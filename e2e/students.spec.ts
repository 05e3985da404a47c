import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { pdfSheets } from './pdf.ts'
import { openStored } from './stored.ts'

const today = (page: Page) => page.getByTestId('today')
const kept = (page: Page) => page.getByTestId('returned')

/** A practice file as a student’s lesson saves it. */
const fileOf = (tune: string, entries: readonly object[], student?: string) => ({
  name: 'practice.json',
  mimeType: 'application/json',
  buffer: Buffer.from(
    JSON.stringify({
      format: 'velvet-porch-practice-log',
      version: 1,
      tune,
      title: 'The Ferry at Dusk',
      unit: 'phrase',
      ...(student ? { student } : {}),
      entries,
    }),
  ),
})
const entry = (day: string, piece: number, bpm: number) => ({
  day,
  piece,
  bpm,
  clean: 3,
  minutes: 7,
  note: '',
})

async function readFiles(page: Page, ...files: ReturnType<typeof fileOf>[]): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Read a practice log' }).last().click(),
  ])
  await chooser.setFiles(files)
}

test('a lesson day: who comes, what was, what is hard, what next; the lesson is written down', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Students' }).click()
  const roster = page.getByTestId('roster')
  await expect(roster.getByRole('row')).toHaveCount(4)
  await expect(page.getByRole('heading', { name: 'This week' })).toBeVisible()
  await expect(page.getByTestId('stuck')).toContainText('Wren Tallow: The Ferry at Dusk, Piece 3')
  await roster.getByRole('link', { name: 'Wren Tallow' }).click()
  await expect(page.getByRole('heading', { name: 'Today with Wren Tallow' })).toBeVisible()
  await expect(today(page)).toContainText('Join phrases two and three.')
  await expect(today(page)).toContainText('♩ = 72 for')
  const list = page.getByTestId('practice-list').getByRole('listitem')
  await expect(list.first()).toContainText('hard')
  // Everything that is to be practised fits the fifteen minutes a day.
  const minutes = (await list.allInnerTexts()).map((text) => Number(/(\d+) min$/.exec(text.trim())![1]))
  expect(minutes.reduce((a, b) => a + b, 0)).toBeLessThanOrEqual(15)
  // How much of the tab's effort is mastered is drawn, and said.
  const effort = page.getByRole('img', { name: /^Effort mastered/ })
  await expect(effort).toBeVisible()
  const [, mastered, all] = /The Ferry at Dusk: (\d+) of (\d+)/.exec(
    (await effort.getAttribute('aria-label'))!,
  )!
  expect(Number(mastered)).toBeGreaterThan(0)
  expect(Number(mastered)).toBeLessThan(Number(all))
  // Written down, the lesson is what was done last time.
  const log = page.getByTestId('lesson-log')
  await log.getByLabel('What was done').fill('Phrase three with eyes closed.')
  await log.getByLabel('What comes next').fill('The whole tune, slowly.')
  await log.getByText('held', { exact: true }).first().click()
  await log.getByRole('button', { name: 'Keep this lesson' }).click()
  await expect(today(page)).toContainText('Phrase three with eyes closed.')
  await page.reload()
  await expect(today(page)).toContainText('To come: The whole tune, slowly.')
})

test('a tune is given, wanted by a day, and taken off again', async ({ page }) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Students' }).click()
  await page.getByLabel('Name or nickname').fill('Lio')
  await page.getByRole('button', { name: 'Add a student' }).click()
  await expect(page.getByRole('heading', { name: 'Today with Lio' })).toBeVisible()
  await expect(today(page)).toContainText('Nothing is due, nothing new is waiting.')
  await page.getByRole('combobox', { name: 'A tune of the shelf' }).click()
  await page.getByRole('option', { name: 'Two Chairs' }).click()
  await page.getByRole('button', { name: 'Give it' }).click()
  const given = page.getByTestId('given-tunes')
  await expect(given).toContainText('0 % at tempo')
  await expect(given).toContainText(/likely .*between .* and .* in eight of ten cases/s)
  // Its first pieces are new, and come one or two a day.
  await expect(page.getByTestId('practice-list').getByRole('listitem').first()).toContainText(
    'newTwo Chairs, Piece 1',
  )
  await given.getByRole('button', { name: 'Has it' }).click()
  await expect(given).toContainText('learnt')
  await expect(today(page)).toContainText('Nothing is due, nothing new is waiting.')
  await given.getByRole('button', { name: 'Take “Two Chairs” off' }).click()
  await expect(given).toHaveCount(0)
})

test('practice files come back: joined, not counted twice; what differs is asked; strangers are told', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Students' }).click()
  await page.getByTestId('roster').getByRole('link', { name: 'Wren Tallow' }).click()
  const link = page.getByTestId('given-tunes').getByRole('link', { name: 'The Ferry at Dusk' })
  const tune = /tunes\/([^/]+)/.exec((await link.getAttribute('href'))!)![1]!
  await readFiles(page, fileOf(tune, [entry('2020-05-01', 1, 61), entry('2020-05-02', 2, 62)]))
  await expect(kept(page)).toContainText('Wren Tallow, “The Ferry at Dusk”: 2 new entries.')
  await readFiles(page, fileOf(tune, [entry('2020-05-01', 1, 61), entry('2020-05-02', 2, 62)]))
  await expect(kept(page)).toContainText('0 new entries. 2 were known already.')
  // The same day, told otherwise.
  await readFiles(page, fileOf(tune, [entry('2020-05-02', 2, 99)]))
  await expect(kept(page)).toContainText('one day is told differently here')
  await expect(kept(page).getByRole('row', { name: /2020-05-02/ })).toContainText('♩ = 62')
  await kept(page).getByRole('button', { name: 'What the file says' }).click()
  await expect(kept(page)).toContainText('Wren Tallow, “The Ferry at Dusk”')
  // On the page of all students nobody is taken for granted, and each file has its own answer.
  await page.getByRole('link', { name: 'All students' }).click()
  await readFiles(page, fileOf(tune, [entry('2020-06-01', 1, 70)]), fileOf('elsewhere', []), {
    ...fileOf(tune, []),
    buffer: Buffer.from('{ half a file'),
  })
  await expect(kept(page)).toContainText('Whose log of “The Ferry at Dusk” is practice.json?')
  await expect(kept(page)).toContainText('which is not on this shelf')
  await expect(kept(page)).toContainText('This is not a practice log')
  await kept(page).getByRole('combobox').click()
  await page.getByRole('option', { name: 'Ansel Pike' }).click()
  await expect(kept(page)).toContainText('Ansel Pike, “The Ferry at Dusk”: one new entry.')
})

test('a student is saved as a table and erased whole', async ({ page }) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Students' }).click()
  await page.getByTestId('roster').getByRole('link', { name: 'Mirela Dove' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as a table (CSV)' }).click(),
  ])
  expect(file.suggestedFilename()).toBe('Mirela Dove.csv')
  await page.getByRole('button', { name: 'Erase Mirela Dove' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Erase everything' }).click()
  await expect(page.getByTestId('roster').getByRole('row')).toHaveCount(3)
  await expect(page.getByText('Mirela')).toHaveCount(0)
  await page.getByRole('link', { name: 'Settings' }).click()
  await expect(page.getByTestId('players')).toContainText('Wren Tallow')
  await expect(page.getByTestId('players')).not.toContainText('Mirela')
})

test('a set list is ordered so that nobody retunes twice, and read on stage', async ({ page }) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Set lists' }).click()
  const set = page.getByTestId('set')
  const titles = () => set.locator('ol a').allInnerTexts()
  await expect(set.locator('ol > li')).toHaveCount(7)
  const seconds = async () => Number(/about (\d+) s/.exec(await page.getByTestId('set-sum').innerText())![1])
  const before = await seconds()
  await set.getByRole('button', { name: 'Best order' }).click()
  await expect(page.getByTestId('set-ordered')).toContainText('Every order was weighed.')
  await expect.poll(seconds).toBeLessThan(before)
  await expect(set.getByTestId('moves').filter({ hasText: 'String 6 from E2 down to D2' })).toHaveCount(1)
  // A tune that is to close does, whatever it costs.
  await set.getByRole('combobox', { name: 'Place of Two Chairs' }).click()
  await page.getByRole('option', { name: 'closes' }).click()
  await set.getByRole('button', { name: 'Best order' }).click()
  await expect.poll(async () => (await titles()).at(-1)).toBe('Two Chairs')
  // By hand it goes as one likes.
  const [first, second] = await titles()
  await set.getByRole('button', { name: `${first} later` }).click()
  await expect.poll(async () => (await titles()).slice(0, 2)).toEqual([second, first])
  await set.getByRole('button', { name: 'On stage' }).click()
  const stage = page.getByTestId('on-stage')
  await expect(stage.getByRole('heading', { name: second! })).toBeVisible()
  await page.keyboard.press('PageDown')
  await expect(stage.getByRole('heading', { name: first! })).toBeVisible()
  await expect(stage).toContainText('2 of 7')
})

test('a set list becomes one book: title, contents with pages and what is done between, each tune on a page of its own', async ({
  page,
}) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Set lists' }).click()
  await page.getByRole('link', { name: 'As a book' }).click()
  await expect(page.getByTestId('pages').getByRole('status')).toHaveText(/^(9|1\d) pages$/)
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as PDF' }).click(),
  ])
  const path = test.info().outputPath('book.pdf')
  await file.saveAs(path)
  const [front, ...sheets] = pdfSheets(path)
  expect(front).toContain('Contents')
  expect(front).toContain('String 6 from E2 down to D2')
  const listed = [...front!.matchAll(/^\s*\d+\. (.+?) (?:Guitar|Mandolin),.*?\s(\d+)\s*$/gm)]
  expect(listed).toHaveLength(7)
  for (const [, title, number] of listed) expect(sheets[Number(number) - 2]!.trimStart()).toMatch(title!)
})

test('what is heard is saved as a sound file, and as MIDI with a track for each string', async ({ page }) => {
  await openStored(page, 'demo')
  await page.getByRole('button', { name: 'Playing' }).click()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as sound (WAV)' }).click(),
  ])
  expect(file.suggestedFilename()).toMatch(/\.wav$/)
  await page.getByRole('button', { name: 'Export' }).click()
  const [midi] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: 'MIDI, a channel a string' }).click(),
  ])
  const path = test.info().outputPath('tune.mid')
  await midi.saveAs(path)
  const bytes = readFileSync(path)
  // Standard MIDI Files 1.0: the header says format 1, the tracks, and 480 ticks a quarter.
  expect(bytes.subarray(0, 4).toString()).toBe('MThd')
  expect([bytes.readUInt16BE(8), bytes.readUInt16BE(10), bytes.readUInt16BE(12)]).toEqual([1, 7, 480])
})

test('the repertoire says how each tune stands, who has it and who asked for it', async ({ page }) => {
  await openStored(page, 'demo')
  await page.getByRole('link', { name: 'Repertoire' }).click()
  const table = page.getByTestId('repertoire')
  const row = (title: string) =>
    table.getByRole('row').filter({ has: page.getByRole('link', { name: title }) })
  await expect(row('The Ferry at Dusk')).toContainText('Ansel Pike, Wren Tallow')
  await expect(row('Rain on the Bicycle Shop')).toContainText('D A D G A D')
  // Effort is reckoned one after the other.
  await expect(row('The Ferry at Dusk')).toContainText(/\d\.\d/)
  await table.getByRole('combobox', { name: 'Status of Cold Pump Handle' }).click()
  await page.getByRole('option', { name: 'arranging' }).click()
  await row('Cold Pump Handle').getByRole('button', { name: 'More about Cold Pump Handle' }).click()
  await page.getByLabel('Asked for by').fill('Wren Tallow')
  await page.getByRole('button', { name: 'Note it' }).click()
  await expect(row('Cold Pump Handle')).toContainText('by one')
  await page.getByRole('button', { name: 'Played today' }).click()
  await expect(row('Cold Pump Handle')).toContainText(/\d{4}-\d\d-\d\d/)
  await page.reload()
  await page.getByRole('group', { name: 'Which tunes' }).getByText('arranging').click()
  await expect(table.getByRole('row')).toHaveCount(3)
  await expect(row('Cold Pump Handle')).toContainText('by one')
})
