import { chromium } from '@playwright/test'
import { benchTune } from './src/engine.ts'
const PORT = 4399
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
await page.goto(`http://localhost:${PORT}/`)
await page.getByRole('button', { name: 'Paste ABC' }).click()
await page.getByLabel('ABC text').fill(benchTune(200))
await page.getByRole('button', { name: 'Read it' }).click()
await page.locator('[data-drawn]').first().waitFor()
await page.waitForTimeout(1500)
const mode = process.argv[2]
const cdp = await page.context().newCDPSession(page)
await cdp.send('Profiler.enable')
await cdp.send('Profiler.setSamplingInterval', { interval: 200 })
if (mode === 'abc') {
  const editor = page.getByRole('textbox', { name: 'The tune in ABC' })
  await editor.click()
  await page.keyboard.press('Control+End')
  await page.evaluate(() => { const w = window as any; w.long = []; new PerformanceObserver((l) => l.getEntries().forEach((e) => w.long.push(Math.round(e.duration)))).observe({ entryTypes: ['longtask'] }) })
  if (!process.env.NOPROF) await cdp.send('Profiler.start')
  await page.keyboard.type('"C"cdef gfed|"F"a2f2 c2A2|', { delay: 40 })
  await page.waitForTimeout(1500)
  console.log(await page.evaluate(() => (window as any).long))
} else {
  await page.getByRole('link', { name: 'Arrange this tune' }).click()
  await page.locator('.tab-fret').first().waitFor()
  await page.waitForTimeout(1500)
  await page.getByRole('button', { name: 'Write', exact: true }).click()
  await page.getByTestId('write-bar').waitFor()
  await page.locator('.tab-fret').nth(2).click()
  await page.waitForTimeout(500)
  if (!process.env.NOPROF) await cdp.send('Profiler.start')
  const times = await page.evaluate(async () => {
    const note = document.querySelectorAll<SVGElement>('.tab-fret')[2]!.dataset.note!
    const spent: number[] = []
    for (const key of ['5', '6', '7', '8', '9', '5', '6', '7', '8', '9', '5', '6']) {
      const before = performance.now()
      performance.mark('k')
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true }))
      while (document.querySelector(`[data-note="${note}"]`)?.firstChild?.textContent !== key) {
        await new Promise((resolve) => requestAnimationFrame(resolve))
      }
      await new Promise((resolve) => { const { port1, port2 } = new MessageChannel(); port1.onmessage = resolve; port2.postMessage(undefined) })
      spent.push(Math.round(performance.now() - before))
      await new Promise((resolve) => setTimeout(resolve, 900))
    }
    return spent
  })
  console.log(times)
}
if (process.env.NOPROF) { await browser.close(); process.exit(0) }
const { profile } = await cdp.send('Profiler.stop')
const byId = new Map(profile.nodes.map((n: any) => [n.id, n]))
const parent = new Map<number, number>()
for (const n of profile.nodes as any[]) for (const c of n.children ?? []) parent.set(c, n.id)
const self = new Map<string, number>(), total = new Map<string, number>()
profile.samples!.forEach((id: number, i: number) => {
  const dt = profile.timeDeltas![i]! / 1000
  const seen = new Set<string>()
  for (let at: number | undefined = id, first = true; at !== undefined; at = parent.get(at), first = false) {
    const f = (byId.get(at) as any).callFrame
    const name = `${f.functionName || 'anon'}:${f.url.split('/').at(-1)?.slice(0, 14)}:${f.lineNumber}`
    if (first) self.set(name, (self.get(name) ?? 0) + dt)
    if (!seen.has(name)) { seen.add(name); total.set(name, (total.get(name) ?? 0) + dt) }
  }
})
const n = mode === 'abc' ? 1 : 12
const top = (m: Map<string, number>, k: number) => [...m].sort((a, b) => b[1] - a[1]).slice(0, k).map(([f, ms]) => `${(ms / n).toFixed(1)} ${f}`).join('\n')
console.log('TOTAL\n' + top(total, 75)); console.log('SELF\n' + top(self, 25))

{
  const w = new Map<number, number>()
  profile.samples!.forEach((id: number, i: number) => { for (let at: number | undefined = id; at !== undefined; at = parent.get(at)) w.set(at, (w.get(at) ?? 0) + profile.timeDeltas![i]! / 1000) })
  const kids = (id: number) => ((byId.get(id) as any).children ?? []) as number[]
  const name = (id: number) => { const f = (byId.get(id) as any).callFrame; return `${f.functionName || 'anon'}:${f.url.split('/').at(-1)?.slice(0, 12)}:${f.lineNumber}` }
  const skip = /^(beginWork|updateFunctionComponent|renderWithHooks|performUnitOfWork|updateMemo|anon:rolldown|useMemo|mountMemo|workLoop|updateSimpleMemo|exports|renderRoot|performWorkOnRoot|replayBeginWork|replaySuspended|runWithFiber|react_stack)/
  const show = (id: number, depth: number, min: number) => { if ((w.get(id) ?? 0) / n < min) return; const nm = name(id); const sk = skip.test(nm); if (!sk) console.log(' '.repeat(depth) + (w.get(id)! / n).toFixed(1) + ' ' + nm); for (const k of kids(id).sort((a, b) => (w.get(b) ?? 0) - (w.get(a) ?? 0))) show(k, depth + (sk ? 0 : 1), min) }
  for (const nd of profile.nodes as any[]) if (/^(dispatchEvent|performSyncWorkOnRoot|performWorkOnRootViaSchedulerTask|next)$/.test(nd.callFrame.functionName) && (w.get(nd.id) ?? 0) / n > 4) { console.log('====', name(nd.id)); show(nd.id, 0, 0.7) }
}

{
  const tot = new Map<string, number>(), slf = new Map<string, number>()
  profile.samples!.forEach((id: number, i: number) => {
    const dt = profile.timeDeltas![i]! / 1000
    const chain: string[] = []
    let inside = false
    for (let at: number | undefined = id; at !== undefined; at = parent.get(at)) { const f = (byId.get(at) as any).callFrame; chain.push(`${f.functionName || 'anon'}:${f.url.split('/').at(-1)?.slice(0, 12)}:${f.lineNumber}`); if (f.functionName === 'performSyncWorkOnRoot') { inside = true; break } }
    if (!inside) return
    slf.set(chain[0]!, (slf.get(chain[0]!) ?? 0) + dt)
    for (const c of new Set(chain)) tot.set(c, (tot.get(c) ?? 0) + dt)
  })
  console.log('SYNC TOTAL\n' + top(tot, 60)); console.log('SYNC SELF\n' + top(slf, 30))
}
await browser.close()
