import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { request as httpRequest } from 'node:http'
import { brotliCompressSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createApp, type AppOptions } from '../src/app.ts'
import { closing } from '../src/closing.ts'
import { PdfError, pdfBrowser, Printer } from '../src/pdf.ts'

const SCRIPT = `console.log('${'porch '.repeat(400)}')`

const printer = new Printer(pdfBrowser()!)
let server: Server
let base: string

beforeAll(async () => {
  const built = mkdtempSync(join(tmpdir(), 'velvet-'))
  mkdirSync(join(built, 'assets'))
  writeFileSync(join(built, 'index.html'), '<!doctype html><title>Velvet Porch</title>')
  writeFileSync(join(built, 'assets', 'app-abc123.js'), SCRIPT)
  writeFileSync(join(built, 'assets', 'app-abc123.js.br'), brotliCompressSync(SCRIPT))
  server = createApp(built, { printer }).listen(0, '127.0.0.1')
  await new Promise((resolve) => server.once('listening', resolve))
  base = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(async () => {
  server.close()
  await printer.close()
})

describe('the server', () => {
  it('is healthy', async () => {
    expect(await (await fetch(`${base}/api/health`)).json()).toEqual({ ok: true, tunes: 10 })
  })

  it('sends every page with a policy that runs no foreign or inline script', async () => {
    const reply = await fetch(`${base}/tunes/x/arrange`)
    expect(reply.status).toBe(200)
    const policy = reply.headers.get('content-security-policy')!
    expect(policy).toContain("default-src 'none'")
    expect(policy).toMatch(/script-src 'self'(;|$)/)
    expect(reply.headers.get('cache-control')).toBe('no-cache')
    expect(reply.headers.get('x-powered-by')).toBeNull()
  })

  it('compresses and keeps assets for a year; a missing one is not the page', async () => {
    const reply = await fetch(`${base}/assets/app-abc123.js`, { headers: { 'Accept-Encoding': 'br' } })
    expect(reply.headers.get('content-encoding')).toBe('br')
    expect(await reply.text()).toBe(SCRIPT)
    expect(reply.headers.get('cache-control')).toContain('immutable')
    expect((await fetch(`${base}/assets/none.js`)).status).toBe(404)
  })

  it('finds archive tunes by any word and says when a search cannot be read', async () => {
    const search = async (q: string) =>
      (
        (await (await fetch(`${base}/api/archive?q=${encodeURIComponent(q)}`)).json()) as {
          tunes: { title: string; abc: string }[]
        }
      ).tunes
    expect((await search('')).length).toBe(10)
    const waltz = await search('WALTZ odile')
    expect(waltz.map((t) => t.title)).toEqual(['The Ferry at Dusk'])
    expect(waltz[0]!.abc).toMatch(/^X:/)
    expect(await search('zzz')).toEqual([])
    expect((await fetch(`${base}/api/archive?q=a&q=b`)).status).toBe(400)
    expect((await fetch(`${base}/api/nothing`)).status).toBe(404)
  })

  const toPdf = (body: string, headers: Record<string, string> = {}) =>
    fetch(`${base}/api/pdf`, { method: 'POST', headers: { 'Content-Type': 'text/html', ...headers }, body })

  it('prints pages as PDF at their size, runs nothing in them and fetches nothing', async () => {
    expect(await (await fetch(`${base}/api/pdf`)).json()).toEqual({ available: true })
    const page = (text: string) => `<div class="page">${text}</div>`
    const css =
      '@page{size:letter;margin:0}.page{height:1056px;break-after:page}.page:last-child{break-after:auto}'
    const reply = await toPdf(
      `<style>${css}</style>${page('Gate Latch <script>document.body.append("RAN")</script>')}${page(`Second <img src="${base}/seen.png">`)}`,
    )
    expect(reply.status).toBe(200)
    expect(reply.headers.get('content-type')).toBe('application/pdf')
    const file = join(mkdtempSync(join(tmpdir(), 'velvet-pdf-')), 'x.pdf')
    writeFileSync(file, Buffer.from(await reply.arrayBuffer()))
    const info = execFileSync('pdfinfo', [file], { encoding: 'utf8' })
    expect(info).toMatch(/Pages:\s+2/)
    expect(info).toMatch(/Page size:\s+612 x 792 pts \(letter\)/)
    const text = execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' })
    expect(text).toContain('Gate Latch')
    expect(text).toContain('Second')
    expect(text).not.toContain('RAN')
  })

  it('keeps one browser, and starts another where that one has ended', async () => {
    const children = () =>
      execFileSync('ps', ['-o', 'pid=,args=', '--ppid', String(process.pid)], { encoding: 'utf8' })
        .split('\n')
        .filter((line) => /chrom/.test(line) && line.includes('--headless'))
        .map((line) => Number(line.trim().split(' ')[0]))
    const first = await toPdf('<p>one</p>')
    expect(first.status).toBe(200)
    const [pid, ...others] = children()
    expect(others).toEqual([])
    await Promise.all([toPdf('<p>two</p>'), toPdf('<p>three</p>')])
    expect(children()).toEqual([pid])
    process.kill(pid!, 'SIGKILL')
    await expect.poll(async () => (await toPdf('<p>four</p>')).status).toBe(200)
    expect(children()).toHaveLength(1)
  })

  it('a print that is given up leaves the others alone', async () => {
    const before = printer.print('<p>first</p>', AbortSignal.timeout(20_000))
    const gone = printer.print('<p>second</p>', AbortSignal.abort())
    await expect(gone).rejects.toThrow(/abort/i)
    expect((await before).subarray(0, 5).toString()).toBe('%PDF-')
  })

  it('says that a browser cannot be started', async () => {
    await expect(
      new Printer('/no/such/browser').print('<p>x</p>', AbortSignal.timeout(20_000)),
    ).rejects.toThrow(PdfError)
  })

  it('prints for its own page alone, and says what is wrong', async () => {
    const foreign = await toPdf('<p>x</p>', { 'Sec-Fetch-Site': 'cross-site' })
    expect(foreign.status).toBe(403)
    expect((await toPdf('')).status).toBe(400)
    const large = await toPdf('x'.repeat(9_000_000))
    expect(large.status).toBe(413)
    expect(((await large.json()) as { error: string }).error).toMatch(/print dialog/)
  })
})

/** Another server for one test. */
async function serving(
  options: AppOptions,
  test: (port: number, server: Server) => Promise<void>,
): Promise<void> {
  const own = createApp(tmpdir(), options).listen(0, '127.0.0.1')
  await new Promise((resolve) => own.once('listening', resolve))
  try {
    await test((own.address() as AddressInfo).port, own)
  } finally {
    own.closeAllConnections()
    await new Promise((resolve) => own.close(resolve))
  }
}

/** Asks under a name of one's own, as a page of another site can have it. */
const askedAs = (port: number, host: string) =>
  new Promise<number>((resolve, reject) => {
    httpRequest({ port, host: '127.0.0.1', path: '/api/health', headers: { host } }, (reply) => {
      reply.resume()
      resolve(reply.statusCode!)
    })
      .on('error', reject)
      .end()
  })

describe('requests that are no requests', () => {
  it.each([
    ['a path that cannot be decoded', '/assets/%E0%A4%A', {}, [400, 404]],
    ['a way out of the folder', '/assets/..%2f..%2fpackage.json', {}, [400, 403, 404]],
    ['a folder', '/assets/', {}, [404]],
    ['a search that is a list', '/api/archive?q[]=a', {}, [400]],
    ['a search of a thousand letters', `/api/archive?q=${'a'.repeat(1000)}`, {}, [400]],
    [
      'pages in an unknown encoding',
      '/api/pdf',
      { method: 'POST', headers: { 'Content-Type': 'text/html; charset=x-none' }, body: 'x' },
      [415],
    ],
    [
      'pages that are not compressed as they say',
      '/api/pdf',
      { method: 'POST', headers: { 'Content-Type': 'text/html', 'Content-Encoding': 'gzip' }, body: 'x' },
      [400],
    ],
    [
      'pages that are no text',
      '/api/pdf',
      { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: '{}' },
      [400],
    ],
  ] as const)('%s are refused with a word', async (_, path, init, statuses) => {
    const reply = await fetch(base + path, init)
    expect(statuses).toContain(reply.status)
    expect(((await reply.json()) as { error: string }).error.length).toBeGreaterThan(10)
  })
})

describe('the names under which it may be asked', () => {
  it.each(['localhost', '127.0.0.1', '[::1]', 'LOCALHOST:4173'])('%s is its own', async (host) => {
    await serving({}, async (port) => expect(await askedAs(port, host)).toBe(200))
  })

  it.each(['evil.example', 'localhost.evil.example', '10.0.0.9', '127.0.0.1.nip.example'])(
    '%s is foreign where it listens here alone',
    async (host) => {
      await serving({}, async (port) => expect(await askedAs(port, host)).toBe(421))
    },
  )

  it('opened to the network it answers to numbers and to names that are allowed', async () => {
    await serving({ host: '0.0.0.0', allowedHosts: ['studio.example'] }, async (port) => {
      expect(await askedAs(port, '192.168.1.20:4173')).toBe(200)
      expect(await askedAs(port, 'Studio.example')).toBe(200)
      expect(await askedAs(port, 'evil.example')).toBe(421)
    })
  })
})

describe('printing', () => {
  const post = (port: number, body: string, init: RequestInit = {}) =>
    fetch(`http://127.0.0.1:${port}/api/pdf`, {
      method: 'POST',
      body,
      ...init,
      headers: { 'Content-Type': 'text/html', ...(init.headers as Record<string, string> | undefined) },
    })

  it('takes two at once; twenty more wait, and the next one is told to come again', async () => {
    let [at, most] = [0, 0]
    const open: (() => void)[] = []
    const print = async () => {
      most = Math.max(most, ++at)
      await new Promise<void>((resolve) => open.push(resolve))
      at--
      return Buffer.from('%PDF')
    }
    await serving({ printer: { print } }, async (port) => {
      const wanted = Array.from({ length: 22 }, () => post(port, '<p>x</p>'))
      await expect.poll(() => open.length).toBe(2)
      // All of the others have arrived when one more is refused.
      let refused: Response | undefined
      await expect
        .poll(async () => {
          const left = new AbortController()
          const reply = await Promise.race([
            post(port, '<p>more</p>', { signal: left.signal }).catch(() => undefined),
            new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), 200)),
          ])
          if (reply) refused = reply
          left.abort()
          return reply?.status
        })
        .toBe(503)
      expect(refused!.headers.get('retry-after')).toBe('30')
      while (at > 0 || open.length > 0) {
        open.shift()?.()
        await new Promise((resolve) => setTimeout(resolve, 5))
      }
      const replies = await Promise.all(wanted)
      expect(new Set(replies.map((r) => r.status))).toEqual(new Set([200]))
      expect(most).toBe(2)
    })
  })

  it('ends when whoever asked has left', async () => {
    let ended = false
    const print = (_: string, signal: AbortSignal) =>
      new Promise<Buffer>((_resolve, reject) =>
        signal.addEventListener('abort', () => {
          ended = true
          reject(new Error('ended'))
        }),
      )
    await serving({ printer: { print } }, async (port) => {
      const left = new AbortController()
      const reply = post(port, '<p>x</p>', { signal: left.signal }).catch(() => undefined)
      setTimeout(() => left.abort(), 100)
      await reply
      await expect.poll(() => ended).toBe(true)
    })
  })

  it('says why a PDF could not be made', async () => {
    const print = () => Promise.reject(new PdfError('the pages were not ready after 30 seconds'))
    await serving({ printer: { print } }, async (port) => {
      const reply = await post(port, '<p>x</p>')
      expect(reply.status).toBe(500)
      expect(((await reply.json()) as { error: string }).error).toMatch(
        /not ready after 30 seconds.*print dialog/,
      )
    })
  })

  it('refuses another origin before it reads what is sent', async () => {
    await serving({ printer }, async (port) => {
      const reply = await post(port, 'x'.repeat(9_000_000), {
        headers: { Origin: 'http://evil.example' },
      }).catch(() => undefined)
      // The connection may be gone before all of it was sent; it is never read as too large.
      expect(reply?.status ?? 403).toBe(403)
      const own = await post(port, '', { headers: { Origin: `http://127.0.0.1:${port}` } })
      expect(own.status).toBe(400)
    })
  })
})

describe('the end', () => {
  it('comes soon, with requests open', async () => {
    const print = () => new Promise<Buffer>(() => undefined)
    await serving({ printer: { print } }, async (port, own) => {
      const hanging = fetch(`http://127.0.0.1:${port}/api/pdf`, {
        method: 'POST',
        body: '<p>x</p>',
        headers: { 'Content-Type': 'text/html' },
      }).catch(() => 'cut')
      await new Promise((resolve) => setTimeout(resolve, 100))
      await closing(own, 200)()
      expect(await hanging).toBe('cut')
    })
  })
})
