/**
 * Bases of a fill’s flow, best first: measured as it stands; measured otherwise and carried over the circuit;
 * computed with fill and body; computed over the usual run of its kind; supposed from hoses alone or a bare run with a
 * band for what is not known; the rule of thumb.
 */
export const FLOW_BASES = [
  'measured',
  'carried',
  'computed-fit',
  'computed-label',
  'supposed-run',
  'supposed-fit',
  'supposed-label',
  'measured-empty',
  'rule',
  'none',
] as const
export type FlowBasis = (typeof FLOW_BASES)[number]

/** Bases on which a claim holds or does not; on the others it only probably does. */
export const isFirm = (basis: FlowBasis): boolean =>
  basis === 'measured' || basis === 'carried' || basis === 'computed-fit'

/** Bases in which a flow of this very filter was measured, on its hoses or not. */
export const isMeasured = (basis: FlowBasis): boolean =>
  isFirm(basis) || basis === 'supposed-fit' || basis === 'measured-empty'
