/** Fixed thresholds of the overclaim ratio (claimed maximum / supported maximum for a normal tank). */
export const OVERCLAIM_THRESHOLDS = { holds: 1.1, stretched: 1.5, overclaimed: 2.5 } as const
