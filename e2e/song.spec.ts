import { expect, test } from '@playwright/test'
import { paste } from './bench.ts'

const SONG = `Willow Ferry
by Nell Harrow
Capo 2
Strum: D DU UDU

[Verse 1]
G              D
Down by the ferry the willows bend low
Em               C
I left you my lantern, I left you my coat

[Chorus]
    C          G
Oh, carry me over, carry me home

Chorus
`

test('a song goes from a paste to a printed page: what is understood first, then words, shapes, strum, capo', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page.getByLabel('What you have as text').fill(SONG)
  const found = page.getByTestId('understood')
  await expect(found).toContainText('Willow Ferry')
  await expect(found).toContainText('16 measures · 8 chords · 4 lines of words · A major · 4/4 · capo 2')
  await expect(found).toContainText('a line takes 4 bars until you say otherwise')
  // What the names mean is asked once; each answer says what it does.
  await expect(found.getByText('The shape: the hand holds G, A sounds')).toBeVisible()
  await found.getByText('The sound: G sounds, the hand holds F').click()
  await expect(found).toContainText('G major')
  await found.getByText('The shape: the hand holds G, A sounds').click()
  await expect(found).toContainText('A major')
  await found.getByLabel('Bars a line').fill('2')
  await expect(found).toContainText('8 measures')
  await page.getByRole('button', { name: 'Take it' }).click()

  await expect(page.getByRole('heading', { name: 'Willow Ferry' })).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'The song as text' })).toHaveValue(
    /\[Verse 1\]\n\[G\]Down by the fer\[D\]ry/,
  )
  await page.getByRole('link', { name: 'Hand out' }).click()
  const paper = page.locator('.page').first()
  await expect(paper).toContainText('Capo at fret 2')
  await expect(paper.locator('figcaption')).toHaveText(['G', 'D', 'Em', 'C'])
  await expect(paper.locator('.strum')).toHaveText('Strum:12&&4&')
  const strokes = await paper
    .locator('.strum svg')
    .evaluateAll((arrows) => arrows.map((a) => a.getAttribute('aria-label')![0]).join(''))
  expect(strokes).toBe('dduudu')
  await expect(paper.locator('.part h3')).toHaveText(['Verse 1', 'Chorus', 'Chorus'])
  // The chords stand as the hand calls them; the chorus that comes again is named, not written again.
  await expect(paper.locator('.part').nth(1).locator('.sung i')).toHaveText(['\u00a0', 'C', 'G'])
  await expect(paper.locator('.part').nth(2).locator('.sung')).toHaveCount(0)
})

test('bars and beats of a song are a guess until they are said: by number, by key, by dragging, by tapping', async ({
  page,
}) => {
  await paste(page, SONG.replace('Capo 2\n', ''))
  await page.getByText('Bars: a guess').click()
  await expect(page.getByText('4 lines are a guess.')).toBeVisible()
  await page.getByLabel('Bars of “Down by the ferry the willows bend low”').fill('2')
  await expect(page.getByText('3 lines are a guess.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'D: bar 2, beat 1' })).toBeVisible()
  await page.getByRole('button', { name: 'D: bar 2, beat 1' }).press('ArrowRight')
  await expect(page.getByRole('button', { name: 'D: bar 2, beat 2' })).toBeVisible()
  // Dragged back by the width of a beat.
  const chord = page.getByRole('button', { name: 'D: bar 2, beat 2' })
  const box = (await chord.boundingBox())!
  await page.mouse.move(box.x + 6, box.y + 8)
  await page.mouse.down()
  await page.mouse.move(box.x - 20, box.y + 8, { steps: 5 })
  await page.mouse.move(box.x - 34, box.y + 8, { steps: 5 })
  await page.mouse.up()
  await expect(page.getByRole('button', { name: 'D: bar 2, beat 1' })).toBeVisible()
  // Tapped with the space bar: at 60 beats a minute a tap a second is a beat.
  await page
    .getByRole('button', { name: 'Tap the changes of “I left you my lantern, I left you my coat”' })
    .click()
  const tapping = page.getByTestId('tap-changes')
  await tapping.getByLabel('Beats a minute').fill('300')
  const pad = tapping.getByRole('button', { name: 'Em' })
  await pad.focus()
  for (let i = 0; i < 3; i++) await page.keyboard.press(' ')
  await tapping.getByRole('button', { name: 'Write it' }).click()
  await expect(page.getByText('2 lines are a guess.')).toBeVisible()
  await page.getByRole('button', { name: 'These bars are right' }).click()
  await expect(page.getByText('Drag a chord to its beat')).toBeVisible()
  await page.getByRole('button', { name: /^Undo/ }).click()
  await expect(page.getByText('2 lines are a guess.')).toBeVisible()
})

test('words and chords are corrected in place, and saved as ChordPro that is read again', async ({
  page,
}) => {
  await paste(page, SONG)
  const text = page.getByRole('textbox', { name: 'The song as text' })
  const before = await text.inputValue()
  await text.fill(before.replace('[Em]I left', '[Am]I left').replace('my lan[C]tern', 'a lan[C]tern'))
  // The page shows what sounds behind the capo.
  await expect(page.locator('.systems')).toContainText('Bm')
  await expect(page.locator('.systems')).toContainText('a lan')
  const saving = page.waitForEvent('download')
  await page.getByRole('button', { name: 'Save as ChordPro' }).click()
  const saved = await saving
  expect(saved.suggestedFilename()).toBe('Willow Ferry.cho')
  await page.goto('/')
  await page.getByTestId('file').setInputFiles(await saved.path())
  await expect(page.getByTestId('understood')).toContainText('A major')
  await page.getByRole('button', { name: 'Take it' }).click()
  await expect(page.getByRole('textbox', { name: 'The song as text' })).toHaveValue(/\[Am\]I left you a lan/)
})

test('a capo moves as teachers say it: the shapes stay, or the sound; a tuning of notes gets a name', async ({
  page,
}) => {
  await paste(page, SONG)
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  const setup = page.getByTestId('setup')
  await expect(setup).toContainText('shapes in G major · capo 2 · sounds A major')
  await page.getByRole('button', { name: 'Capo, now 2' }).click()
  await page.getByRole('button', { name: 'capo 5' }).hover()
  await expect(page.getByTestId('capo-example')).toHaveText(
    'Capo 5, shapes of G: the hand goes on holding G, C sounds; the tune is in C major.',
  )
  await page.getByRole('button', { name: 'capo 5' }).click()
  await expect(setup).toContainText('shapes in G major · capo 5 · sounds C major')
  await expect(page.locator('.chord-name').first()).toHaveText('G')
  await page.getByRole('button', { name: 'Capo, now 5' }).click()
  await page.getByText('Sound stays').click()
  await page.getByRole('button', { name: 'capo 3' }).hover()
  await expect(page.getByTestId('capo-example')).toHaveText(
    'Capo 3: C goes on sounding; the hand holds A in place of G.',
  )
  await page.getByRole('button', { name: 'capo 3' }).click()
  await expect(setup).toContainText('shapes in A major · capo 3 · sounds C major')

  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await page.getByRole('option', { name: 'Own tuning…' }).click()
  await page.getByLabel('Notes, lowest string first').fill('C G C G')
  await expect(page.getByText('6 notes are needed, 4 are there.')).toBeVisible()
  await page.getByLabel('Notes, lowest string first').fill('C G D G B D')
  await page.getByLabel('A name for it, to keep it').fill('Weir tuning')
  await page.getByRole('button', { name: 'Use it' }).click()
  await expect(page.getByRole('combobox', { name: 'Tuning' })).toHaveValue('Weir tuning')
  await page.goto('/neck')
  await page.getByRole('combobox', { name: 'Tuning' }).click()
  await expect(page.getByRole('option', { name: 'Weir tuning' })).toBeVisible()
})
