import { expect, test, type Page } from '@playwright/test'
import { openDemo, takeDemoByHand, switchLayer } from '../bench.ts'

const folder = '../docs/screenshots'

/** The demo, without the word that it was taken. */
async function demo(page: Page): Promise<void> {
  await takeDemoByHand(page)
  await page.reload()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
}

test('pictures of the main views', async ({ page }) => {
  await demo(page)
  await page.waitForTimeout(800)
  await page.locator('.tab-fret').nth(8).click()
  await page.getByText('Why this grip').click()
  await page.waitForTimeout(500)
  await page.getByTestId('ways').getByRole('button', { name: 'Try' }).first().click()
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/arrange.png` })
  await page.goto(page.url().replace('arrange', 'tune'))
  await expect(page.locator('[data-drawn]').first()).toBeAttached()
  await page.waitForTimeout(600)
  await page.screenshot({ path: `${folder}/tune.png` })
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'The Ferry at Dusk' })).toBeVisible()
  await page.waitForTimeout(400)
  await page.screenshot({ path: `${folder}/shelf.png` })
})

test('pictures of a song: its bars beside it, and its page', async ({ page }) => {
  await demo(page)
  await page.goto('/')
  await page.getByRole('link', { name: 'Willow Ferry' }).click()
  await page.getByRole('link', { name: /Tune$/ }).click()
  await expect(page.locator('[data-drawn]').first()).toBeAttached()
  await page.getByText('Bars', { exact: true }).click()
  await page.waitForTimeout(600)
  await page.screenshot({ path: `${folder}/song.png` })
  await page.getByRole('link', { name: 'Hand out' }).click()
  await expect(page.getByText('One page')).toBeVisible()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/song-page.png` })
})

test('a picture of a lesson on a music stand', async ({ page }) => {
  await demo(page)
  await page.locator('.tab-fret').first().waitFor()
  await page.setViewportSize({ width: 1024, height: 768 })
  await page.getByRole('link', { name: 'Teach' }).click()
  await expect(page.getByTestId('count')).toBeVisible()
  for (let i = 0; i < 4; i++) await page.keyboard.press('ArrowRight')
  await page.waitForTimeout(800)
  await page.screenshot({ path: `${folder}/teach.png` })
})

test('a picture of writing by hand', async ({ page }) => {
  await demo(page)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await expect(page.getByTestId('write-bar')).toBeVisible()
  const note = page.locator('.tab-fret').nth(6)
  await note.click()
  await page.keyboard.press('e')
  await expect(page.locator('.lock-sign').first()).toBeVisible()
  await page.getByRole('textbox', { name: 'Places in a row' }).fill('3: 2 4=B 2: 0 2 3 6.3+2.3')
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/write.png` })
})

test('a picture of the Fit stage', async ({ page }) => {
  await demo(page)
  await page.getByRole('link', { name: 'Fit' }).click()
  await page.getByRole('combobox', { name: 'Voice' }).click()
  await page.getByRole('option', { name: 'Alto' }).click()
  await page.getByRole('button', { name: 'Find keys' }).click()
  await expect(page.getByRole('button', { name: 'Find keys again' })).toBeVisible({ timeout: 90_000 })
  await page.locator('.fit-side').evaluate((e) => e.scrollTo(0, 0))
  await page.mouse.move(640, 8)
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/fit.png` })
})

test('a picture of a mandolin piece, of locks and schools', async ({ page }) => {
  await demo(page)
  await page.goto('/')
  await page.getByRole('link', { name: 'Nightjar over the Weir' }).click()
  await page.locator('.tab-fret').nth(5).click()
  await switchLayer(page, 'Picking hand')
  await page.getByText('Locks', { exact: true }).click()
  await page.getByRole('button', { name: /^Lock: Measure/ }).click()
  await expect(page.locator('.lock-sign').first()).toBeVisible()
  await page.getByRole('button', { name: 'More', exact: true }).click()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/mandolin.png` })
})

test('pictures of a handout and of a lesson file on a phone', async ({ page, browser }) => {
  await openDemo(page, 'Letters from the Lock House')
  await page.getByRole('link', { name: 'Hand out' }).click()
  await expect(page.getByTestId('pages').getByRole('status')).toHaveText(/pages/)
  await page.getByText('Staff above', { exact: true }).click()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/handout.png` })
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Lesson file' }).click(),
  ])
  const path = test.info().outputPath('lesson.html')
  await file.saveAs(path)
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, offline: true })
  const lesson = await context.newPage()
  await lesson.goto(`file://${path}`)
  for (let i = 0; i < 4; i++) await lesson.getByRole('button', { name: 'Next' }).click()
  await lesson.waitForTimeout(500)
  await lesson.screenshot({ path: `${folder}/lesson-file.png` })
  await context.close()
})

test('picture of a song accompanied', async ({ page }) => {
  await demo(page)
  await page.goto('/')
  await page.getByRole('link', { name: 'Letters from the Lock House' }).click()
  await expect(page.locator('.lyric').first()).toBeVisible()
  await page.locator('.tab-fret').nth(2).click()
  await page.getByRole('button', { name: /^Pattern:/ }).click()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/accompany.png` })
})

test('picture of the tuner', async ({ page }) => {
  await page.goto('/tuner?tuning=dadgad')
  await page.getByText('Simulated string', { exact: true }).click()
  await page.getByRole('button', { name: 'Listen' }).click()
  await page.getByRole('radiogroup', { name: 'String of the simulation' }).getByText('5').click()
  await expect(page.getByTestId('tuner-note')).toContainText('string 5')
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/tuner.png` })
})

test('pictures of shapes and neck card', async ({ page }) => {
  const shot = async (path: string, file: string) => {
    await page.goto(path)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForTimeout(900)
    await page.screenshot({ path: `${folder}/${file}.png` })
  }
  await shot('/shapes?chord=F%23m7b5', 'shapes')
  await shot('/neck?card=scale&tuning=dadgad', 'neck-card')
})

test('pictures of a student, of practising and of a set list', async ({ page }) => {
  await demo(page)
  await page.goto('/')
  await expect(page.getByText('being arranged')).toHaveCount(0, { timeout: 60_000 })
  await page.getByRole('link', { name: 'Students' }).click()
  await page.getByTestId('roster').getByRole('link', { name: 'Wren Tallow' }).click()
  await expect(page.getByTestId('practice-list').getByRole('listitem').first()).toBeVisible()
  await page.screenshot({ path: `${folder}/student.png` })
  await page.getByTestId('given-tunes').getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await page.getByRole('link', { name: 'Practise' }).click()
  await expect(page.getByTestId('ladder')).toBeVisible()
  await page.getByRole('button', { name: 'Clean' }).click()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/practise.png` })
  await page.getByRole('link', { name: 'Set lists' }).click()
  await page.getByRole('button', { name: 'Best order' }).click()
  await expect(page.getByTestId('set-ordered')).toBeVisible()
  await page.screenshot({ path: `${folder}/sets.png` })
})

test('picture of a taste', async ({ page }) => {
  await demo(page)
  await page.setViewportSize({ width: 1280, height: 1000 })
  await page.goto('/')
  await page.getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  for (const measure of [2, 3]) {
    await page.locator(`[data-note^="b.m${measure}.0"]`).click({ timeout: 10_000 })
    await expect(page.locator('.write-where')).toContainText('string 6: bass', { timeout: 10_000 })
    await page.keyboard.press('Shift+Digit3')
    await page.waitForTimeout(600)
  }
  await page.getByTestId('taste-notice').getByRole('button', { name: 'Always' }).click({ timeout: 10_000 })
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.getByRole('link', { name: 'Taste' }).click()
  for (const like of ['basses above fret 4: avoid', 'fills: few']) {
    await page.getByRole('combobox', { name: 'Like or dislike' }).click()
    await page.getByRole('option', { name: like }).click()
    await page.getByRole('button', { name: 'Add', exact: true }).click()
    await expect(page.getByTestId('taste-entries')).toContainText(like)
  }
  await page.waitForTimeout(400)
  await page.screenshot({ path: `${folder}/taste.png` })
})
