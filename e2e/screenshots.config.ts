import { defineConfig } from '@playwright/test'
import base from './playwright.config.ts'

/** Takes the pictures of docs/screenshots from the demo data. */
export default defineConfig({
  ...base,
  projects: [
    { name: 'stored states', testMatch: 'stored.setup.ts' },
    { name: 'pictures', testMatch: 'screenshots/*.ts', dependencies: ['stored states'] },
  ],
  workers: 1,
  reporter: 'list',
})
