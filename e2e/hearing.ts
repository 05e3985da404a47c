import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium, type Browser, type Page } from '@playwright/test'
import { CHROMIUM } from './playwright.config.ts'

/** A page whose microphone hears a sound file, round and round: Chromium's own stand-in for a device. */
export async function hearing(
  sound: Buffer,
  baseURL: string | undefined,
  use: (page: Page) => Promise<void>,
): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'porch-'))
  const file = join(folder, 'heard.wav')
  writeFileSync(file, sound)
  let browser: Browser | undefined
  try {
    browser = await chromium.launch({
      ...CHROMIUM,
      args: [
        ...CHROMIUM.args,
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--use-file-for-fake-audio-capture=${file}`,
      ],
    })
    await use(await browser.newPage(baseURL === undefined ? {} : { baseURL }))
  } finally {
    await browser?.close()
    rmSync(folder, { recursive: true })
  }
}
