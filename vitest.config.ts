import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: [
      'core/test/**/*.test.ts',
      'cli/test/**/*.test.ts',
      'server/test/**/*.test.ts',
      'web/test/**/*.test.ts',
      'bench/test/**/*.test.ts',
    ],
    testTimeout: 60_000,
    // The solver's tests are long: all cores take part, or CI takes twice the time.
    maxWorkers: '100%',
  },
})
