import { CHECKS } from '@ypsometer/core/hands/checks'
import type { CheckOutcome } from '@ypsometer/core/hands/vocabulary'

/** Checks in words. */
export const causeOf = (id: string): string =>
  CHECKS.find((c) => c.id === id)?.cause.toLowerCase() ?? 'something no list has any more'

export const OUTCOME_WORDS: Readonly<Record<CheckOutcome, string>> = {
  clear: 'not that',
  unsure: 'not sure',
  found: 'that is it',
  cured: 'cured',
  remains: 'put right, trouble still there',
}
