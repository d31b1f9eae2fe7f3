import { Id, photos } from '@ypsometer/contract'
import { and, eq, isNull } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { photo } from '../db/schema'
import { travelling } from '../http/rows'
import { remember } from '../db/remember'
import { idempotently } from '../http/idempotency'
import { problem } from '../http/problems'
import { checkReferences, referencesOf } from '../http/references'
import { MAX_UPLOAD, readPicture } from './picture'

/** Photos of parts, trials and visits: sent as the raw file, kept re-encoded in the database. */
export function registerPhotos(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  // Inside this plugin only: an upload is bytes, whatever type the browser calls it.
  app.addContentTypeParser(
    /^(image\/|application\/octet-stream)/,
    { parseAs: 'buffer', bodyLimit: MAX_UPLOAD },
    (_request, body, done) => done(null, body),
  )
  const query = z.object({ id: Id, caption: z.string().max(200).default('') })
  for (const {
    to,
    path: [column = ''],
  } of photos.links)
    typed.post(
      `/${to}/:id/photos`,
      {
        config: { heavy: 'short' },
        bodyLimit: MAX_UPLOAD,
        schema: {
          tags: ['photos'],
          params: z.object({ id: Id }),
          querystring: query,
          response: { 201: photos.Row },
        },
      },
      async (request, reply) => {
        const upload = Buffer.isBuffer(request.body) ? request.body : Buffer.alloc(0)
        const picture = await readPicture(upload)
        const { id, caption } = request.query
        const answer = await idempotently(db, request, true, async (tx) => {
          await checkReferences(tx, referencesOf('photos', { [column]: request.params.id }))
          const [row] = await tx
            .insert(photo)
            .values({ id, [column]: request.params.id, caption, bytes: picture.full.length, ...picture })
            .returning()
          if (!row) throw problem(500, 'fault', 'The photo was not written')
          const { full: _full, thumb: _thumb, ...own } = row
          await remember(tx, [{ action: 'made', resource: 'photos', row: own }])
          return { status: 201, body: travelling(own) }
        })
        return reply.code(201).send(answer.body)
      },
    )
  typed.get(
    '/photos/:id/:size',
    { schema: { tags: ['photos'], params: z.object({ id: Id, size: z.enum(['full', 'thumb']) }) } },
    async (request, reply) => {
      const { id, size } = request.params
      const [row] = await db
        .select({ data: photo[size] })
        .from(photo)
        .where(and(eq(photo.id, id), isNull(photo.deletedAt)))
      if (!row) throw problem(404, 'not-found', 'There is no such photo')
      // The picture of an id never changes.
      return reply
        .header('cache-control', 'private, max-age=31536000, immutable')
        .type('image/jpeg')
        .send(row.data)
    },
  )
}
