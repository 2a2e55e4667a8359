import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig } from 'vite'

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // While the pages are worked on: `npx vite` here, the server beside it.
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { target: 'es2022', reportCompressedSize: false },
})
