import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { createHash } from 'node:crypto'
import { defineConfig, type Plugin } from 'vite'
import { compression } from 'vite-plugin-compression2'

/** Lists what the app shell is made of, for the service worker to keep; the version is a hash of the names. */
const shellList = (): Plugin => ({
  name: 'shell-list',
  apply: 'build',
  generateBundle(_options, bundle) {
    // The old font format is for browsers without service workers.
    const files = Object.keys(bundle).filter((f) => f.startsWith('assets/') && !f.endsWith('.woff'))
    const version = createHash('sha256').update(files.sort().join()).digest('hex').slice(0, 12)
    const source = JSON.stringify({
      version,
      files: [...files.map((f) => `/${f}`), '/theme.js', '/mark.svg'],
    })
    this.emitFile({ type: 'asset', fileName: 'shell.json', source })
  },
})

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    shellList(),
    // What is served is compressed once, here, as small as it will go.
    compression({
      algorithms: ['gzip', 'brotliCompress'],
      include: /\.(js|css|html|svg|json)$/,
      threshold: 1024,
    }),
  ],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: false,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    // A station is a handful of files: what it shares with others stands in few, by what they are for.
    rolldownOptions: {
      output: {
        codeSplitting: {
          groups: [
            {
              name: 'charts',
              test: /node_modules\/(recharts|d3-|@reduxjs|redux|react-redux|immer|reselect|es-toolkit|decimal|victory)/,
              priority: 30,
            },
            { name: 'drag', test: /node_modules\/@dnd-kit/, priority: 30 },
            {
              name: 'vendor',
              test: /node_modules\/(react|react-dom|react-router|scheduler|@tanstack|zod|idb|comlink|cookie|lucide-react)\//,
              priority: 40,
            },
            { name: 'core', test: /\/(core|contract)\//, priority: 10, minShareCount: 5 },
            {
              name: 'desk',
              test: /\/web\/src\/(frame|api|figures|fields|views\/words)/,
              priority: 5,
              minShareCount: 2,
            },
            {
              name: 'stations',
              test: /\/(web\/src\/(cutaway|pathway|photos|workers|trials|instruments|csv|charts|views\/(?!words|shelf)))/,
              priority: 3,
              minShareCount: 3,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4680' } },
})
