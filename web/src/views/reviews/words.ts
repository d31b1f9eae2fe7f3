import type { Review } from '@ypsometer/contract'

export const STATE_WORDS: Readonly<Record<Review['state'], string>> = {
  draft: 'draft',
  published: 'published',
  corrected: 'corrected',
  withdrawn: 'withdrawn',
}
