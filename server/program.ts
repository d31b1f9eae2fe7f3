import { createHash, randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'

/** The program as it runs: what was worked out by another is worked out anew, and a review says by which it was. */
export const PROGRAM =
  typeof __filename === 'string'
    ? randomUUID()
    : createHash('sha1')
        .update(readFileSync(fileURLToPath(import.meta.url)))
        .digest('base64')
