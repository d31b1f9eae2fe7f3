// Bundles what runs on Node into dist/, each program a file beside the others, with source maps; packages stay where
// npm put them.
import { build } from 'esbuild'
import { cpSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ROOT } from './lib/system.mjs'

const out = join(ROOT, 'dist')
rmSync(out, { recursive: true, force: true })
await build({
  absWorkingDir: ROOT,
  entryPoints: {
    server: 'server/main.ts',
    worker: 'server/worker.ts',
    keep: 'server/keep/command.ts',
    people: 'server/people/command.ts',
    calcWorker: 'server/calc/calcWorker.ts',
    rig: 'rig/main.ts',
  },
  outdir: out,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  plugins: [
    {
      name: 'packages-stay',
      setup: ({ onResolve }) =>
        onResolve({ filter: /^[^./]/ }, ({ path, kind }) =>
          path.startsWith('@ypsometer/') || kind === 'entry-point' ? undefined : { path, external: true },
        ),
    },
  ],
})
cpSync(join(ROOT, 'server', 'db', 'migrations'), join(out, 'migrations'), { recursive: true })
