import type { Candidate } from '@ypsometer/core/advice/candidate'
import { z } from 'zod'

/** A page of candidates; each as `Candidate` of `core/advice`, or the reason why it cannot be worked out. */
export const CandidatePage = z.object({
  items: z.array(
    z.object({
      id: z.string(),
      candidate: z.looseObject({}).nullable(),
      problem: z.string().nullable(),
      old: z.boolean(),
    }),
  ),
  next: z.string().nullable(),
}) as unknown as z.ZodType<CandidateList>
export const CandidateQuery = z.object({
  after: z.uuid().optional(),
  limit: z.coerce.number().int().min(1).max(200).default(200),
})

export interface CandidateList {
  readonly items: readonly {
    readonly id: string
    readonly candidate: Candidate | null
    readonly problem: string | null
    /** Something it hangs on has changed, and it is still to be worked out again. */
    readonly old: boolean
  }[]
  readonly next: string | null
}
