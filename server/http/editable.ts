import {
  Id,
  RESOURCES,
  type CreatedOf,
  type PatchOf,
  type ResourceName,
  type RowOf,
} from '@ypsometer/contract'
import { and, eq, getTableColumns, sql } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { once, type Answer } from './idempotency'
import { fieldProblem, problem } from './problems'
import { checkTies, type Tie } from './ties'

/** Columns that hold a moment; they travel as ISO text. */
type Time = 'createdAt' | 'updatedAt' | 'deletedAt' | 'takenAt' | 'startedAt'
/** A row of a resource as its table holds it; fields named in F stand in rows of another table. */
export type StoredOf<N extends ResourceName, F extends PropertyKey = never> = {
  [K in Exclude<keyof RowOf<N>, F>]: K extends Time ? Date | Extract<RowOf<N>[K], null> : RowOf<N>[K]
}
/** A table that has a column for every field of a resource. */
type TableOf<N extends ResourceName, F extends PropertyKey> = PgTable & {
  readonly id: PgColumn
  readonly version: PgColumn
  readonly $inferSelect: StoredOf<N, F>
}

/** What of a row is looked at before it is written: what makes it, with the defaults in. */
export type Written<N extends ResourceName> = Pick<CreatedOf<N>, keyof CreatedOf<N> & keyof RowOf<N>>

/** A field whose value stands in rows of another table and is replaced as a whole. */
export interface Parts<F extends PropertyKey, V> {
  readonly field: F
  readonly replace: (tx: Tx, id: string, value: V) => Promise<void>
  /** The values by the id of the row they belong to. */
  readonly read: (db: Db | Tx, ids: readonly string[]) => Promise<ReadonlyMap<string, V>>
}

/** One editable resource: what the contract declares of it, its table, and what is special about it. */
export interface Editable<N extends ResourceName, F extends keyof RowOf<N> = never> {
  readonly name: N
  readonly table: TableOf<N, F>
  /** Throws a problem naming the field when the row as it would become makes no sense. */
  readonly check?: (row: Written<N>) => void
  /** Column values that what makes a row does not hold as they are, such as a time that is text in JSON. */
  readonly columns?: (created: CreatedOf<N>) => Partial<StoredOf<N, F>>
  readonly parts?: Parts<F, RowOf<N>[F]>
  /** The rows that a row names. */
  readonly ties?: (row: Written<N>) => readonly Tie[]
  /** Brings other rows in line with one that was written. */
  readonly settle?: (tx: Tx, row: RowOf<N>) => Promise<void>
  /**
   * An id says what a row is about, so two people who make it make the same one: the second is given what the first
   * wrote, and one that was taken back is made anew.
   */
  readonly idSaysAll?: true
  /** Throws a problem when a row is not to be deleted. */
  readonly mayGo?: (row: StoredOf<N, F>) => void
  /** Rows are made another way. */
  readonly madeElsewhere?: boolean
}

type Travelling<T> = { [K in keyof T]: Date extends T[K] ? Exclude<T[K], Date> | string : T[K] }
/** Dates as ISO strings, everything else as it is: the form in which rows travel. */
export const travelling = <T extends object>(row: T): Travelling<T> =>
  Object.fromEntries(
    Object.entries(row).map(([k, v]: [string, unknown]) => [k, v instanceof Date ? v.toISOString() : v]),
  ) as Travelling<T>

/** Reads and writes the rows of one resource. The one place where its fields meet Drizzle's own types of columns. */
class Rows<N extends ResourceName, F extends keyof RowOf<N>> {
  readonly one: string
  /** Columns a row travels with; what is large, such as a picture, is left out. */
  private readonly selected

  constructor(readonly e: Editable<N, F>) {
    const { one, Row } = RESOURCES[e.name]
    this.one = one
    const columns = getTableColumns(e.table)
    this.selected = Object.fromEntries(Object.entries(columns).filter(([k]) => k in Row.shape))
  }

  async find(db: Db | Tx, id: string, lock = false): Promise<StoredOf<N, F> & { version: number }> {
    const query = db.select(this.selected).from(this.e.table).where(eq(this.e.table.id, id))
    const [row] = await (lock ? query.for('update') : query)
    if (!row) throw problem(404, 'not-found', `There is no such ${this.one}`)
    return row as StoredOf<N, F> & { version: number }
  }

  /** The row of an id, if there is one. */
  async made(tx: Tx, id: string): Promise<(StoredOf<N, F> & { version: number }) | null> {
    const [row] = await tx
      .select(this.selected)
      .from(this.e.table)
      .where(eq(this.e.table.id, id))
      .for('update')
    return (row as (StoredOf<N, F> & { version: number }) | undefined) ?? null
  }

  /** One that is there stays as it is; one that was taken back is made anew. */
  async again(tx: Tx, row: StoredOf<N, F> & { version: number }, created: CreatedOf<N>): Promise<RowOf<N>> {
    if ('deletedAt' in row && row.deletedAt === null) return this.whole(tx, row)
    return this.update(tx, created.id, row.version, { ...this.own(created), deletedAt: null })
  }

  /** A row as it travels, with the parts that stand elsewhere. */
  async whole(db: Db | Tx, row: StoredOf<N, F> & { id?: unknown }): Promise<RowOf<N>> {
    const { parts } = this.e
    const own = travelling(row)
    if (!parts) return own as RowOf<N>
    const id = String(row.id)
    return { ...own, [parts.field]: (await parts.read(db, [id])).get(id) } as RowOf<N>
  }

  async insert(tx: Tx, created: CreatedOf<N>): Promise<RowOf<N>> {
    const { table, columns, parts } = this.e
    const values = { ...this.own(created), ...columns?.(created) }
    const [row] = await tx
      .insert(table)
      .values(values as never)
      .returning(this.selected)
    if (!row) throw problem(500, 'fault', 'The row was not written')
    if (parts) await parts.replace(tx, created.id, created[parts.field as keyof CreatedOf<N>] as RowOf<N>[F])
    return this.whole(tx, row as StoredOf<N, F>)
  }

  /** Writes columns under the version they were read at. */
  async update(tx: Tx, id: string, version: number, set: object): Promise<RowOf<N>> {
    const { table } = this.e
    const next = { ...set, version: sql`${table.version} + 1`, updatedAt: new Date() }
    const [row] = await tx
      .update(table)
      .set(next as never)
      .where(and(eq(table.id, id), eq(table.version, version)))
      .returning(this.selected)
    if (!row) throw problem(404, 'not-found', `There is no such ${this.one}`)
    return this.whole(tx, row as StoredOf<N, F>)
  }

  /** Columns of a change; parts that stand elsewhere are written on the way. */
  async split(tx: Tx, id: string, patch: PatchOf<N>): Promise<object> {
    const { parts } = this.e
    const value = parts && patch[parts.field as keyof PatchOf<N>]
    if (parts && value !== undefined) await parts.replace(tx, id, value as RowOf<N>[F])
    return this.own(patch)
  }

  private own(fields: object): object {
    return Object.fromEntries(Object.entries(fields).filter(([k]) => k in this.e.table))
  }
}

/** Every resource that is served over a database, for what reads and writes whole documents. */
const registered = new WeakMap<Db, Map<ResourceName, AnyEditable>>()
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- what is special about a resource is of its own type
export type AnyEditable = Editable<any, any>
export function editableOf(db: Db, name: ResourceName): AnyEditable {
  const found = registered.get(db)?.get(name)
  if (!found) throw new Error(`${name} is not served`)
  return found
}

const etag = (version: number): string => `"${version}"`

function versionOf(request: FastifyRequest): number {
  const header = request.headers['if-match']
  const m = typeof header === 'string' ? /^(?:W\/)?"?(\d{1,9})"?$/.exec(header.trim()) : null
  if (m?.[1]) return Number(m[1])
  throw problem(428, 'version-needed', 'Say which version you are changing', {
    errors: [{ field: 'If-Match', message: 'a header with the version you have, such as "3"' }],
  })
}

const stale = (one: string, current: object) =>
  problem(409, 'stale', `This ${one} was changed elsewhere since you read it`, {
    detail: 'Nothing was overwritten. `current` is the row as it is now.',
    current,
  })

/**
 * What was typed is kept per field, so two people's fields do not overwrite each other's; a field that was emptied is
 * let go of.
 */
function keepTyped(row: object, set: object): object {
  if (!('typed' in set && 'typed' in row)) return set
  const all = Object.entries({ ...(row.typed as object), ...(set.typed as object) })
  return { ...set, typed: Object.fromEntries(all.filter(([, text]) => text !== '')) }
}

/**
 * Routes of one editable resource: POST to create (idempotent), GET one, PATCH and DELETE under `If-Match`, and
 * POST …/restore to undo a deletion.
 */
export function registerEditable<N extends ResourceName, F extends keyof RowOf<N> = never>(
  app: FastifyInstance,
  db: Db,
  e: Editable<N, F>,
): void {
  registered.set(db, (registered.get(db) ?? new Map<ResourceName, AnyEditable>()).set(e.name, e))
  const { path, Row, Create, Patch } = RESOURCES[e.name]
  const rows = new Rows(e)
  const params = z.object({ id: Id })
  const tags = [path]
  const send = (reply: FastifyReply, a: Answer<RowOf<N>> & { replayed?: boolean }): FastifyReply => {
    if (a.replayed) void reply.header('idempotency-replayed', 'true')
    return reply.code(a.status).header('etag', etag(a.body.version)).send(a.body)
  }
  /** A row as it stands after a write, looked at before the write is kept: what cannot be read is not written. */
  const written = async (tx: Tx, row: RowOf<N>): Promise<RowOf<N>> => {
    const wrong = Row.safeParse(row).error?.issues[0]
    // One that is taken away may have been unreadable all along.
    if (wrong && row.deletedAt === null) throw fieldProblem(wrong.path.join('.') || 'body', wrong.message)
    await e.settle?.(tx, row)
    return row
  }
  const idOf = (request: FastifyRequest): string => (request.params as { id: string }).id
  /** Changes a row under its version; a stale version gets 409 with the row as it is now. */
  const change = async (
    request: FastifyRequest,
    reply: FastifyReply,
    set: (tx: Tx, row: StoredOf<N, F>) => Promise<object>,
  ): Promise<FastifyReply> => {
    const version = versionOf(request)
    const id = idOf(request)
    const answer = await once<RowOf<N>>(db, request, false, async (tx) => {
      const row = await rows.find(tx, id, true)
      if (row.version !== version) throw stale(rows.one, await rows.whole(tx, row))
      const changed = await rows.update(tx, id, version, keepTyped(row, await set(tx, row)))
      return { status: 200, body: await written(tx, changed) }
    })
    return send(reply, answer)
  }

  if (!e.madeElsewhere)
    app.post(
      `/${path}`,
      { schema: { tags, body: Create, response: { 201: Row } } },
      async (request, reply) => {
        const created = request.body as CreatedOf<N>
        const answer = await once<RowOf<N>>(db, request, true, async (tx) => {
          e.check?.(created)
          await checkTies(tx, e.ties?.(created) ?? [])
          const there = e.idSaysAll && (await rows.made(tx, created.id))
          if (there) return { status: 201, body: await written(tx, await rows.again(tx, there, created)) }
          return { status: 201, body: await written(tx, await rows.insert(tx, created)) }
        })
        return send(reply, answer)
      },
    )

  app.get(`/${path}/:id`, { schema: { tags, params, response: { 200: Row } } }, async (request, reply) =>
    send(reply, { status: 200, body: await rows.whole(db, await rows.find(db, idOf(request))) }),
  )

  app.patch(
    `/${path}/:id`,
    { schema: { tags, params, body: Patch, response: { 200: Row } } },
    (request, reply) =>
      change(request, reply, async (tx, row) => {
        const patch = request.body as PatchOf<N>
        const next = { ...row, ...patch } as Written<N>
        e.check?.(next)
        // A row may go on naming what was deleted since; what it is set to now must be there.
        const set = (t: Tie): boolean => t.owner === true || (t.field.split('.')[0] ?? '') in patch
        await checkTies(tx, (e.ties?.(next) ?? []).filter(set))
        return rows.split(tx, idOf(request), patch)
      }),
  )

  const Removed = z.union([Row, z.object({ id: Id, version: z.int(), deletedAt: z.string() })])
  app.delete(`/${path}/:id`, { schema: { tags, params, response: { 200: Removed } } }, (request, reply) =>
    change(request, reply, async (_tx, row) => {
      e.mayGo?.(row)
      return { deletedAt: new Date() }
    }),
  )
  app.post(`/${path}/:id/restore`, { schema: { tags, params, response: { 200: Row } } }, (request, reply) =>
    change(request, reply, async () => ({ deletedAt: null })),
  )
}
