import react from '@vitejs/plugin-react'
import { defineConfig } from 'vitest/config'

// The server serves the build at the root; during development requests to the API go to it.
export default defineConfig({
  plugins: [react()],
  test: { environment: 'jsdom', setupFiles: ['src/testing/setup.ts'], testTimeout: 120_000 },
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 700 },
  // The page keeps its own origin: the server compares it with the address it was asked at.
  server: { proxy: { '/api': { target: 'http://127.0.0.1:8000', changeOrigin: false } } },
})
