import { test } from '@playwright/test'
import { readFileSync } from 'node:fs'
test('look', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto('/')
  await page.getByRole('button', { name: 'Paste a tune or song' }).click()
  await page.getByLabel('What you have as text').fill(readFileSync('/tmp/s1.txt', 'utf8'))
  await page.getByRole('button', { name: 'Take it' }).isEnabled()
  await page.waitForTimeout(1200)
  await page.screenshot({ path: '/tmp/look1.png' })
  await page.getByRole('button', { name: 'Take it' }).click()
  await page.getByRole('heading', { name: 'Willow Ferry' }).waitFor()
  await page.waitForTimeout(800)
  await page.screenshot({ path: '/tmp/look2.png' })
  await page.goto(page.url().replace('/tune', '/handout'))
  await page.waitForTimeout(2500)
  await page.screenshot({ path: '/tmp/look3.png' })
})
