import { createHash } from 'node:crypto'
import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import type { Plugin } from 'vite'
import { defineConfig } from 'vitest/config'

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

/** Tells the worker which files make up the pages: it keeps them in the browser. */
function pages(): Plugin {
  return {
    name: 'pages',
    apply: 'build',
    generateBundle(_, bundle) {
      const worker = bundle['sw.js']
      if (worker?.type !== 'chunk') throw new Error('the worker was not built')
      if (worker.imports.length > 0) throw new Error('the worker has to be one file')
      const made = Object.keys(bundle).filter((name) => name !== 'sw.js' && name !== 'index.html')
      const files = ['/index.html', '/crystal.svg', ...made.sort().map((name) => `/${name}`)]
      const version = createHash('sha256').update(files.join()).digest('hex').slice(0, 12)
      // What was seen by pages that knew another shape of the answers is nothing these could draw.
      const api = readFileSync(join(import.meta.dirname, 'src/api/generated/openapi.json'))
      const shape = createHash('sha256').update(api).digest('hex').slice(0, 12)
      worker.code = `const PAGES=${JSON.stringify({ version, shape, files })};${worker.code}`
    },
  }
}

/** What needs a page, or stands in for what all share: it begins with nothing of the file before it. */
const AFRESH = [
  'src/**/*.test.tsx',
  'src/api/look-for-it.test.ts',
  'src/api/queue/{outbox,pictures}.test.ts',
  'src/job/asked-once.test.ts',
  'src/places/ledger/keep-coupon-picture.test.ts',
  'src/places/reckoner/kept.test.ts',
  'src/sw/*.test.ts',
]

export default defineConfig({
  // The worker is a file of its own: what it and the pages say to each other stands here.
  define: {
    SEEN_AT: JSON.stringify('Vanadin-Seen'),
    CLAIM: JSON.stringify('claim'),
    LATE: JSON.stringify('late:'),
    ASKED_BEFORE: JSON.stringify('Vanadin-Asked-Before'),
  },
  plugins: [react(), tailwindcss(), pages(), small()],
  test: {
    pool: 'threads',
    projects: [
      {
        extends: true,
        test: { name: 'each file afresh', include: AFRESH, isolate: false, setupFiles: './src/afresh.ts' },
      },
      {
        extends: true,
        test: {
          name: 'in one go',
          include: ['src/**/*.test.ts', 'lint/*.test.js'],
          exclude: AFRESH,
          isolate: false,
          unstubGlobals: true,
        },
      },
    ],
  },
  // While the pages are worked on: `npx vite` here, the server beside it.
  server: { proxy: { '/api': 'http://127.0.0.1:8420' } },
  build: {
    target: 'es2022',
    reportCompressedSize: false,
    rollupOptions: {
      input: { index: 'index.html', sw: 'src/sw/worker.ts' },
      output: {
        entryFileNames: (chunk) => (chunk.name === 'sw' ? 'sw.js' : 'assets/[name]-[hash].js'),
      },
    },
  },
})
