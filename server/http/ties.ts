import { inArray, type InferSelectModel } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Tx } from '../db/client'
import { fieldProblem } from './problems'

/** A field of a row that names another row. */
export interface Tie {
  readonly field: string
  readonly to: PgTable & { readonly id: PgColumn; readonly deletedAt: PgColumn; readonly modelId?: PgColumn }
  /** What the other row is called in a sentence. */
  readonly what: string
  readonly id: string | null | undefined
  /** The row belongs to it: nothing is written under one that was deleted. Others are asked about when they are set. */
  readonly owner?: true
  /** The other row must be of this model. */
  readonly modelId?: string
}

/**
 * Looks whether the rows named are there, not deleted, and of the same model: one query a table.
 * @throws a problem naming the field: 422 for one that is not there or of another model, 409 for a deleted one.
 */
export async function checkTies(tx: Tx, ties: readonly Tie[]): Promise<void> {
  for (const table of new Set(ties.map((t) => t.to))) {
    const own = ties.filter((t) => t.to === table && t.id)
    if (!own.length) continue
    const { id, deletedAt, modelId } = table
    const rows = await tx
      .select({ id, deletedAt, ...(modelId && { modelId }) })
      .from(table as PgTable)
      .where(inArray(id, [...new Set(own.map((t) => String(t.id)))]))
    const found = new Map(rows.map((r) => [String(r.id), r as InferSelectModel<PgTable> & typeof r]))
    for (const tie of own) {
      const row = found.get(String(tie.id))
      if (!row) throw fieldProblem(tie.field, 'points at something that is not there')
      if (row.deletedAt) throw fieldProblem(tie.field, `this ${tie.what} was deleted: put it back first`, 409)
      if (tie.modelId && 'modelId' in row && row.modelId !== tie.modelId)
        throw fieldProblem(tie.field, `a ${tie.what} of the same model`)
    }
  }
}
