import { existsSync } from 'node:fs'
import { chromium, type Browser } from 'playwright-core'

/** Where a Chromium may stand; the first that is there is taken. */
const BROWSERS = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']

/** A browser that printed nothing for so long is closed. */
const IDLE_MS = 5 * 60_000

/** Milliseconds after which a page that does not become a PDF is given up. */
const PATIENCE_MS = 30_000

/** Pages may bring drawings and fonts with them, and nothing else: no scripts, nothing from elsewhere. */
const POLICY =
  '<meta http-equiv="Content-Security-Policy" content="default-src \'none\'; style-src \'unsafe-inline\'; font-src data:; img-src data:">'

/** The browser that makes PDFs; undefined where none is installed. */
export const pdfBrowser = (): string | undefined =>
  [process.env['CHROMIUM'], ...BROWSERS].find((path) => path !== undefined && existsSync(path))

/** Why a page did not become a PDF, in words. */
export class PdfError extends Error {
  override readonly name = 'PdfError'
}

/**
 * Prints pages of HTML as PDF in one headless Chromium, which is started with the first of them and kept. Every print has a
 * window of its own, without scripts and without a network, that is gone afterwards.
 */
export class Printer {
  #browser: Promise<Browser> | undefined
  #printing = 0
  #idle: NodeJS.Timeout | undefined
  readonly #path: string

  /** @param path the browser's program */
  constructor(path: string) {
    this.#path = path
  }

  /**
   * @param html what stands in head and body, without scripts
   * @param signal nobody waits any more
   * @throws PdfError where the browser fails or takes too long; the signal's reason where it was given up
   */
  async print(html: string, signal: AbortSignal): Promise<Buffer> {
    clearTimeout(this.#idle)
    this.#printing++
    try {
      return await this.#printOnce(html, signal)
    } catch (error) {
      if (signal.aborted || error instanceof PdfError) throw error
      throw new PdfError(reasonOf(error))
    } finally {
      if (--this.#printing === 0) this.#idle = setTimeout(() => void this.close(), IDLE_MS).unref()
    }
  }

  /** Ends the browser; the next print starts another. */
  async close(): Promise<void> {
    clearTimeout(this.#idle)
    const browser = this.#browser
    this.#browser = undefined
    await (await browser?.catch(() => undefined))?.close()
  }

  async #printOnce(html: string, signal: AbortSignal): Promise<Buffer> {
    const browser = await this.#running()
    signal.throwIfAborted()
    const context = await browser.newContext({ javaScriptEnabled: false, offline: true })
    try {
      return await Promise.race([
        (async () => {
          const page = await context.newPage()
          await page.setContent(
            `<!doctype html><html><head><meta charset="utf-8">${POLICY}</head><body style="margin:0">${html}</body></html>`,
            { timeout: PATIENCE_MS },
          )
          return page.pdf({ preferCSSPageSize: true, printBackground: true })
        })(),
        givenUp(signal),
      ])
    } finally {
      await context.close().catch(() => undefined)
    }
  }

  #running(): Promise<Browser> {
    this.#browser ??= chromium
      .launch({
        executablePath: this.#path,
        chromiumSandbox: process.getuid?.() !== 0,
        args: ['--disable-gpu', '--host-resolver-rules=MAP * ~NOTFOUND'],
        handleSIGINT: false,
        handleSIGTERM: false,
        timeout: PATIENCE_MS,
      })
      .then(
        (browser) => browser.on('disconnected', () => (this.#browser = undefined)),
        (error: unknown) => {
          this.#browser = undefined
          throw error
        },
      )
    return this.#browser
  }
}

/** Rejects when nobody waits any more, or when it has taken too long. */
function givenUp(signal: AbortSignal): Promise<never> {
  return new Promise((_resolve, reject) => {
    const late = setTimeout(
      () => reject(new PdfError(`the pages were not ready after ${PATIENCE_MS / 1000} seconds`)),
      PATIENCE_MS,
    ).unref()
    signal.addEventListener(
      'abort',
      () => {
        clearTimeout(late)
        reject(signal.reason as Error)
      },
      { once: true },
    )
  })
}

/** What a browser that failed says of it, in one line. */
function reasonOf(error: unknown): string {
  const said = error instanceof Error ? error.message : String(error)
  return said.split('\n', 1)[0]!.slice(0, 300)
}
