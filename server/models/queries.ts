import { DOSSIER_ROWS, RESOURCES, type Dossier, type DossierName } from '@ypsometer/contract'
import { and, asc, eq, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db } from '../db/client'
import { model, TABLES } from '../db/schema'
import { travelling } from '../http/rows'
import { problem } from '../http/problems'
import { DOSSIER_SPECIALS } from './rows'

/** A table as a dossier is read from it. */
type OwnedTable = PgTable & Readonly<Record<string, PgColumn>>
const ownedTable = (name: string): OwnedTable => TABLES[name as keyof typeof TABLES] as unknown as OwnedTable

export type ModelRow = typeof model.$inferSelect

/** Of these models: their ids are given when the query is asked. */
const among = (column: SQL | PgColumn | undefined): SQL =>
  sql`${column} = any(${sql.placeholder('ids')}::uuid[])`

/** A row of a dossier, and whose it is. */
interface Found {
  readonly row: { readonly id: string }
  readonly modelId: string
}

/** The rows of a kind that belong to models, by themselves or through what they belong to, in their order. */
function queryOf(db: Db, name: DossierName): { execute: (given: { ids: string[] }) => Promise<unknown> } {
  const { Row, links, orderedBy } = RESOURCES[name]
  const table = ownedTable(name)
  // What is large and travels in no dossier, such as a picture, is not read.
  const row = Object.fromEntries(Object.keys(Row.shape).flatMap((f) => (table[f] ? [[f, table[f]]] : [])))
  const order = [orderedBy, 'createdAt', 'id'].flatMap((f) => (f && table[f] ? [asc(table[f])] : []))
  const owners = links
    .filter((l) => l.owner)
    .map((l) => ({ by: table[l.path[0] ?? ''], owner: ownedTable(l.to) }))
  const own = links.some((l) => l.owner && l.to === 'models')
  const modelId = own
    ? table.modelId
    : sql`coalesce(${sql.join(
        owners.map((o) => o.owner.modelId),
        sql`, `,
      )})`
  const query = db
    .select({ row, modelId: sql<string>`${modelId}` })
    .from(table as PgTable)
    .$dynamic()
  if (!own) for (const { by, owner } of owners) void query.leftJoin(owner, eq(owner.id as PgColumn, by))
  const whose = own
    ? among(table.modelId)
    : or(...owners.map(({ owner }) => and(among(owner.modelId), isNull(owner.deletedAt as PgColumn))))
  // Without a name of its own, so that any pool may stand between.
  return query
    .where(and(whose, isNull(table.deletedAt as PgColumn)))
    .orderBy(...order)
    .prepare('')
}

/** The queries of a dossier, put into words once. */
const queriesOf = (db: Db) => DOSSIER_ROWS.map((name) => ({ name, query: queryOf(db, name) }))
const queries = new WeakMap<Db, ReturnType<typeof queriesOf>>()

/** Everything the dossiers of these models stand on, in some fifteen queries whatever their number. */
export async function dossiers(db: Db, models: readonly ModelRow[]): Promise<readonly Dossier[]> {
  const ids = models.map((m) => m.id)
  if (!ids.length) return []
  const all = queries.get(db) ?? queriesOf(db)
  queries.set(db, all)
  const collections = await Promise.all(
    all.map(async ({ name, query }) => {
      const found = (await query.execute({ ids })) as readonly Found[]
      const parts = DOSSIER_SPECIALS[name]?.parts
      const apart =
        parts &&
        (await parts.read(
          db,
          found.map((f) => f.row.id),
        ))
      const rows = found.map(({ row, modelId }) => ({
        modelId,
        row: { ...travelling(row), ...(parts && { [String(parts.field)]: apart?.get(row.id) ?? [] }) },
      }))
      return { name, rows }
    }),
  )
  return models.map((m) => ({
    model: travelling(m),
    ...(Object.fromEntries(
      collections.map(({ name, rows }) => [name, rows.filter((r) => r.modelId === m.id).map((r) => r.row)]),
    ) as unknown as Omit<Dossier, 'model'>),
  }))
}

/** One dossier. @throws 404 for a model that is not there; a deleted one is given, marked by `deletedAt`. */
export async function dossier(db: Db, id: string): Promise<Dossier> {
  const rows = await db.select().from(model).where(eq(model.id, id))
  const [found] = await dossiers(db, rows)
  if (!found) throw problem(404, 'not-found', 'There is no such model')
  return readable(found)
}

/** A dossier without the rows that cannot be read, which it names: one row never takes the others with it. */
function readable(d: Dossier): Dossier {
  const unreadable: NonNullable<Dossier['unreadable']> = []
  const read = DOSSIER_ROWS.map((collection) => {
    const { Row, singular: one } = RESOURCES[collection]
    const whole = d[collection].filter((row) => {
      const wrong = Row.safeParse(row).error?.issues[0]
      if (!wrong) return true
      const { id, version } = row
      unreadable.push({ collection, one, id, version, field: wrong.path.join('.'), message: wrong.message })
      return false
    })
    return [collection, whole]
  })
  return unreadable.length ? { ...d, ...Object.fromEntries(read), unreadable } : d
}
