import { Id, type SharedReview } from '@ypsometer/contract'
import { and, asc, eq, gte, isNull, or, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { review, reviewEdition, reviewPhoto, reviewShare } from '../db/schema'
import { problem } from '../http/problems'
import { ReadingLimits } from '../people/limits'
import { hashOf } from '../http/secrets'
import { dayOfServer } from './snapshot'

/** Answers of shared links a minute and address, and of their photos. */
const A_MINUTE = 60
const PHOTOS_A_MINUTE = 400

const gone = () =>
  problem(404, 'not-found', 'There is nothing at this link', {
    detail: 'It was mistyped, taken back by whoever gave it, or its time is over.',
  })

/** Shared review by a link: one review, no account, no cookie; its readings are counted and nothing else is kept. */
export function registerShared(app: FastifyInstance, db: Db): void {
  const readings = new ReadingLimits(db, 'shared', A_MINUTE)
  const photos = new ReadingLimits(db, 'shared-photo', PHOTOS_A_MINUTE)
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['shared']
  const secret = z
    .string()
    .min(20)
    .max(80)
    .regex(/^[\w-]+$/)
  /** The review a link reads; one that was taken back, has run out or was never there is not told apart. */
  const findBy = async (given: string) => {
    const [share] = await db
      .select({ id: reviewShare.id, reviewId: reviewShare.reviewId })
      .from(reviewShare)
      .innerJoin(review, eq(review.id, reviewShare.reviewId))
      .where(
        and(
          eq(reviewShare.secretHash, hashOf(given)),
          isNull(reviewShare.revokedAt),
          isNull(review.deletedAt),
          or(isNull(reviewShare.expiresOn), gte(reviewShare.expiresOn, dayOfServer())),
        ),
      )
    if (!share) throw gone()
    return share
  }
  typed.get(
    '/shared/:secret',
    {
      config: { access: 'anyone' },
      preValidation: (request, reply) => readings.count(request, reply),
      schema: {
        tags,
        params: z.object({ secret }),
        querystring: z.object({ edition: z.coerce.number().int().min(1).max(1000).optional() }),
      },
    },
    async ({ params, query }, reply): Promise<SharedReview> => {
      const share = await findBy(params.secret)
      const [row] = await db.select().from(review).where(eq(review.id, share.reviewId))
      if (!row) throw gone()
      const editions = await db
        .select({
          number: reviewEdition.number,
          publishedOn: reviewEdition.publishedOn,
          erratum: reviewEdition.erratum,
        })
        .from(reviewEdition)
        .where(eq(reviewEdition.reviewId, row.id))
        .orderBy(asc(reviewEdition.number))
      const number = query.edition ?? row.editions
      const [edition] = await db
        .select()
        .from(reviewEdition)
        .where(and(eq(reviewEdition.reviewId, row.id), eq(reviewEdition.number, number)))
      if (!edition) throw gone()
      await db
        .update(reviewShare)
        .set({ readings: sql`${reviewShare.readings} + 1` })
        .where(eq(reviewShare.id, share.id))
      reply.header('x-robots-tag', 'noindex').header('cache-control', 'private, no-store')
      const { snapshot, words, publishedOn, erratum } = edition
      const withdrawn = row.state === 'withdrawn'
      return {
        state: row.state,
        withdrawn: withdrawn ? { on: row.withdrawnOn ?? '', why: row.withdrawnWhy } : null,
        editions,
        edition: withdrawn
          ? null
          : {
              number,
              publishedOn,
              erratum: erratum ?? null,
              words,
              sheet: snapshot.sheet,
              drawing: snapshot.drawing,
              core: snapshot.core,
            },
      }
    },
  )
  typed.get(
    '/shared/:secret/photos/:id',
    {
      config: { access: 'anyone' },
      preValidation: (request, reply) => photos.count(request, reply),
      schema: { tags, params: z.object({ secret, id: Id }) },
    },
    async ({ params }, reply) => {
      const share = await findBy(params.secret)
      const [row] = await db
        .select({ full: reviewPhoto.full, state: review.state })
        .from(reviewPhoto)
        .innerJoin(review, eq(review.id, reviewPhoto.reviewId))
        .where(and(eq(reviewPhoto.reviewId, share.reviewId), eq(reviewPhoto.photoId, params.id)))
      if (!row || row.state === 'withdrawn') throw gone()
      return reply.header('cache-control', 'private, max-age=3600').type('image/jpeg').send(row.full)
    },
  )
}
