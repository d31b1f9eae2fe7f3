import { z } from 'zod'
import { Id } from './common'

export const RANKING_STATES = ['running', 'done', 'cancelled'] as const

/** One option for a tank, as a ranking of the whole shelf found it. */
export const RankedOption = z.object({
  id: z.string(),
  name: z.string(),
  /** Score, its 95 % interval, and the share of the draws in which it is best. */
  score: z.number(),
  low: z.number(),
  high: z.number(),
  best: z.number(),
  /** Tank it carries (m³), with its doubt. */
  carries: z.number(),
  uncertainty: z.number(),
  priceMinor: z.number().nullable(),
  currency: z.string().nullable(),
})
/** Ranking for a tank: how many will do, and the best of them. */
export const RankedTank = z.object({
  tankId: Id,
  will: z.int(),
  wont: z.int(),
  options: z.array(RankedOption),
  problem: z.string().nullable(),
})
export type RankedTank = z.infer<typeof RankedTank>

/** A ranking of the whole shelf for every tank: how far it is, and what is found so far. */
export const Ranking = z.object({
  id: Id,
  state: z.enum(RANKING_STATES),
  createdAt: z.iso.datetime(),
  finishedAt: z.iso.datetime().nullable(),
  parts: z.int(),
  done: z.int(),
  models: z.int(),
  /** Something it was worked out from has changed since. */
  stale: z.boolean(),
  tanks: z.array(RankedTank),
})
export type Ranking = z.infer<typeof Ranking>
export const LatestRanking = z.object({ ranking: Ranking.nullable() })

/** Events of a stream of progress. */
export const RankingProgress = z.object({
  state: z.enum(RANKING_STATES),
  parts: z.int(),
  done: z.int(),
})
export type RankingProgress = z.infer<typeof RankingProgress>
