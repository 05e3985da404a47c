import { expect, type Page } from '@playwright/test'
import { chooseLevel, done, settledFrets, takeDemoByHand } from '../bench.ts'

/** What the page holds after a round, once what nobody holds is gone. */
export interface Sample {
  readonly heapMb: number
  readonly nodes: number
}

/** Rounds before anything is compared: code is loaded, caches fill. */
const WARM = 3

/** Tunes that are worked on: those that stand first on the shelf. Songs without a melody, which have no levels, stand below. */
const TUNES = 6

/** The level that is chosen; undefined where sections have levels of their own. */
async function levelOf(page: Page): Promise<number | undefined> {
  const levels = page.getByRole('radiogroup', { name: 'Level' })
  if (!(await levels.isVisible())) return undefined
  const checked = await levels
    .getByRole('radio')
    .evaluateAll((all) => all.map((r) => (r as HTMLInputElement).checked))
  return checked.indexOf(true) + 1 || undefined
}

/** What a teacher does, over and over, without the page ever being loaded anew. */
async function round(page: Page, nth: number): Promise<void> {
  const link = (name: string) => page.locator('.rail a', { hasText: name }).click()
  await link('Shelf')
  const tunes = page.getByRole('table').getByRole('link')
  await expect(tunes.first()).toBeVisible()
  await tunes.nth(nth % TUNES).click()
  await settledFrets(page)
  const level = await levelOf(page)
  if (level !== undefined) {
    const other = level === 5 ? 3 : level + 1
    await chooseLevel(page, other)
    await done(page, `Level ${other}`)
    await page.getByRole('button', { name: `Undo: Level ${other}` }).click()
    await expect(page.getByRole('button', { name: `Redo: Level ${other}` })).toBeEnabled()
  }
  const play = page.getByRole('button', { name: 'Play', exact: true })
  await play.click()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(play).toBeVisible()
  await link('Teach')
  const next = page.getByRole('button', { name: /^Next/ }).first()
  await expect(next).toBeVisible()
  for (let step = 0; step < 4; step++) if (await next.isEnabled()) await next.click()
  await link('Shapes')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  await link('Students')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
}

/**
 * Works for some time, and measures after each round.
 * @param forMs at least so long
 */
export async function soak(
  page: Page,
  origin: string,
  forMs: number,
  tell: (line: string) => void,
): Promise<Sample[]> {
  await takeDemoByHand(page, origin)
  const client = await page.context().newCDPSession(page)
  await client.send('HeapProfiler.enable')
  const samples: Sample[] = []
  const started = Date.now()
  for (let nth = 0; Date.now() - started < forMs || nth < 2 * WARM; nth++) {
    await round(page, nth)
    await client.send('HeapProfiler.collectGarbage')
    const { usedSize } = await client.send('Runtime.getHeapUsage')
    const { nodes } = await client.send('Memory.getDOMCounters')
    samples.push({ heapMb: usedSize / 1e6, nodes })
    tell(`round ${nth + 1}: ${(usedSize / 1e6).toFixed(1)} MB, ${nodes} nodes`)
  }
  return samples
}

/** The heap of the first rounds that count against that of the last: medians of a fifth of the rounds each. */
export function growthOf(samples: readonly Sample[]): {
  readonly before: number
  readonly after: number
  readonly share: number
} {
  const heaps = samples.slice(WARM).map((s) => s.heapMb)
  const some = Math.max(1, Math.floor(heaps.length / 5))
  const middle = (list: readonly number[]) => list.toSorted((a, b) => a - b)[Math.floor(list.length / 2)]!
  const [before, after] = [middle(heaps.slice(0, some)), middle(heaps.slice(-some))]
  return { before, after, share: after / before - 1 }
}
