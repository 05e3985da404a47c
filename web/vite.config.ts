import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'
import { VitePWA } from 'vite-plugin-pwa'

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    VitePWA({
      // The app registers it itself, when the first page stands (`app/offline`).
      injectRegister: null,
      // A newer version waits until it is asked for.
      registerType: 'prompt',
      manifest: {
        id: '/',
        name: 'Velvet Porch',
        short_name: 'Velvet Porch',
        description: 'Songs and tunes as tablature for guitar and mandolin, taught measure by measure.',
        display: 'standalone',
        start_url: '/',
        theme_color: '#3a1f36',
        background_color: '#fbf7f0',
        icons: [
          { src: '/lamp-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/lamp-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
          { src: '/lamp.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
      workbox: {
        // Old browsers that want `woff` have no service worker either.
        globPatterns: ['**/*.{js,css,html,woff2,svg,png}'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        cleanupOutdatedCaches: true,
        maximumFileSizeToCacheInBytes: 4_000_000,
      },
    }),
  ],
  // Classes keep their names: a test holds each to one stylesheet, and marks such as `chosen` go across them.
  css: { modules: { generateScopedName: '[local]' } },
  worker: { format: 'es' },
  // Emptied before both builds: what the lesson file is made with is kept for offline work too.
  build: { target: 'es2022', chunkSizeWarningLimit: 700, sourcemap: false, emptyOutDir: false },
  server: { proxy: { '/api': 'http://localhost:4173' } },
})
