import type { Server } from 'node:http'
import type { AddressInfo } from 'node:net'
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
})
