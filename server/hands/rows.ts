import { sql } from 'drizzle-orm'
import { changeOver, faultSearch, setUp } from '../db/schema'
import { fieldProblem } from '../http/problems'
import type { Specials, Written } from '../http/rows'

/** A filter that comes is named by the shelf, or by its kind or rated flow. */
function checkChange({ next }: Written<'change-overs'>): void {
  if (next.modelId === null && next.kind === null)
    throw fieldProblem('next.kind', 'one of your filters, or the kind of filter that comes')
}

const newestFirst = (t: typeof setUp | typeof changeOver | typeof faultSearch) => ({
  by: sql<string>`${t.on}::text`,
  newestFirst: true as const,
})

/** Specials of handiwork: set-ups ticked, change-overs, faults looked for. */
export const HANDS_SPECIALS: Specials = {
  'set-ups': { list: newestFirst(setUp) },
  'change-overs': { check: checkChange, list: newestFirst(changeOver) },
  'fault-searches': { list: newestFirst(faultSearch) },
}
