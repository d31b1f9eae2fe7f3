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

type Info = (id: string) => { readonly isEntry: boolean; readonly importers: readonly string[] } | null

/** Does the first page need a module, by imports that are not put off? */
function ofEntry(id: string, info: Info, seen = new Set<string>()): boolean {
  if (seen.has(id)) return false
  seen.add(id)
  const module = info(id)
  return module !== null && (module.isEntry || module.importers.some((i) => ofEntry(i, info, seen)))
}

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
      preserveEntrySignatures: 'allow-extension',
      output: {
        codeSplitting: {
          // What a group needs and the first page too stays with the first page.
          includeDependenciesRecursively: false,
          groups: [
            {
              name: 'charts',
              test: /node_modules\/(recharts|d3-|@reduxjs|redux|react-redux|immer|reselect|es-toolkit|decimal|victory)/,
              priority: 30,
            },
            { name: 'drag', test: /node_modules\/@dnd-kit/, priority: 30 },
            {
              name: 'vendor',
              test: /node_modules\/(react|react-dom|react-router|scheduler|@tanstack|zod|idb|comlink|cookie|lucide-react|simple-statistics)\//,
              priority: 40,
            },
            // Core and contract as one: whatever a station asks of them, it is there.
            {
              name: (id, graph) => (ofEntry(id, (of) => graph.getModuleInfo(of)) ? 'first' : 'numbers'),
              test: /(\/(core|contract)\/(?!node_modules)|node_modules\/(jstat|ml-|odex|is-any-array))/,
              priority: 10,
            },
            {
              name: (id, graph) => (ofEntry(id, (of) => graph.getModuleInfo(of)) ? 'first' : 'drawings'),
              test: /(web\/src\/charts\/(?!HeadFlow|SeriesChart)|node_modules\/papaparse)/,
              priority: 8,
            },
            {
              name: (id, graph) => (ofEntry(id, (of) => graph.getModuleInfo(of)) ? 'first' : 'stations'),
              test: /\/web\/src\/(?!charts)/,
              priority: 5,
              minShareCount: 2,
            },
          ],
        },
      },
    },
  },
  server: { proxy: { '/api': 'http://127.0.0.1:4680' } },
})
