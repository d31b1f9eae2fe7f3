#!/usr/bin/env node
// `npm run people -- owner "Name"`: who may come in, and one-time links, from the machine itself.
import { withRecord } from './lib/record.mjs'
import { command } from './lib/system.mjs'

await command(() =>
  withRecord(process.argv.slice(2), { program: 'people', running: true, make: process.argv[2] === 'owner' }),
)
