import { createHash, randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

const file = fileURLToPath(import.meta.url)

/**
 * The program as it runs: what was worked out by another is worked out anew, and a review says by which it was. All
 * processes of one build are one program; from its sources, each is its own.
 */
export const PROGRAM = file.endsWith('.mjs')
  ? createHash('sha1').update(readFileSync(file)).digest('base64')
  : randomUUID()
