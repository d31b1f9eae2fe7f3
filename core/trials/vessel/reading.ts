import { LONGEST_RUN, SHORTEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  volume: true,
  seconds: { min: SHORTEST_RUN, max: LONGEST_RUN },
  flow: true,
  vessel: true,
  byHand: true,
  enough: 3,
} as const satisfies TrialShape
