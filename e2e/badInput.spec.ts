import { mkdtempSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { arrangePasted, frets, paste, SMALL_TUNE } from './bench.ts'

const file = (name: string, content: Buffer | string) => ({
  name,
  mimeType: 'text/plain',
  buffer: Buffer.from(content),
})

test('files that are no tunes say what they are, and earlier work stays', async ({ page }) => {
  await arrangePasted(page)
  const before = await frets(page)
  await page.goto('/')
  const drop = (f: ReturnType<typeof file>) => page.getByTestId('file').setInputFiles([f])
  await drop(file('empty.abc', ''))
  await expect(page.getByText('empty.abc: The file is empty.')).toBeVisible()
  await drop(file('photo.abc', Buffer.from([137, 80, 78, 71, 0, 0, 0, 1])))
  await expect(page.getByText('photo.abc: This is not a text file.')).toBeVisible()
  await drop(file('huge.abc', Buffer.alloc(10_000_000, 'A')))
  await expect(page.getByText('huge.abc: The file has 10.0 MB')).toBeVisible()
  await drop(file('letter.abc', 'Dear Bea, the cafe was good.'))
  await expect(page.getByText('neither a tune in ABC, nor tab, nor a song')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('link', { name: 'Gate Latch' })).toHaveCount(1)
  await page.getByRole('link', { name: 'Gate Latch' }).click()
  await expect.poll(() => frets(page)).toEqual(before)
})

test('a file of a hundred megabytes is refused at once, whatever it calls itself, and the page goes on', async ({
  page,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  const hundred = (name: string, head: string) => {
    writeFileSync(join(folder, name), head)
    truncateSync(join(folder, name), 100_000_000)
    return join(folder, name)
  }
  await page.goto('/')
  for (const [name, head] of [
    ['tunes.abc', 'X:1\nT:Long\nK:G\n'],
    ['score.musicxml', '<?xml version="1.0"?><score-partwise>'],
    ['score.mxl', 'PK\u0003\u0004'],
    ['tune.mid', 'MThd\0\0\0\u0006'],
    ['tune.json', '{"format":"velvet-porch-tune"'],
  ] as const) {
    await page.getByTestId('file').setInputFiles(hundred(name, head))
    await expect(page.getByText(new RegExp(`^${name}: `))).toBeVisible()
  }
  await page.getByTestId('file').setInputFiles([file('own.abc', SMALL_TUNE)])
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
  rmSync(folder, { recursive: true })
})

test('several tunes in one file all arrive; Latin-1 and mixed line ends are read and said', async ({
  page,
}) => {
  await page.goto('/')
  await page
    .getByTestId('file')
    .setInputFiles([file('two.abc', `${SMALL_TUNE}\r\nX:2\rT:Second\nK:G\nGABc|\n`)])
  await page.getByRole('button', { name: 'Take all 2' }).click()
  await expect(page.getByText('2 tunes are on the shelf')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Second' })).toBeVisible()
  await page
    .getByTestId('file')
    .setInputFiles([file('latin.abc', Buffer.from('X:1\nT:Caf\u00e9\nK:C\nCDEF|', 'latin1'))])
  await expect(page.getByText('it was read as Latin-1')).toBeVisible()
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('heading', { name: 'Café' })).toBeVisible()
})

test('pasted rubbish keeps the dialog open with the reason', async ({ page }) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page.getByLabel('What you have as text').fill('no tune at all')
  await expect(page.getByText('neither a tune in ABC, nor tab, nor a song')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Take it' })).toBeDisabled()
  await expect(page.getByLabel('What you have as text')).toHaveValue('no tune at all')
})

test('text that can no longer be read leaves the last tune in place', async ({ page }) => {
  await paste(page, SMALL_TUNE)
  await page.getByRole('textbox', { name: 'The tune in ABC' }).click()
  await page.keyboard.press('Control+a')
  await page.keyboard.press('Delete')
  await expect(page.getByText('The tune below is the last one that could.')).toBeVisible()
  await expect(page.getByText('4 measures')).toBeVisible()
})

test('a melody that fits in no octave names the measure', async ({ page }) => {
  await paste(page, "X:1\nT:Ladder\nM:4/4\nL:1/4\nK:C\nCDEF|C,,,C,C c'''|G4|]")
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await expect(page.getByRole('alert')).toContainText('Measure 2: the melody leaves the instrument')
})

test('an unknown address and a tune that is gone lead back to the shelf', async ({ page }) => {
  await page.goto('/tunes/nothing/arrange')
  await expect(page.getByText('This tune is not on the shelf')).toBeVisible()
  await page.getByRole('link', { name: 'To the shelf' }).click()
  await expect(page.getByRole('heading', { name: 'Teach a tune on guitar or mandolin' })).toBeVisible()
})

test('broken storage is said, not overwritten', async ({ page }) => {
  await paste(page, SMALL_TUNE)
  await expect(page.getByRole('heading', { name: 'Gate Latch' })).toBeVisible()
  await page.evaluate(async () => {
    const open = indexedDB.open('velvet-porch')
    const db = await new Promise<IDBDatabase>((resolve) => (open.onsuccess = () => resolve(open.result)))
    const store = db.transaction('tunes', 'readwrite').objectStore('tunes')
    const all = store.getAll()
    await new Promise((resolve) => (all.onsuccess = resolve))
    const done = store.put({ ...(all.result[0] as object), measures: [] })
    await new Promise((resolve) => (done.onsuccess = resolve))
    db.close()
  })
  await page.reload()
  await expect(page.getByText('This tune cannot be read from storage')).toBeVisible()
  await expect(page.getByText(/measures/)).toBeVisible()
})
