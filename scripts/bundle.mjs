// Bundles what runs on Node into dist/, each program a file beside the others, with the packages it is made of: read
// from some thousand files of theirs, a server took twice as long to start.
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
    before: 'server/before.ts',
    keep: 'server/keep/command.ts',
    people: 'server/people/command.ts',
    calcWorker: 'server/calc/calcWorker.ts',
    thread: 'server/thread.ts',
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
  sourcesContent: false,
  mainFields: ['module', 'main'],
  // What is native, or reads files of its own beside it for threads of its own, stays where npm put it; so does what is
  // read long after the start, because a new build takes the files of the old one away.
  external: ['@node-rs/*', 'sharp', 'pg-native', 'piscina', 'pino', 'thread-stream', '@zxcvbn-ts/*'],
  // Packages written for `require` still find it, under names that nothing else has.
  banner: {
    js: [
      "import { createRequire as __createRequire } from 'node:module'",
      "import { dirname as __dirnameOf } from 'node:path'",
      "import { fileURLToPath as __fileOf } from 'node:url'",
      'const [require, __filename] = [__createRequire(import.meta.url), __fileOf(import.meta.url)]',
      'const __dirname = __dirnameOf(__filename)',
    ].join(';'),
  },
  logLevel: 'warning',
  // A package that comes in either form is asked for both.
  logOverride: { 'import-is-undefined': 'silent' },
})
// What draws pages ahead is the web app's own code, with every package in it: it is read by a thread when a page is
// first asked for. Charts, and what else comes later in a browser, never come here.
await build({
  absWorkingDir: ROOT,
  entryPoints: { prerender: 'web/src/prerender.tsx' },
  outdir: out,
  outExtension: { '.js': '.mjs' },
  bundle: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  jsx: 'automatic',
  define: { 'process.env.NODE_ENV': '"production"' },
  banner: {
    js: "import { createRequire } from 'node:module'; const require = createRequire(import.meta.url);",
  },
  logLevel: 'warning',
  plugins: [
    {
      name: 'later-never-comes',
      setup: ({ onResolve }) =>
        onResolve({ filter: /./ }, ({ kind, path }) =>
          kind === 'dynamic-import' && !path.startsWith('./stations/')
            ? { path: 'data:text/javascript,await new Promise(() => undefined)', external: true }
            : undefined,
        ),
    },
  ],
})
cpSync(join(ROOT, 'server', 'db', 'migrations'), join(out, 'migrations'), { recursive: true })
