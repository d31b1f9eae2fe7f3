import { KIND_WORDS } from '@ypsometer/contract/firstPage'
import type { FillState } from '@ypsometer/core/trials/records'
import type { VerdictLevel } from '@ypsometer/core/judging/levels'

export { KIND_WORDS }
export const KIND_OPTIONS = Object.entries(KIND_WORDS)

export const STATE_WORDS: Readonly<Record<FillState, string>> = {
  empty: 'Empty',
  'as-shipped': 'Supplied media',
  proposed: 'Recommended media',
  dirty: 'Dirty',
}
export const STATE_OPTIONS = Object.entries(STATE_WORDS)

/** The verdict in a word or two, for the shelf. */
export const LEVEL_WORDS: Readonly<Record<VerdictLevel, string>> = {
  open: 'not enough data',
  holds: 'holds',
  stretched: 'optimistic',
  overclaimed: 'too high',
  'far-overclaimed': 'far too high',
}
