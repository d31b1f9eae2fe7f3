/** Points watched in a dye trial unless others are named. */
export const DYE_POINTS = ['far corner', 'intake'] as const
