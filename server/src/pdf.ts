import { execFile, type ExecFileException } from 'node:child_process'
import { existsSync } from 'node:fs'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { promisify } from 'node:util'

const run = promisify(execFile)

/** Where a Chromium may stand; the first that is there is taken. */
const BROWSERS = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome']

/** Seconds after which a page that does not become a PDF is given up. */
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
 * Prints pages of HTML as PDF with headless Chromium, in a folder of its own that is gone afterwards.
 * @param html what stands in head and body, without scripts
 * @param signal ends the browser: nobody waits any more
 * @throws PdfError where the browser fails or takes too long; AbortError where it was ended
 */
export async function pdfOf(html: string, browser: string, signal?: AbortSignal): Promise<Buffer> {
  const folder = await mkdtemp(join(tmpdir(), 'velvet-porch-'))
  try {
    const [page, out] = [join(folder, 'page.html'), join(folder, 'page.pdf')]
    await writeFile(
      page,
      `<!doctype html><html><head><meta charset="utf-8">${POLICY}</head><body style="margin:0">${html}</body></html>`,
    )
    await run(
      browser,
      [
        '--headless',
        ...(process.getuid?.() === 0 ? ['--no-sandbox'] : []),
        '--disable-gpu',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-extensions',
        '--host-resolver-rules=MAP * ~NOTFOUND',
        `--user-data-dir=${join(folder, 'profile')}`,
        '--no-pdf-header-footer',
        `--print-to-pdf=${out}`,
        `file://${page}`,
      ],
      { timeout: PATIENCE_MS, killSignal: 'SIGKILL', ...(signal ? { signal } : {}) },
    ).catch((error: ExecFileException & { stderr?: string }) => {
      if (error.name === 'AbortError') throw error
      throw new PdfError(reasonOf(error))
    })
    return await readFile(out).catch(() => {
      throw new PdfError('the browser ended without a PDF')
    })
  } finally {
    await rm(folder, { recursive: true, force: true, maxRetries: 3 })
  }
}

/** What a browser that failed says of it. */
function reasonOf(error: ExecFileException & { stderr?: string }): string {
  if (error.killed) return `the pages were not ready after ${PATIENCE_MS / 1000} seconds`
  if (error.code === 'ENOENT' || error.code === 'EACCES')
    return `the browser cannot be started (${error.code})`
  const said = (error.stderr ?? '').split('\n').find((line) => /ERROR|FATAL|cannot|failed/i.test(line))
  return said?.trim().slice(0, 300) ?? `the browser ended with ${error.code ?? error.signal ?? 'an error'}`
}
