import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { defineConfig, type Plugin } from 'vite'

/** Beside each script and style the same in small: the server sends that to whoever can read it. */
function small(): Plugin {
  return {
    name: 'small',
    apply: 'build',
    // As they lie there when everything is done with them.
    writeBundle({ dir = '' }, bundle) {
      for (const name of Object.keys(bundle).filter((made) => /\.(js|css)$/.test(made))) {
        const file = join(dir, name)
        writeFileSync(`${file}.gz`, gzipSync(readFileSync(file), { level: 9 }))
      }
    },
  }
}

export default defineConfig({
  plugins: [react(), tailwindcss(), small()],
  // While the pages are worked on: `npx vite` here, the server beside it.
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: { target: 'es2022', reportCompressedSize: false },
})
