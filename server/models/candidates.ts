import type { CandidateList, CandidateQuery } from '@ypsometer/contract/candidateList'
import { and, asc, eq, gt, isNull } from 'drizzle-orm'
import type { z } from 'zod'
import type { Db } from '../db/client'
import { model, shelfEntry } from '../db/schema'
import { shelfBasis, workedFrom, workOut } from './shelfEntries'

/** Models worked out while somebody waits; the rest is a job of the workers. */
const WHILE_WAITING = 25

/**
 * Candidates of the shelf, page by page in the order of their ids. Of those whose dossier, library or rules changed
 * since, a few are worked out at once; the others come as they were last kept, and say so.
 */
export async function candidates(
  db: Db,
  { after, limit }: z.infer<typeof CandidateQuery>,
): Promise<CandidateList> {
  const [rows, basis] = await Promise.all([
    db
      .select({ row: model, entry: shelfEntry })
      .from(model)
      .innerJoin(shelfEntry, eq(shelfEntry.modelId, model.id))
      .where(and(isNull(model.deletedAt), after ? gt(model.id, after) : undefined))
      .orderBy(asc(model.id))
      .limit(limit + 1),
    shelfBasis(db),
  ])
  const page = rows.slice(0, limit)
  const stale = page.filter((r) => r.entry.workedFrom !== workedFrom(r.entry.revision, basis.key))
  const old = new Set(stale.map((r) => r.row.id))
  const fresh = await workOut(
    db,
    stale.slice(0, WHILE_WAITING).map((r) => ({ row: r.row, revision: r.entry.revision })),
    basis,
  )
  return {
    items: page.map(({ row, entry }) => {
      const worked = fresh.get(row.id) ?? { shown: entry.shown, candidate: entry.candidate }
      return {
        id: row.id,
        candidate: worked.candidate,
        problem: worked.shown?.problem ?? null,
        old: old.has(row.id) && !fresh.has(row.id),
      }
    }),
    next: rows.length > limit ? (page.at(-1)?.row.id ?? null) : null,
  }
}
