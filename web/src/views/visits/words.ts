import type { CleanedIn, Dirt } from '@ypsometer/core/visits/record'

export const DIRT_WORDS: Readonly<Record<Dirt, string>> = {
  clean: 'clean',
  light: 'lightly dirty',
  half: 'half full',
  blind: 'blind',
}
export const CLEANED_WORDS: Readonly<Record<CleanedIn, string>> = {
  'tank-water': 'in tank water',
  dechlorinated: 'in dechlorinated tap water',
  tap: 'in tap water',
  wiped: 'wiped',
  renewed: 'renewed',
}
