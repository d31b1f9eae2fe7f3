import {
  Id,
  RESOURCES,
  type ListName,
  type CreatedOf,
  type PatchOf,
  type ResourceName,
  type RowOf,
} from '@ypsometer/contract'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { idempotently, type Answer } from './idempotency'
import { registerList } from './list'
import { problem } from './problems'
import { Rows, type Editable } from './rows'

const etag = (version: number): string => `"${version}"`

function versionOf(request: FastifyRequest): number {
  const header = request.headers['if-match']
  const m = typeof header === 'string' ? /^(?:W\/)?"?(\d{1,9})"?$/.exec(header.trim()) : null
  if (m?.[1]) return Number(m[1])
  throw problem(428, 'version-needed', 'Say which version you are changing', {
    errors: [{ field: 'If-Match', message: 'a header with the version you have, such as "3"' }],
  })
}

/**
 * Routes of one editable resource: GET for a list of its own, POST to create (idempotent), GET one, PATCH and DELETE
 * under `If-Match`, and POST …/restore to undo a deletion.
 */
export function registerEditable<N extends ResourceName, F extends keyof RowOf<N> = never>(
  app: FastifyInstance,
  db: Db,
  e: Editable<N, F>,
): void {
  const { path, servedIn, Row, Create, Patch } = RESOURCES[e.name]
  const rows = new Rows(e)
  const params = z.object({ id: Id })
  const tags = [path]
  const send = (reply: FastifyReply, a: Answer<RowOf<N>> & { replayed?: boolean }): FastifyReply => {
    if (a.replayed) void reply.header('idempotency-replayed', 'true')
    return reply.code(a.status).header('etag', etag(a.body.version)).send(a.body)
  }
  const idOf = (request: FastifyRequest): string => (request.params as { id: string }).id
  /** Writes to a row under its version. */
  const write = async (
    request: FastifyRequest,
    reply: FastifyReply,
    work: (tx: Tx, id: string, version: number) => Promise<RowOf<N>>,
  ): Promise<FastifyReply> => {
    const version = versionOf(request)
    const answer = await idempotently<RowOf<N>>(db, request, false, async (tx) => ({
      status: 200,
      body: await work(tx, idOf(request), version),
    }))
    return send(reply, answer)
  }

  if (!e.madeElsewhere)
    app.post(
      `/${path}`,
      { schema: { tags, body: Create, response: { 201: Row } } },
      async (request, reply) => {
        const created = request.body as CreatedOf<N>
        const answer = await idempotently<RowOf<N>>(db, request, true, async (tx) => ({
          status: 201,
          body: await rows.create(tx, created),
        }))
        return send(reply, answer)
      },
    )

  if (servedIn === 'list') registerList(app, db, e.name as ListName, e.list)
  app.get(`/${path}/:id`, { schema: { tags, params, response: { 200: Row } } }, async (request, reply) =>
    send(reply, { status: 200, body: await rows.whole(db, await rows.find(db, idOf(request))) }),
  )

  app.patch(
    `/${path}/:id`,
    { schema: { tags, params, body: Patch, response: { 200: Row } } },
    (request, reply) =>
      write(request, reply, (tx, id, version) =>
        rows.change(tx, id, request.body as PatchOf<N>, { version }),
      ),
  )

  const Removed = z.union([Row, z.object({ id: Id, version: z.int(), deletedAt: z.string() })])
  app.delete(`/${path}/:id`, { schema: { tags, params, response: { 200: Removed } } }, (request, reply) =>
    write(request, reply, (tx, id, version) => rows.setThere(tx, id, false, { version })),
  )
  app.post(`/${path}/:id/restore`, { schema: { tags, params, response: { 200: Row } } }, (request, reply) =>
    write(request, reply, (tx, id, version) => rows.setThere(tx, id, true, { version })),
  )
}
