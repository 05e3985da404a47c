import { readFileSync } from 'node:fs'
import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { writeMidi, type MidiData } from 'midi-file'
import { openStored } from './stored.ts'

const understood = (page: Page) => page.getByTestId('understood')

async function openFile(page: Page, name: string, content: string | Buffer): Promise<void> {
  const [chooser] = await Promise.all([
    page.waitForEvent('filechooser'),
    page.getByRole('button', { name: 'Open a file' }).click(),
  ])
  await chooser.setFiles({
    name,
    mimeType: 'application/octet-stream',
    buffer: typeof content === 'string' ? Buffer.from(content) : content,
  })
}

const note = (step: string, octave: number) =>
  `<note><pitch><step>${step}</step><octave>${octave}</octave></pitch><duration>1</duration></note>`
const part = (id: string, steps: string, octave: number) =>
  `<part id="${id}">${[0, 1]
    .map(
      (m) =>
        `<measure number="${m + 1}">${m === 0 ? '<attributes><divisions>1</divisions><key><fifths>1</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes>' : ''}${[...steps].map((s) => note(s, octave)).join('')}</measure>`,
    )
    .join('')}</part>`
const DUET = `<?xml version="1.0"?><score-partwise version="4.0"><work><work-title>Lantern Stair</work-title></work><part-list><score-part id="P1"><part-name>Fiddle</part-name></score-part><score-part id="P2"><part-name>Cello</part-name></score-part></part-list>${part('P1', 'GABG', 4)}${part('P2', 'GGDG', 3)}</score-partwise>`

const SCALE = [62, 64, 66, 67, 69]

/** A file of one track: eight quarters, its second halves late. */
const SWUNG = Buffer.from(
  writeMidi({
    header: { format: 0, numTracks: 1, ticksPerBeat: 480 },
    tracks: [
      [
        { deltaTime: 0, meta: true, type: 'trackName', text: 'Copper Kettle Walk' },
        ...Array.from({ length: 16 }, (_, i) => [
          { deltaTime: 0, type: 'noteOn', channel: 0, noteNumber: SCALE[i % 5], velocity: 80 },
          {
            deltaTime: i % 2 === 0 ? 310 : 170,
            type: 'noteOff',
            channel: 0,
            noteNumber: SCALE[i % 5],
            velocity: 0,
          },
        ]).flat(),
        { deltaTime: 0, meta: true, type: 'endOfTrack' },
      ],
    ],
  } as unknown as MidiData),
)

test('a score comes in by part: the melody is chosen, the rest kept, the chords found', async ({ page }) => {
  await page.goto('/')
  await openFile(page, 'duet.musicxml', DUET)
  await expect(understood(page)).toContainText('Lantern Stair')
  await expect(understood(page)).toContainText('16 notes')
  const melody = understood(page).getByRole('combobox', { name: 'Melody' })
  await expect(melody).toHaveValue(/Fiddle/)
  await melody.click()
  await page.getByRole('option', { name: /Cello/ }).click()
  await expect(melody).toHaveValue(/Cello/)
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('heading', { name: 'Lantern Stair' })).toBeVisible()
  await expect(page.locator('.cm-content')).toContainText('G,2 G,2 D,2 G,2')
})

test('a MIDI file says how it was drawn to the grid, and is drawn otherwise', async ({ page }) => {
  await page.goto('/')
  await openFile(page, 'walk.mid', SWUNG)
  await expect(understood(page)).toContainText('Copper Kettle Walk')
  await expect(understood(page)).toContainText('the second half of each beat comes late')
  const even = understood(page).getByLabel('Write the swing as even halves')
  await expect(even).toBeChecked()
  await even.uncheck()
  await expect(understood(page)).toContainText(/Triplets \(8 beats\)/)
  await even.check()
  await expect(understood(page).getByLabel('Triplets', { exact: true })).toBeVisible()
  await understood(page).getByLabel('Pickup, in quarter notes').fill('1')
  await expect(understood(page)).toContainText('3 measures')
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.locator('.cm-content')).toContainText('D E | F G A D')
})

test('what is damaged is refused in words, and nothing is taken', async ({ page }) => {
  await page.goto('/')
  await openFile(page, 'cut.mid', SWUNG.subarray(0, 60))
  await expect(page.getByRole('alert')).toContainText('the MIDI file is cut short')
  await expect(page.getByRole('button', { name: 'Take it' })).toBeDisabled()
  await page.getByRole('button', { name: 'Cancel' }).last().click()
  await openFile(page, 'cut.musicxml', DUET.slice(0, 700))
  await expect(page.getByRole('alert')).toContainText('cut short')
})

test('the tab leaves as a score, says what is not in the file, and comes back as the same tab', async ({
  page,
}) => {
  await openStored(page, 'demo')
  const saved = async (item: string) => {
    await page.getByRole('button', { name: 'Export' }).click()
    const [file] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('menuitem', { name: item }).click(),
    ])
    return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) }
  }
  const score = await saved('MusicXML, staff and tab')
  expect(score.name).toBe("Lamplighter's Round.musicxml")
  await expect(page.getByText(/Not in the file: .*styles and levels/)).toBeVisible()
  const text = await saved('Tab as text')
  const picture = await saved('Picture (PNG)')
  expect(picture.bytes.subarray(1, 4).toString()).toBe('PNG')
  expect(picture.bytes.length).toBeGreaterThan(20_000)
  const drawing = await saved('Drawing (SVG)')
  expect(drawing.bytes.toString()).toContain('<text')
  await page.getByRole('link', { name: 'Shelf' }).click()
  await openFile(page, score.name, score.bytes)
  await expect(understood(page)).toContainText("Lamplighter's Round")
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('button', { name: 'Export' })).toBeVisible()
  const again = await saved('Tab as text')
  const strings = (bytes: Buffer) =>
    bytes
      .toString()
      .split('\n')
      .filter((line) => /^[A-G][#b]? ?\|/.test(line))
  expect(strings(again.bytes).length).toBeGreaterThan(12)
  expect(strings(again.bytes)).toEqual(strings(text.bytes))
})

test('all tunes that are listed are arranged and saved as files at once, or stopped', async ({ page }) => {
  await page.goto('/')
  const tunes = ['Anvil Gate', 'Bramble Weir', 'Cinder Path'].map(
    (title, i) => `X:${i + 1}\nT:${title}\nM:4/4\nL:1/4\nK:G\n"G"GABc|"D"dcBA|"C"EGcB|"G"G4|]\n`,
  )
  await openFile(page, 'book.abc', tunes.join('\n'))
  await page.getByRole('button', { name: 'Take all 3' }).click()
  await page.getByRole('textbox', { name: 'Find a tune' }).first().fill('e')
  await page.getByRole('button', { name: 'Arrange all 3 and save them as files' }).click()
  const many = page.getByTestId('many')
  await expect(many.getByLabel('Tab as text')).toBeChecked()
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    many.getByRole('button', { name: 'Start with all 3' }).click(),
  ])
  await expect(many.getByRole('status')).toContainText('3 tunes were arranged')
  const files = unzipSync(readFileSync(await file.path()))
  expect(Object.keys(files).sort()).toEqual([
    'Anvil Gate.musicxml',
    'Anvil Gate.txt',
    'Bramble Weir.musicxml',
    'Bramble Weir.txt',
    'Cinder Path.musicxml',
    'Cinder Path.txt',
  ])
  // The tabs stay: a second time nothing is arranged any more.
  await many.getByRole('button', { name: 'Start with all 3' }).click()
  await expect(many.getByRole('status')).toContainText('0 tunes were arranged')
})
