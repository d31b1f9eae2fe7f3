import type { Sentence } from './figure'

/** One reason of a verdict: a sentence with its numbers, and whether it speaks for, against or warns. */
export interface Reason {
  readonly id: string
  readonly tone: 'for' | 'against' | 'caution' | 'note'
  readonly sentence: Sentence
}

/** Takes down one more reason. */
export type Add = (id: string, tone: Reason['tone'], ...sentence: Sentence) => void
