import { defineConfig } from 'vitest/config'

const tests = (...folders: string[]) =>
  folders.flatMap((f) => [`${f}/test/**/*.test.ts`, `${f}/test/**/*.test.tsx`])

export default defineConfig({
  test: {
    // The solver's tests are long: all cores take part, or CI takes twice the time.
    maxWorkers: '100%',
    projects: [
      // Pure functions leave nothing behind: their modules are read once a worker, not once a file.
      {
        test: {
          name: 'core',
          include: tests('core', 'bench'),
          testTimeout: 60_000,
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'apps',
          setupFiles: ['web/test/setup.ts'],
          include: tests('server', 'web'),
          testTimeout: 60_000,
          isolate: false,
          sequence: { groupOrder: 1 },
        },
      },
      {
        test: {
          name: 'command line',
          include: tests('cli'),
          testTimeout: 60_000,
          isolate: false,
          globalSetup: 'cli/test/bundle.ts',
          // Few long files: begun last, one of them would run alone at the end.
          sequence: { groupOrder: 0 },
        },
      },
    ],
  },
})
