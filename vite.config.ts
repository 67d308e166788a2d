import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

/** The browser half: built from web/ into dist/web, which the server hands out as it is. */
export default defineConfig({
  root: 'web',
  plugins: [react()],
  // Bootstrap 5 is written for the Sass before modules, which says so at length.
  css: { preprocessorOptions: { scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] } } },
  build: { outDir: '../dist/web', emptyOutDir: true, assetsInlineLimit: 0, chunkSizeWarningLimit: 900, rolldownOptions: { output: { codeSplitting: { groups: [{ name: 'packages', test: /node_modules[\\/](react|react-dom|scheduler|react-router|swr|use-sync-external-store|dequal|react-error-boundary)[\\/]/ }] } } } },
  server: { proxy: { '/api': 'http://127.0.0.1:4311' } },
})
