import {
  RESOURCE_NAMES,
  documentText,
  DocumentText,
  ImportReport,
  SUBJECTS,
  YpsoDocument,
  type Subject,
} from '@ypsometer/contract'
import { eq } from 'drizzle-orm'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { importBatch } from '../db/schema'
import { asPerson } from '../http/idempotency'
import { problem } from '../http/problems'
import { takeBack } from './apply'
import { packed, unpacked, type Archive } from './archive'
import { exported } from './export'
import { readDocument } from './read'
import { waysIn } from './ways'

const IMPORT_LIMIT = 40 * 1024 * 1024

const LONG = { heavy: 'long' } as const
const NO_PHOTOS: ReadonlyMap<string, Uint8Array> = new Map()
/** Largest archive taken (bytes). */
const ARCHIVE_LIMIT = 200 * 1024 * 1024

interface Ways {
  readonly lookAt: (a: Archive) => Promise<ImportReport>
  readonly take: (request: FastifyRequest, a: Archive) => Promise<ImportReport>
}

/** Archives: the same documents with their photos. */
function registerArchives(app: FastifyInstance, db: Db, { lookAt, take }: Ways): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['documents']
  app.addContentTypeParser(
    ['application/zip', 'application/x-zip-compressed', 'application/octet-stream'],
    { parseAs: 'buffer', bodyLimit: ARCHIVE_LIMIT },
    (_request, body, done) => done(null, body),
  )
  const opened = (body: unknown): Archive => unpacked(Buffer.isBuffer(body) ? body : new Uint8Array())
  typed.get(
    '/documents/:subject/zip',
    {
      config: LONG,
      schema: {
        tags,
        params: z.object({ subject: z.enum(SUBJECTS) }),
        querystring: z.object({ id: z.uuid().optional() }),
      },
    },
    async ({ params: { subject }, query: { id } }, reply) => {
      if (subject !== 'bench' && !id) throw which(subject)
      const bytes = await packed(db, await exported(db, subject, id ?? null, true))
      return reply
        .header('content-type', 'application/zip')
        .header('content-disposition', `attachment; filename="${subject}.ypso.zip"`)
        .send(Buffer.from(bytes))
    },
  )
  typed.post(
    '/documents/zip/preview',
    { config: LONG, bodyLimit: ARCHIVE_LIMIT, schema: { tags, response: { 200: ImportReport } } },
    async ({ body }) => lookAt(opened(body)),
  )
  typed.post(
    '/documents/zip',
    { config: LONG, bodyLimit: ARCHIVE_LIMIT, schema: { tags, response: { 201: ImportReport } } },
    async (request, reply) => reply.code(201).send(await take(request, opened(request.body))),
  )
}

const which = (subject: Subject) =>
  problem(400, 'invalid-field', 'Say which', {
    errors: [{ field: 'id', message: `the id of the ${subject}` }],
  })

/** Documents out and in: one thing or the whole bench, looked at before it is taken, all or nothing, with an undo. */
export function registerDocuments(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['documents']
  typed.get('/documents/schema', { schema: { tags } }, async () => ({
    collections: RESOURCE_NAMES,
    schema: z.toJSONSchema(YpsoDocument, { io: 'input', unrepresentable: 'any' }),
  }))
  typed.get(
    '/documents/:subject',
    {
      config: LONG,
      schema: {
        tags,
        params: z.object({ subject: z.enum(SUBJECTS) }),
        querystring: z.object({ id: z.uuid().optional() }),
      },
    },
    async ({ params: { subject }, query: { id } }, reply) => {
      if (subject !== 'bench' && !id) throw which(subject)
      const text = documentText(await exported(db, subject, id ?? null))
      return reply
        .header('content-type', 'application/json; charset=utf-8')
        .header('content-disposition', `attachment; filename="${subject}.ypso.json"`)
        .send(text)
    },
  )
  const ways = waysIn(db)
  const lookAt: Ways['lookAt'] = ({ text, photos }) => ways.lookAt(readDocument(text), photos)
  const take: Ways['take'] = (request, { text, photos }) => ways.take(request, readDocument(text), photos)
  typed.post(
    '/documents/preview',
    {
      config: LONG,
      bodyLimit: IMPORT_LIMIT,
      schema: { tags, body: DocumentText, response: { 200: ImportReport } },
    },
    async ({ body: { text } }) => lookAt({ text, photos: NO_PHOTOS }),
  )
  typed.post(
    '/documents',
    {
      config: LONG,
      bodyLimit: IMPORT_LIMIT,
      schema: { tags, body: DocumentText, response: { 201: ImportReport } },
    },
    async (request, reply) =>
      reply.code(201).send(await take(request, { text: request.body.text, photos: NO_PHOTOS })),
  )
  void app.register(async (zips) => registerArchives(zips, db, { lookAt, take }))
  typed.post(
    '/documents/:id/undo',
    {
      config: LONG,
      schema: {
        tags,
        params: z.object({ id: z.uuid() }),
        response: { 200: z.object({ undone: z.boolean() }) },
      },
    },
    async (request) =>
      asPerson(db, request, async (tx) => {
        const { id } = request.params
        const [batch] = await tx.select().from(importBatch).where(eq(importBatch.id, id)).for('update')
        if (!batch) throw problem(404, 'not-found', 'There is no such import')
        if (batch.undoneAt) return { undone: true }
        const since = await takeBack(tx, batch.undo)
        if (since !== null)
          throw problem(409, 'changed-since', 'Something of it was changed since', {
            detail: `The ${since} was changed after the import: nothing was taken back.`,
          })
        await tx.update(importBatch).set({ undoneAt: new Date() }).where(eq(importBatch.id, id))
        return { undone: true }
      }),
  )
}
