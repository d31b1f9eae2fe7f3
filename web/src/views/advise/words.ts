import type { Criterion } from '@ypsometer/core/advice/rule'

/** Criteria as they are said. */
export const CRITERION_WORDS: Readonly<Record<Criterion, string>> = {
  capacity: 'capacity',
  gentleness: 'gentleness',
  service: 'little work',
  noise: 'quiet',
  running: 'running cost',
  price: 'price',
  build: 'build',
  evidence: 'evidence',
}
