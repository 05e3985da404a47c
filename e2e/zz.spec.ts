import { test } from '@playwright/test'
import { openDemo } from './bench.ts'

const SIZES = { d: [1280, 800], t: [1024, 768], p: [390, 844], l: [1366, 768] } as const
const only = (process.env['SIZES'] ?? 'd,t,p').split(',') as (keyof typeof SIZES)[]
const dark = process.env['DARK'] === '1'
const routes = (process.env['ROUTES'] ?? '/,tune,fit,arrange,teach,handout,/shapes,/neck,/settings').split(
  ',',
)

test('look', async ({ page }) => {
  test.setTimeout(300_000)
  if (dark) await page.emulateMedia({ colorScheme: 'dark' })
  await openDemo(page, process.env['TUNE'] ?? "Lamplighter's Round")
  const base = page.url().replace(/\/arrange.*/, '')
  for (const s of only) {
    const [width, height] = SIZES[s]
    await page.setViewportSize({ width, height })
    for (const r of routes) {
      await page.goto(r.startsWith('/') ? r : `${base}/${r}`)
      await page.waitForLoadState('networkidle')
      await page.waitForTimeout(1500)
      const wide = await page.evaluate(() => document.documentElement.scrollWidth - innerWidth)
      const m = await page.evaluate(() => {
        const e = document.querySelector('main')
        return e ? e.scrollWidth - e.clientWidth : 0
      })
      if (wide > 0 || m > 0) console.log('SIDEWAYS', s, r, wide, m)
      await page.screenshot({ path: `/tmp/shots/${s}-${r.replace('/', '_') || 'shelf'}.png` })
    }
  }
})
