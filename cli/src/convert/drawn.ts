import { existsSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import type { Browser } from 'playwright-core'
import type { Score } from '@velvet-porch/core/document'
import { tabSvg } from '@velvet-porch/core/formats'
import { UsageError } from '../usage.ts'
import { handoutPdf } from './handoutPdf.ts'

const BROWSERS = [
  process.env['CHROMIUM'],
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
]

let running: Promise<Browser> | undefined

/** Draws with one headless browser, which is started with the first drawing. */
async function browser(): Promise<Browser> {
  const executablePath = BROWSERS.find((path) => path !== undefined && existsSync(path))
  if (executablePath === undefined)
    throw new UsageError(
      'PDF and PNG are drawn by Chromium, which is not installed; write svg or musicxml instead.',
    )
  running ??= launched(executablePath)
  return running
}

async function launched(executablePath: string): Promise<Browser> {
  // Brought with the first drawing: it takes longer to read than all the rest of the command line.
  const { chromium } = await import('playwright-core')
  return chromium.launch({
    executablePath,
    chromiumSandbox: process.getuid?.() !== 0,
    args: ['--disable-gpu', '--host-resolver-rules=MAP * ~NOTFOUND'],
  })
}

/** Ends the browser, so that the command can end. */
export async function closeBrowser(): Promise<void> {
  await (await running)?.close()
  running = undefined
}

/** A tab as a PNG, two pixels for each of the drawing, or as a handout in PDF. */
export async function drawn(kind: 'pdf' | 'png', score: Required<Score>): Promise<Uint8Array> {
  if (kind === 'pdf')
    return handoutPdf({ title: score.tune.title, scores: [score], isBook: false }, await browser(), fonts())
  const context = await (
    await browser()
  ).newContext({ javaScriptEnabled: false, offline: true, deviceScaleFactor: 2 })
  try {
    const page = await context.newPage()
    await page.setContent(pictureHtml(score))
    return await page.locator('body > svg').screenshot({ type: 'png' })
  } finally {
    await context.close()
  }
}

/** Several tabs as one PDF, with a title page, contents and page numbers. */
export const bookPdf = async (title: string, scores: readonly Required<Score>[]): Promise<Uint8Array> =>
  handoutPdf({ title, scores, isBook: true }, await browser(), fonts())

const pictureHtml = (score: Required<Score>): string =>
  `<!doctype html><meta charset="utf-8"><style>body{margin:0}</style>${tabSvg(score, fonts())}`

let rules: string | undefined

/** The fonts of drawings, as rules that hold them. */
function fonts(): string {
  const find = createRequire(import.meta.url)
  const rule = (family: string, weight: string, file: string) =>
    `@font-face{font-family:'${family}';font-weight:${weight};src:url(data:font/woff2;base64,${readFileSync(find.resolve(file)).toString('base64')}) format('woff2')}`
  return (rules ??=
    rule(
      'Figtree Variable',
      '300 900',
      '@fontsource-variable/figtree/files/figtree-latin-wght-normal.woff2',
    ) +
    rule(
      'Fraunces Variable',
      '100 900',
      '@fontsource-variable/fraunces/files/fraunces-latin-wght-normal.woff2',
    ) +
    rule('Fira Mono', '500', '@fontsource/fira-mono/files/fira-mono-latin-500-normal.woff2'))
}
