#!/usr/bin/env node
// `npm run backup [FILE]`: the whole record in one file, while Ypsometer runs or not.
import { withRecord } from './lib/record.mjs'
import { command } from './lib/system.mjs'

const stamp = new Date().toISOString().slice(0, 19).replace(/:/g, '')
await command(() => withRecord(['backup', process.argv[2] ?? `ypsometer-${stamp}Z.tar`], { running: true }))
