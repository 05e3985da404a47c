import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { createApp } from '../src/app.ts'

let server: Server
let base: string

beforeAll(async () => {
  const built = mkdtempSync(join(tmpdir(), 'velvet-'))
  mkdirSync(join(built, 'assets'))
  writeFileSync(join(built, 'index.html'), '<!doctype html><title>Velvet Porch</title>')
  writeFileSync(join(built, 'assets', 'app-abc123.js'), `console.log('${'porch '.repeat(400)}')`)
  server = createApp(built).listen(0)
  await new Promise((resolve) => server.once('listening', resolve))
  base = `http://localhost:${(server.address() as AddressInfo).port}`
})
afterAll(() => void server.close())

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
    const reply = await fetch(`${base}/assets/app-abc123.js`)
    expect(reply.headers.get('content-encoding')).toMatch(/gzip|br/)
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

  it('prints for its own page alone, and says what is wrong', async () => {
    const foreign = await toPdf('<p>x</p>', { 'Sec-Fetch-Site': 'cross-site' })
    expect(foreign.status).toBe(403)
    expect((await toPdf('')).status).toBe(400)
    const large = await toPdf('x'.repeat(9_000_000))
    expect(large.status).toBe(413)
    expect(((await large.json()) as { error: string }).error).toMatch(/print dialog/)
  })
})
