#!/usr/bin/env node
// `npm run restore FILE [-- --over]`: a backup in the place of an empty record, or, with --over, of one that is backed
// up first. Ypsometer must not be running.
import { withRecord } from './lib/record.mjs'
import { command, Plain } from './lib/system.mjs'

await command(async () => {
  const [file, ...flags] = process.argv.slice(2)
  if (!file || file.startsWith('-')) throw new Plain('Say which backup, as in: npm run restore shop.tar')
  await withRecord(['restore', file, ...flags], { running: false })
})
