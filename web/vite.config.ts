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
  build: { target: 'es2022', sourcemap: false, assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  server: { proxy: { '/api': 'http://127.0.0.1:4680' } },
})
