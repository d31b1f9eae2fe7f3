import { RESOURCES, type Change, type ResourceName } from '@ypsometer/contract'
import { sql, type SQL } from 'drizzle-orm'
import type { Tx } from './client'
import type { Remembered } from './people'
import { rowChange, TABLES } from './schema'

/** A row as far as it says whose it is and what it is called. */
export type Named = Readonly<Record<string, unknown>> & { readonly id: string }

/** Something done to a row, to be remembered. */
export interface Deed {
  readonly action: Change['action']
  readonly resource: Remembered
  readonly row: Named
  /** The fields that changed, as they were and as they became. */
  readonly before?: object
  readonly after?: object
  /** The change that it takes back. */
  readonly undoes?: number
}

/** Most deeds written by one statement. */
const CHUNK = 500

/** Name of a row where it is spoken of. */
export const calledOf = (row: Readonly<Record<string, unknown>>): string =>
  String(row.name ?? row.title ?? row.label ?? row.quantity ?? row.what ?? row.on ?? '').slice(0, 120)

/** The model in whose dossier a row is: named by it, or by what it belongs to. */
function modelOf({ resource, row }: Deed): SQL | string | null {
  if (resource === 'models') return row.id
  if (typeof row.modelId === 'string') return row.modelId
  const links = resource in RESOURCES ? RESOURCES[resource as ResourceName].links : []
  for (const {
    owner,
    to,
    path: [field = ''],
  } of links) {
    const id = row[field]
    const table = TABLES[to as ResourceName]
    if (owner && typeof id === 'string' && 'modelId' in table)
      return sql`(select model_id from ${table} where id = ${id}::uuid)`
  }
  return null
}

/** Writes down what was done, in the transaction that does it; who does it was said there by `asPerson`. */
export async function remember(tx: Tx, deeds: readonly Deed[]): Promise<void> {
  for (let i = 0; i < deeds.length; i += CHUNK)
    await tx.insert(rowChange).values(
      deeds.slice(i, i + CHUNK).map((d) => ({
        who: sql`nullif(current_setting('ypsometer.who', true), '')::uuid`,
        whoName: sql`coalesce(current_setting('ypsometer.who_name', true), '')`,
        action: d.action,
        resource: d.resource,
        rowId: d.row.id,
        modelId: modelOf(d) as SQL<string> | string | null,
        name: calledOf(d.row),
        before: (d.before ?? {}) as Record<string, unknown>,
        after: (d.after ?? {}) as Record<string, unknown>,
        undoes: d.undoes ?? null,
      })),
    )
}

/** The same value whatever the order of the keys within. */
export const canonical = (v: unknown): string =>
  JSON.stringify(v ?? null, (_k, x: unknown) =>
    x && typeof x === 'object' && !Array.isArray(x) && !(x instanceof Date)
      ? Object.fromEntries(Object.entries(x).sort(([a], [b]) => (a < b ? -1 : 1)))
      : x,
  )

/** Bookkeeping of a row, which is no change of it. */
const OWN: readonly string[] = ['id', 'version', 'createdAt', 'updatedAt', 'deletedAt']

/** The fields in which two states of a row differ, as they were and as they became. */
export function differences(then: object, now: object): { before: object; after: object } {
  const was = then as Readonly<Record<string, unknown>>
  const changed = Object.entries(now).filter(
    ([k, v]) => k in was && !OWN.includes(k) && canonical(was[k]) !== canonical(v),
  )
  return {
    before: Object.fromEntries(changed.map(([k]) => [k, was[k] ?? null])),
    after: Object.fromEntries(changed),
  }
}
