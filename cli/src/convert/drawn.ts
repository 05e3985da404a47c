import { existsSync, readFileSync } from 'node:fs'
import { createRequire } from 'node:module'
import { chromium, type Browser } from 'playwright-core'
import type { Score } from '@velvet-porch/core/document'
import { tabSvg } from '@velvet-porch/core/formats'
import {
  DRAWING_CSS,
  escaped,
  setupFacts,
  tabSystems,
  USUAL_PAPER_LAYERS,
} from '@velvet-porch/core/output/handout'
import { lessonOf, USUAL_LESSON } from '@velvet-porch/core/lesson'
import { UsageError } from '../usage.ts'

const BROWSERS = [
  process.env['CHROMIUM'],
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
]

/** Px of a page's width inside its margins: A4 at 96 to the inch, 15 mm on each side. */
const PAGE_WIDTH = 680

let running: Promise<Browser> | undefined

/** Draws with one headless browser, which is started with the first drawing. */
async function browser(): Promise<Browser> {
  const executablePath = BROWSERS.find((path) => path !== undefined && existsSync(path))
  if (executablePath === undefined)
    throw new UsageError(
      'PDF and PNG are drawn by Chromium, which is not installed; write svg or musicxml instead.',
    )
  running ??= chromium.launch({
    executablePath,
    chromiumSandbox: process.getuid?.() !== 0,
    args: ['--disable-gpu', '--host-resolver-rules=MAP * ~NOTFOUND'],
  })
  return running
}

/** Ends the browser, so that the command can end. */
export async function closeBrowser(): Promise<void> {
  await (await running)?.close()
  running = undefined
}

/** A tab as a PNG, two pixels for each of the drawing, or as a PDF on A4. */
export async function drawn(kind: 'pdf' | 'png', score: Required<Score>): Promise<Uint8Array> {
  const context = await (
    await browser()
  ).newContext({ javaScriptEnabled: false, offline: true, deviceScaleFactor: 2 })
  try {
    const page = await context.newPage()
    await page.setContent(kind === 'png' ? pictureHtml(score) : pagesHtml(score))
    return kind === 'png'
      ? await page.locator('body > svg').screenshot({ type: 'png' })
      : await page.pdf({ preferCSSPageSize: true, printBackground: true })
  } finally {
    await context.close()
  }
}

const pictureHtml = (score: Required<Score>): string =>
  `<!doctype html><meta charset="utf-8"><style>body{margin:0}</style>${tabSvg(score, fonts())}`

/** Title, tuning and capo, and the systems; none of them is cut by a page's end. */
function pagesHtml({ tune, arrangement }: Required<Score>): string {
  const systems = tabSystems(tune, arrangement, {
    width: PAGE_WIDTH,
    layers: USUAL_PAPER_LAYERS,
    naming: 'letters',
  })
  const facts = setupFacts(lessonOf(tune, arrangement, USUAL_LESSON)).join(' · ')
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escaped(tune.title)}</title><style>${fonts()}${DRAWING_CSS}
@page { size: A4; margin: 15mm; } body { margin: 0; font: 13px/1.4 'Figtree Variable', sans-serif; }
h1 { font-size: 24px; margin: 0; } p { margin: 2px 0 18px; color: #333; } div { break-inside: avoid; margin-bottom: 16px; }
</style><h1>${escaped(tune.title)}</h1><p>${escaped([tune.composer, facts].filter(Boolean).join(' · '))}</p>${systems
    .map((s) => `<div>${s.svg}</div>`)
    .join('')}`
}

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
    ) + rule('Fira Mono', '500', '@fontsource/fira-mono/files/fira-mono-latin-500-normal.woff2'))
}
