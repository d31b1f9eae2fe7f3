import { ranked, type Measures, type Weights } from '@ypsometer/core/advice/score'

/** What the worker does, in the test’s own thread and with few draws. */
export const rankRemote = () => ({
  rank: (options: readonly Measures[], weights: Weights) => Promise.resolve(ranked(options, weights, 300)),
  stop: () => Promise.resolve(),
})
export const calledBack = <T>(f: T): T => f
