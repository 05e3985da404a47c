import { expect, test } from '@playwright/test'
import { takeDemo } from '../bench.ts'

const folder = '../docs/screenshots'

test('pictures of the main views', async ({ page }) => {
  await takeDemo(page)
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
  await page.getByRole('link', { name: 'The Ferry at Dusk' }).click()
  await page.locator('.tab-fret').nth(9).click()
  await page.getByRole('button', { name: 'Lamp on or off' }).click()
  await page.getByRole('button', { name: 'Playing' }).click()
  await page.waitForTimeout(800)
  await page.screenshot({ path: `${folder}/arrange-dark.png` })
  await page.getByRole('button', { name: 'Playing' }).click()
  await page.getByRole('button', { name: 'Lamp on or off' }).click()
  await page.setViewportSize({ width: 1024, height: 768 })
  await page.waitForTimeout(800)
  await page.screenshot({ path: `${folder}/arrange-tablet.png` })
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(page.url().replace('arrange', 'print'))
  await page.waitForTimeout(1200)
  await page.screenshot({ path: `${folder}/print.png` })
})

test('pictures of a mandolin piece, of locks and schools, and of a harmony', async ({ page }) => {
  await takeDemo(page)
  await page.goto('/')
  await page.getByRole('link', { name: 'Nightjar over the Weir' }).click()
  await page.locator('.tab-fret').nth(5).click()
  await page.getByRole('checkbox', { name: 'Picking hand' }).click()
  await page.getByText('Locks', { exact: true }).click()
  await page.getByRole('button', { name: /^Lock: Measure/ }).click()
  await expect(page.locator('.lock-sign').first()).toBeVisible()
  await page.getByRole('button', { name: 'Usual school' }).click()
  await page.waitForTimeout(900)
  await page.screenshot({ path: `${folder}/mandolin.png` })
  await page.keyboard.press('Escape')
  await page.goto(page.url().replace('arrange', 'tune'))
  await page.getByRole('button', { name: 'Suggest chords' }).click()
  await expect(page.getByRole('dialog').getByRole('region')).toHaveCount(3)
  await page.waitForTimeout(600)
  await page.screenshot({ path: `${folder}/harmony.png` })
})

test('pictures of shapes, neck card and settings', async ({ page }) => {
  const shot = async (path: string, file: string) => {
    await page.goto(path)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await page.waitForTimeout(900)
    await page.screenshot({ path: `${folder}/${file}.png` })
  }
  await shot('/shapes?chord=F%23m7b5', 'shapes')
  await shot('/shapes?do=name&places=x-3-2-0-1-0&capo=3', 'name-a-grip')
  await shot('/shapes?do=path&chords=C%20Am%20F%20G%20Em%20Dm7', 'progression')
  await shot('/neck?card=scale&tuning=dadgad', 'neck-card')
  await page.goto('/settings')
  for (const [name, fret] of [
    ['Small hands', 5],
    ['Wide hands', 1],
  ] as const) {
    await page.getByRole('button', { name: 'Add a hand' }).click()
    await page.getByRole('textbox', { name: 'Name' }).fill(name)
    await page.getByRole('button', { name: 'Find it on the neck' }).click()
    await page.getByRole('button', { name: new RegExp(`frets ${fret} and`) }).click()
    await page.getByRole('button', { name: 'Save' }).click()
    await expect(page.getByTestId('players')).toContainText(name)
  }
  await page.waitForTimeout(500)
  await page.screenshot({ path: `${folder}/settings.png` })
})
