import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { defineConfig } from '@playwright/test'

/** Chromium without windows does the same in three quarters of the time; where it is missing, the whole one does it. */
const SHELL = '/usr/bin/chromium-headless-shell'

export const CHROMIUM = {
  executablePath: existsSync(SHELL) ? SHELL : '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--autoplay-policy=no-user-gesture-required',
  ],
}

const ORIGIN = 'http://localhost:4317'

/** A browser in which the first steps were ended: they are shown to who tests them. */
const ENDED_GUIDE = {
  cookies: [],
  origins: [
    {
      origin: ORIGIN,
      localStorage: [
        { name: 'velvet-porch.prefs', value: JSON.stringify({ state: { guide: 'ended' }, version: 1 }) },
      ],
    },
  ],
}

// Whoever takes these settings begins with stored states.
process.env['STORED_STATES'] = fileURLToPath(new URL('../.cache/stored', import.meta.url))

export default defineConfig({
  testDir: '.',
  timeout: 150_000,
  // A busy machine may take long over a solve; a page that never shows it still fails.
  expect: { timeout: 30_000 },
  // A second try on a busy machine; what needed it is named at the end of the run.
  retries: 1,
  // One more than the cores of a small machine: one of them waits for its page at any time.
  workers: 3,
  fullyParallel: true,
  projects: [
    { name: 'stored states', testMatch: 'stored.setup.ts' },
    { name: 'interface', testMatch: '*.spec.ts', dependencies: ['stored states'] },
  ],
  outputDir: '../test-results',
  reporter: [['list'], ['json', { outputFile: '../.cache/e2e.json' }]],
  use: {
    baseURL: ORIGIN,
    storageState: ENDED_GUIDE,
    viewport: { width: 1280, height: 800 },
    launchOptions: CHROMIUM,
    // Only tests of work without a network have the app kept in the browser.
    serviceWorkers: 'block',
    locale: 'en-GB',
    timezoneId: 'UTC',
    // Nobody waits for menus to fade.
    contextOptions: { reducedMotion: 'reduce' },
  },
  webServer: {
    command: 'node scripts/start.mjs',
    cwd: '..',
    env: { PORT: '4317', ALLOWED_HOSTS: 'studio.test' },
    url: 'http://localhost:4317/api/health',
    timeout: 180_000,
    reuseExistingServer: false,
  },
})
