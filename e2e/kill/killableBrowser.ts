import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { chromium, type Browser, type Page } from '@playwright/test'
import { CHROMIUM } from '../playwright.config.ts'

/** A browser of its own with a profile that outlives it, which can be ended as a lost battery ends it. */
export interface KillableBrowser {
  readonly page: Page
  /** Ends all its processes at once. */
  readonly kill: () => Promise<void>
}

const ADDRESS = /DevTools listening on (ws:\/\/\S+)/

/** Starts a browser on a profile. @param profile a folder; what an earlier browser stored there is there again */
export async function startBrowser(profile: string): Promise<KillableBrowser> {
  const child = spawn(
    CHROMIUM.executablePath,
    [
      ...CHROMIUM.args,
      '--headless',
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    // A group of its own: its helpers are ended with it.
    { detached: true, stdio: ['ignore', 'ignore', 'pipe'] },
  )
  const browser: Browser = await chromium.connectOverCDP(await addressOf(child))
  const context = browser.contexts()[0]!
  const page = context.pages()[0] ?? (await context.newPage())
  await page.setViewportSize({ width: 1280, height: 800 })
  return {
    page,
    kill: async () => {
      const ended = once(child, 'exit')
      process.kill(-child.pid!, 'SIGKILL')
      await ended
      await browser.close().catch(() => undefined)
    },
  }
}

function addressOf(child: ChildProcess): Promise<string> {
  return new Promise((resolve, reject) => {
    let said = ''
    child.stderr!.on('data', (data: Buffer) => {
      said += data.toString()
      const found = ADDRESS.exec(said)
      if (found) resolve(found[1]!)
    })
    child.on('exit', () => reject(new Error(`The browser did not start: ${said.slice(-400)}`)))
  })
}
