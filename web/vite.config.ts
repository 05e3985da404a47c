import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react()],
  // Classes keep their names: a test holds each to one stylesheet, and marks such as `chosen` go across them.
  css: { modules: { generateScopedName: '[local]' } },
  worker: { format: 'es' },
  build: { target: 'es2022', chunkSizeWarningLimit: 700, sourcemap: false },
  server: { proxy: { '/api': 'http://localhost:4173' } },
})
