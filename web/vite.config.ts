import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { createHash } from 'node:crypto'
import { join } from 'node:path'
import { defineConfig, runnerImport, type Plugin, type UserConfig } from 'vite'
import { compression } from 'vite-plugin-compression2'
import { askedAhead } from './ahead'
import { sharedChunks } from './chunks'

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
      files: [...files.map((f) => `/${f}`), '/theme.js', '/ahead.js', '/mark.svg'],
    })
    this.emitFile({ type: 'asset', fileName: 'shell.json', source })
  },
})

/** Asks for the fonts with the page: every view is set in all of them, and would be set twice if they came after it. */
const fontsAhead = (): Plugin => ({
  name: 'fonts-ahead',
  apply: 'build',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle }) =>
      Object.keys(bundle ?? {})
        .filter((f) => f.endsWith('.woff2'))
        .map((f) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `/${f}`, crossorigin: '' },
          injectTo: 'head',
        })),
  },
})

/** Modules of the contract that come to constants. */
const WORKED_OUT = new Set(
  ['outline', 'limits', 'firstPage'].map((file) => join(import.meta.dirname, '..', 'contract', `${file}.ts`)),
)
/** Puts what these come to in their place: pages then need no schema to write a row or to say what a field takes. */
const contractWorkedOut = (): Plugin => ({
  name: 'contract-worked-out',
  apply: 'build',
  async load(id) {
    if (!WORKED_OUT.has(id)) return undefined
    const { module } = await runnerImport<Readonly<Record<string, unknown>>>(id)
    return Object.entries(module)
      .map(([name, value]) => `export const ${name} = ${JSON.stringify(value)}`)
      .join('\n')
  },
})

/** Common options of both builds of the app. */
const common = (): UserConfig => ({
  plugins: [react(), tailwindcss(), contractWorkedOut()],
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    sourcemap: false,
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    // A browser without it still loads what it needs, later.
    modulePreload: { polyfill: false },
  },
})

export default defineConfig(async ({ command }): Promise<UserConfig> => {
  const base = common()
  const shared =
    command === 'build'
      ? await sharedChunks({ ...base, root: import.meta.dirname })
      : new Map<string, string>()
  return {
    ...base,
    plugins: [
      base.plugins,
      askedAhead(),
      fontsAhead(),
      shellList(),
      // What is served is compressed once, here, as small as it will go.
      compression({
        algorithms: ['gzip', 'brotliCompress'],
        include: /\.(js|css|html|svg|json)$/,
        threshold: 1024,
      }),
    ],
    build: {
      ...base.build,
      rolldownOptions: {
        preserveEntrySignatures: 'allow-extension',
        output: {
          codeSplitting: {
            // What a group needs and the first page too stays with the first page.
            includeDependenciesRecursively: false,
            groups: [
              { name: 'vendor', tags: ['$initial'], test: /node_modules/, priority: 3 },
              { name: 'first', tags: ['$initial'], priority: 2 },
              { name: (id) => shared.get(id) ?? null, minShareCount: 2, priority: 1 },
            ],
          },
        },
      },
    },
    server: { proxy: { '/api': 'http://127.0.0.1:4680' } },
  }
})
