import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

// The server serves the build at the root; during development requests to the API go to it.
export default defineConfig({
  plugins: [react()],
  build: { outDir: 'dist', emptyOutDir: true, chunkSizeWarningLimit: 700 },
  server: { proxy: { '/api': 'http://127.0.0.1:8000' } },
})
