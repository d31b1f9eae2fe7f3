import { idsAt, RESOURCES, type FieldLink, type ResourceName } from '@ypsometer/contract'
import { inArray } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Tx } from '../db/client'
import { TABLES } from '../db/schema'
import { fieldProblem } from './problems'

/** A field of a row that names another row. */
export interface Reference {
  readonly field: string
  readonly to: ResourceName
  readonly id: string
  /** The row belongs to it: nothing is written under one that was deleted. Others are asked about when they are set. */
  readonly owner: boolean
  /** The other row must be of this model. */
  readonly modelId: string | null
}

const isOfModel = (name: ResourceName): boolean =>
  RESOURCES[name].links.some((l) => l.owner && l.to === 'models')

/** The rows that a row of a kind names, as its fields were declared. */
export function referencesOf(name: ResourceName, row: object): readonly Reference[] {
  const modelId = 'modelId' in row && typeof row.modelId === 'string' ? row.modelId : null
  return (RESOURCES[name].links as readonly FieldLink[]).flatMap((link) => {
    const to = link.to as ResourceName
    return idsAt(row, link.path).map(({ field, id }) => ({
      field,
      to,
      id,
      owner: link.owner,
      modelId: isOfModel(to) ? modelId : null,
    }))
  })
}

/** References of a row of a list, named by its place there. */
export const at = (place: string, references: readonly Reference[]): readonly Reference[] =>
  references.map((r) => ({ ...r, field: `${place}.${r.field}` }))

type Named = PgTable & Record<'id' | 'deletedAt', PgColumn> & { readonly modelId?: PgColumn }

/**
 * Looks whether the rows named are there, not deleted, and of the same model: one query a table.
 * @throws a problem naming the field: 422 for one that is not there or of another model, 409 for a deleted one.
 */
export async function checkReferences(tx: Tx, references: readonly Reference[]): Promise<void> {
  for (const name of new Set(references.map((r) => r.to))) {
    const own = references.filter((r) => r.to === name)
    const table = TABLES[name] as unknown as Named
    const { id, deletedAt, modelId } = table
    const rows = await tx
      .select({ id, deletedAt, ...(modelId && { modelId }) })
      .from(table as PgTable)
      .where(inArray(id, [...new Set(own.map((r) => r.id))]))
    const found = new Map(rows.map((r) => [String(r.id), r as { deletedAt: unknown; modelId?: unknown }]))
    const { singular } = RESOURCES[name]
    for (const r of own) {
      const row = found.get(r.id)
      if (!row) throw fieldProblem(r.field, 'points at something that is not there')
      if (row.deletedAt) throw fieldProblem(r.field, `this ${singular} was deleted: put it back first`, 409)
      if (r.modelId && row.modelId !== r.modelId)
        throw fieldProblem(r.field, `a ${singular} of the same model`)
    }
  }
}
