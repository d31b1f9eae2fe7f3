import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { asPage, demoSentences } from './sentences'

/** Writes the page of sentences; another place can be named, to hold what would be written against what is there. */
writeFileSync(
  process.argv[2] ?? join(import.meta.dirname, '..', 'docs', 'sentences.md'),
  asPage(demoSentences()),
)
