import { chromium } from '@playwright/test'
import { ownServer } from '../ownServer.ts'
import { growthOf, soak } from './soak.ts'

/** `npm run soak [-- minutes]`: an hour of a teacher's work in one page, and how much the memory that it holds has grown. */
const MINUTES = Number(process.argv[2] ?? 60)
const PORT = 4321
const MOST_GROWTH = 0.1

const server = await ownServer(PORT)
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] })
try {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  const samples = await soak(page, server.origin, MINUTES * 60_000, (line) =>
    process.stdout.write(`${line}\n`),
  )
  const growth = growthOf(samples)
  process.stdout.write(
    `${samples.length} rounds in ${MINUTES} minutes: heap ${growth.before.toFixed(1)} MB, then ${growth.after.toFixed(1)} MB: ${(100 * growth.share).toFixed(1)} % more\n`,
  )
  process.exitCode = growth.share < MOST_GROWTH ? 0 : 1
} finally {
  await browser.close()
  await server.stop()
}
