import { and, eq, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { z } from 'zod'
import { Id } from '@ypsometer/contract'
import type { Db, Tx } from '../db/client'
import { once, type Answer } from './idempotency'
import { problem } from './problems'

type EditableTable = PgTable & {
  id: PgColumn
  version: PgColumn
  updatedAt: PgColumn
  deletedAt: PgColumn
}
export type Row = Record<string, unknown> & { id: string; version: number; deletedAt: Date | null }
export type Plain = Record<string, unknown>

/** One editable resource: its path, table and schemas, and what is special about it. */
export interface Editable {
  readonly path: string
  readonly one: string
  readonly table: EditableTable
  readonly row: z.ZodObject
  /** Left out where rows are made another way. */
  readonly create?: z.ZodObject
  readonly patch: z.ZodObject
  /** Throws a problem naming the field when the row as it would become makes no sense. */
  readonly check?: (row: Plain) => void
  /** Turns a body into column values where they differ, such as a time that is text in JSON. */
  readonly columns?: (body: Plain) => Plain
  /** Writes what lives in other tables and returns the columns left for this one. */
  readonly split?: (tx: Tx, id: string, body: Plain) => Promise<Plain>
  /** Adds what lives in other tables to rows that were read. */
  readonly join?: (db: Db | Tx, rows: readonly Row[]) => Promise<readonly Plain[]>
}

/** Dates as ISO strings, everything else as it is: the form in which rows travel. */
export const plain = (row: Plain): Plain =>
  Object.fromEntries(Object.entries(row).map(([k, v]) => [k, v instanceof Date ? v.toISOString() : v]))

const joined = async (e: Editable, db: Db | Tx, row: Row): Promise<Plain> =>
  plain((e.join ? (await e.join(db, [row]))[0] : row) ?? row)

const find = async (e: Editable, db: Db | Tx, id: string, lock = false): Promise<Row> => {
  const query = db.select().from(e.table).where(eq(e.table.id, id))
  const [row] = (await (lock ? query.for('update') : query)) as Row[]
  if (!row) throw problem(404, 'not-found', `There is no such ${e.one}`)
  return row
}

const etag = (version: unknown): string => `"${String(version)}"`

function versionOf(request: FastifyRequest): number {
  const header = request.headers['if-match']
  const m = typeof header === 'string' ? /^(?:W\/)?"?(\d{1,9})"?$/.exec(header.trim()) : null
  if (m?.[1]) return Number(m[1])
  throw problem(428, 'version-needed', 'Say which version you are changing', {
    errors: [{ field: 'If-Match', message: 'a header with the version you have, such as "3"' }],
  })
}

const stale = (one: string, current: Plain) =>
  problem(409, 'stale', `This ${one} was changed elsewhere since you read it`, {
    detail: 'Nothing was overwritten. `current` is the row as it is now.',
    current,
  })

/** Changes a row under its version inside a transaction; a stale version gets 409 with the row as it is now. */
async function change(
  e: Editable,
  tx: Tx,
  id: string,
  version: number,
  set: (row: Row) => Promise<Plain>,
): Promise<Answer> {
  const row = await find(e, tx, id, true)
  if (row.version !== version) throw stale(e.one, await joined(e, tx, row))
  const columns = await set(row)
  // What was typed is kept per field, so two people's fields do not overwrite each other's.
  if (columns.typed) columns.typed = { ...(row.typed as object), ...(columns.typed as object) }
  const next: SQL = sql`${e.table.version} + 1`
  const [changed] = (await tx
    .update(e.table)
    .set({ ...columns, version: next, updatedAt: new Date() })
    .where(and(eq(e.table.id, id), eq(e.table.version, version)))
    .returning()) as Row[]
  if (!changed) throw problem(404, 'not-found', `There is no such ${e.one}`)
  return { status: 200, body: await joined(e, tx, changed) }
}

/**
 * Routes of one editable resource: POST to create (idempotent), GET one, PATCH and DELETE under `If-Match`, and
 * POST …/restore to undo a deletion.
 */
export function registerEditable(app: FastifyInstance, db: Db, e: Editable): void {
  const params = z.object({ id: Id })
  const tags = [e.path]
  const send = (reply: FastifyReply, a: Answer & { replayed?: boolean }): FastifyReply => {
    if (a.replayed) void reply.header('idempotency-replayed', 'true')
    return reply.code(a.status).header('etag', etag(a.body.version)).send(a.body)
  }
  const idOf = (request: FastifyRequest): string => (request.params as { id: string }).id

  if (e.create) {
    app.post(
      `/${e.path}`,
      { schema: { tags, body: e.create, response: { 201: e.row } } },
      async (request, reply) =>
        send(
          reply,
          await once(db, request, true, async (tx) => {
            const body = request.body as Plain & { id: string }
            e.check?.(body)
            const { own, rest } = splitOwn(e, e.columns?.(body) ?? body)
            const [row] = (await tx
              .insert(e.table)
              .values(own as never)
              .returning()) as Row[]
            if (!row) throw problem(500, 'fault', 'The row was not written')
            if (e.split) await e.split(tx, row.id, rest)
            return { status: 201, body: await joined(e, tx, row) }
          }),
        ),
    )
  }

  app.get(`/${e.path}/:id`, { schema: { tags, params, response: { 200: e.row } } }, async (request, reply) =>
    send(reply, { status: 200, body: await joined(e, db, await find(e, db, idOf(request))) }),
  )

  app.patch(
    `/${e.path}/:id`,
    { schema: { tags, params, body: e.patch, response: { 200: e.row } } },
    async (request, reply) => {
      const version = versionOf(request)
      return send(
        reply,
        await once(db, request, false, (tx) =>
          change(e, tx, idOf(request), version, async (row) => {
            const body = request.body as Plain
            e.check?.({ ...row, ...body })
            return e.split ? e.split(tx, row.id, body) : body
          }),
        ),
      )
    },
  )

  const setDeleted =
    (deletedAt: () => Date | null) => async (request: FastifyRequest, reply: FastifyReply) => {
      const version = versionOf(request)
      return send(
        reply,
        await once(db, request, false, (tx) =>
          change(e, tx, idOf(request), version, async () => ({ deletedAt: deletedAt() })),
        ),
      )
    }
  app.delete(
    `/${e.path}/:id`,
    { schema: { tags, params, response: { 200: e.row } } },
    setDeleted(() => new Date()),
  )
  app.post(
    `/${e.path}/:id/restore`,
    { schema: { tags, params, response: { 200: e.row } } },
    setDeleted(() => null),
  )
}

/** Parts a create body into the table's own columns and the rest. */
function splitOwn(e: Editable, body: Plain): { own: Plain; rest: Plain } {
  const own: Plain = {}
  const rest: Plain = {}
  for (const [key, value] of Object.entries(body)) (key in e.table ? own : rest)[key] = value
  return { own, rest }
}
