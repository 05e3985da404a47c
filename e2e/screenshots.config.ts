import { defineConfig } from '@playwright/test'
import base from './playwright.config.ts'

/** Takes the pictures of docs/screenshots from the demo data. */
export default defineConfig(base, {
  testDir: './screenshots',
  testMatch: '*.ts',
  workers: 1,
  reporter: 'list',
})
