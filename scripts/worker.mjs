#!/usr/bin/env node
// `npm run worker`: takes part in the jobs of the database in DATABASE_URL, on this machine or another.
import { spawn } from 'node:child_process'
import { join } from 'node:path'
import { checkNode, command, ensureBuild, ensurePackages, ROOT } from './lib/system.mjs'

await command(async () => {
  checkNode()
  ensurePackages()
  await ensureBuild()
  const child = spawn(process.execPath, ['--enable-source-maps', join(ROOT, 'dist', 'worker.mjs')], {
    stdio: 'inherit',
  })
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal))
  process.exitCode = await new Promise((done) => child.on('exit', (code) => done(code ?? 1)))
})
