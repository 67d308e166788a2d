import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** The browser half: built from web/ into dist/web, which the server hands out as it is. */
export default defineConfig({
  root: 'web',
  plugins: [react()],
  build: { outDir: '../dist/web', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4311' } },
})
