import { defineConfig } from 'vite'

/** The program of the lesson file: one script without imports, which the app puts into every file that it makes. */
export default defineConfig({
  root: import.meta.dirname,
  publicDir: false,
  build: {
    target: 'es2022',
    emptyOutDir: false,
    outDir: 'dist',
    lib: {
      entry: 'src/lessonFile/main.ts',
      formats: ['iife'],
      name: 'lesson',
      fileName: () => 'lesson-file.js',
    },
  },
})
