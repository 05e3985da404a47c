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
  },
})
