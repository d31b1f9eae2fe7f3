import { CSV_IN, CSV_TABLES, DocumentText, ImportReport } from '@ypsometer/contract'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { waysIn } from '../documents/ways'
import { readCsv } from './read'
import { csvOf } from './write'

const LIMIT = 12 * 1024 * 1024
const LONG = { heavy: 'long' } as const
const NO_PHOTOS: ReadonlyMap<string, Uint8Array> = new Map()

/** Tables out and in: looked at, taken and taken back as documents are. */
export function registerCsv(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['csv']
  typed.get(
    '/csv/:table',
    {
      config: LONG,
      schema: {
        tags,
        params: z.object({ table: z.enum(CSV_TABLES) }),
        querystring: z.object({ model: z.uuid().optional() }),
      },
    },
    async ({ params: { table }, query }, reply) =>
      reply
        .header('content-type', 'text/csv; charset=utf-8; header=present')
        .header('content-disposition', `attachment; filename="${table}.csv"`)
        .send(await csvOf(db, table, query.model)),
  )
  const ways = waysIn(db)
  const schema = { tags, params: z.object({ table: z.enum(CSV_IN) }), body: DocumentText }
  typed.post(
    '/csv/:table/preview',
    { config: LONG, bodyLimit: LIMIT, schema: { ...schema, response: { 200: ImportReport } } },
    async ({ params: { table }, body: { text } }) => ways.lookAt(await readCsv(db, table, text), NO_PHOTOS),
  )
  typed.post(
    '/csv/:table',
    { config: LONG, bodyLimit: LIMIT, schema: { ...schema, response: { 201: ImportReport } } },
    async (request, reply) => {
      const read = await readCsv(db, request.params.table, request.body.text)
      return reply.code(201).send(await ways.take(request, read, NO_PHOTOS))
    },
  )
}
