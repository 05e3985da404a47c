import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type Page } from '@playwright/test'
import { arrangePasted, chooseLevel, done } from '../bench.ts'
import { startBrowser } from './killableBrowser.ts'

/** Milliseconds after which what was typed must survive. */
const SAFE_MS = 300

/** The moment of the end is left to chance: nothing on the page is waited for. */
const pause = (ms: number) => new Promise<void>((resolve) => setTimeout(resolve, ms))

/** What must be found when the browser is started again; the words say what was lost otherwise. */
type Proof = (page: Page) => Promise<void>

/** One way of working that is broken off. Returns what must be there afterwards. */
type Work = (
  page: Page,
  url: string,
  chance: () => number,
) => Promise<{ readonly waitMs: number; readonly proof: Proof }>

const editor = (page: Page) => page.getByRole('textbox', { name: 'The tune in ABC' })
const textOf = (page: Page) => editor(page).innerText()

/** Types into the text of the tune, letter by letter, readable all the while or not at all. */
const typing =
  (letters: string): Work =>
  async (page, url, chance) => {
    await page.goto(`${url}/tune`)
    await editor(page).click()
    await page.keyboard.press('Control+End')
    const typed: { readonly at: number; readonly text: string }[] = [{ at: 0, text: await textOf(page) }]
    const count = 4 + Math.floor(chance() * 16)
    for (let i = 0; i < count; i++) {
      await page.keyboard.type(letters[i % letters.length]!)
      typed.push({ at: Date.now(), text: await textOf(page) })
      await pause(chance() * 120)
    }
    const waitMs = chance() * 900
    const killedAt = Date.now() + waitMs
    const safe = typed.findLastIndex((t) => t.at <= killedAt - SAFE_MS)
    return {
      waitMs,
      proof: async (after) => {
        await after.goto(`${url}/tune`)
        const allowed = typed.slice(Math.max(0, safe)).map((t) => t.text)
        let found = ''
        await expect
          .poll(async () => allowed.includes((found = await textOf(after))))
          .toBe(true)
          .catch(() => {
            throw new Error(
              `the text typed ${SAFE_MS} ms before the end: found …${JSON.stringify(found.slice(-40))}, typed …${JSON.stringify(typed.map((t) => t.text.slice(-40)).slice(-4))}, safe ${safe} of ${typed.length}`,
            )
          })
      },
    }
  }

/** Renames the tune on the shelf, and sees the new name there. */
const renaming: Work = async (page, url, chance) => {
  await page.goto(new URL('/', url).href)
  const title = `Gate ${Math.floor(chance() * 1e9)}`
  await page
    .getByRole('button', { name: /^What to do with/ })
    .first()
    .click()
  await page.getByRole('menuitem', { name: 'Rename' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill(title)
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByRole('link', { name: title })).toBeVisible()
  return {
    waitMs: chance() * 50,
    proof: async (after) => {
      await after.goto(new URL('/', url).href)
      await expect(after.getByRole('link', { name: title })).toBeVisible()
    },
  }
}

/** Chooses another level and sees that it can be taken back; then goes on choosing. */
const choosing: Work = async (page, url, chance) => {
  await page.goto(`${url}/arrange`)
  await expect(page.locator('.tab-fret').first()).toBeVisible()
  const now = await page.getByRole('radiogroup', { name: 'Level' }).locator('input:checked').inputValue()
  const level = (Number(now) % 4) + 1
  await chooseLevel(page, level)
  await done(page, `Level ${level}`)
  await chooseLevel(page, (level % 4) + 1)
  return {
    waitMs: chance() * 400,
    proof: async (after) => {
      await after.goto(`${url}/arrange`)
      await expect(after.locator('.tab-fret').first()).toBeVisible()
      const names = [level, (level % 4) + 1].map((n) => `Undo: Level ${n}`)
      await expect(after.getByRole('button', { name: new RegExp(`^(${names.join('|')})$`) })).toBeEnabled()
    },
  }
}

const WORKS: readonly Work[] = [typing('G2|A2|B2|'), typing('?!'), renaming, choosing]

/** Opens every stage of the tune: none of it may be half stored. */
async function expectWhole(page: Page, url: string): Promise<void> {
  for (const stage of ['tune', 'arrange']) {
    await page.goto(`${url}/${stage}`)
    await expect(page.locator('.sheet, .tab-fret, .cm-editor').first()).toBeVisible()
    await expect(page.getByTestId('broken')).toHaveCount(0)
  }
}

/**
 * Works on one tune and ends the browser in the middle of it, again and again, on one profile. After each end a new browser
 * must find what had been acknowledged, whole.
 * @returns what was lost, a line each
 */
export async function killRun(base: string, kills: number, chance: () => number): Promise<string[]> {
  const profile = mkdtempSync(join(tmpdir(), 'velvet-kill-'))
  const lost: string[] = []
  try {
    let { page, kill } = await startBrowser(profile)
    await page.goto(base)
    await arrangePasted(page, undefined, base)
    const url = page.url().replace(/\/arrange.*$/, '')
    for (let i = 0; i < kills; i++) {
      const { waitMs, proof } = await WORKS[i % WORKS.length]!(page, url, chance)
      await pause(waitMs)
      await kill()
      ;({ page, kill } = await startBrowser(profile))
      try {
        await proof(page)
        await expectWhole(page, url)
      } catch (error) {
        lost.push(`end ${i + 1}: ${(error as Error).message.split('\n').slice(0, 6).join(' ')}`)
      }
    }
    await kill()
  } finally {
    rmSync(profile, { recursive: true, force: true, maxRetries: 5 })
  }
  return lost
}
