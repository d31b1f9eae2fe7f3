/** Numbers and names of an axis, as charts draw them. */
export const TICK = {
  fontSize: 13,
  fill: 'var(--color-base-content)',
  fontFamily: 'var(--font-num)',
} as const
export const AXIS = { fontSize: 13, fill: 'var(--color-secondary)' } as const
