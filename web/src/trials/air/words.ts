export const AIR_WORDS = {
  water: 'Water lifted',
  supplied: 'Air supplied',
  riser: 'Air up the riser',
} as const
