import {
  Id,
  NewReview,
  NewShare,
  Publishing,
  reviews,
  ReviewShare,
  Withdrawing,
  type EditedWords,
  type Review,
} from '@ypsometer/contract'
import type { Snapshot } from '@ypsometer/contract/review'
import { CoreError } from '@ypsometer/core/errors/errors'
import { movedSince } from '@ypsometer/core/review/moved'
import { lowerFirst } from '@ypsometer/core/figures/figure'
import { readiness } from '@ypsometer/core/review/ready'
import { and, asc, desc, eq, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { randomUUID } from 'node:crypto'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { photo, review, reviewEdition, reviewPhoto, reviewShare } from '../db/schema'
import { travelling, type Specials } from '../http/rows'
import { differences, remember, type Deed } from '../db/remember'
import { asPerson, idempotently } from '../http/idempotency'
import { fieldProblem, problem } from '../http/problems'
import { hashOf, newSecret } from '../http/secrets'
import { publishedEditions } from './document'
import { keepPhotos } from './photos'
import { dayOfServer, takeSnapshot } from './snapshot'

/** Working a model out takes a while. */
const SHORT = { heavy: 'short' } as const
/** Bytes of a share’s secret: 192 bits, which nobody guesses. */
const SECRET = 24

type Row = typeof review.$inferSelect
/** A review as it travels: without its numbers. */
const headOf = ({ draft: _, ...row }: Row): Review => travelling(row) as Review

/** The numbers of a model; what cannot be worked out is said by its field. */
async function taken(db: Db, modelId: string): Promise<Snapshot> {
  try {
    return await takeSnapshot(db, modelId, dayOfServer())
  } catch (error) {
    if (error instanceof CoreError)
      throw fieldProblem('modelId', `a model that can be calculated. ${error.message}`)
    throw error
  }
}

/** Specials of reviews: the server makes them, and what was published stays. */
export const REVIEW_SPECIALS: Specials = {
  reviews: {
    madeElsewhere: true,
    inDocuments: publishedEditions,
    mayDelete: ({ editions }) => {
      if (editions > 0) throw fieldProblem('editions', 'a draft: what was published is withdrawn', 409)
    },
  },
}

/** A review that was not deleted. @throws problem `not-found`. */
const find = async (tx: Db | Tx, id: string, lock = false): Promise<Row> => {
  const query = tx.select().from(review).where(eq(review.id, id))
  const [row] = await (lock ? query.for('update') : query)
  if (!row || row.deletedAt) throw problem(404, 'not-found', 'There is no such review')
  return row
}
/** Changes a review’s row, with its entry in the history. */
const set = async (tx: Tx, id: string, to: Partial<typeof review.$inferInsert>): Promise<Review> => {
  const was = await find(tx, id, true)
  const [row] = await tx
    .update(review)
    .set({ ...to, version: sql`${review.version} + 1`, updatedAt: new Date() })
    .where(eq(review.id, id))
    .returning()
  if (!row) throw problem(404, 'not-found', 'There is no such review')
  const now = headOf(row)
  const { draft: _, ...differ } = to
  const fields = Object.fromEntries(Object.entries(now).filter(([k]) => k in differ))
  await remember(tx, [
    { action: 'changed', resource: 'reviews', row: now, ...differences(headOf(was), fields) },
  ])
  return now
}

const tags = ['reviews']
const params = z.object({ id: Id })
const typedOf = (app: FastifyInstance) => app.withTypeProvider<ZodTypeProvider>()
type Typed = ReturnType<typeof typedOf>

/** A draft: made, read, and its numbers taken anew. */
function registerDrafts(typed: Typed, db: Db): void {
  typed.post(
    '/reviews',
    { config: SHORT, schema: { tags, body: NewReview, response: { 201: reviews.Row } } },
    async (request, reply) => {
      const { id, modelId, title } = request.body
      const draft = await taken(db, modelId)
      const answer = await idempotently(db, request, true, async (tx) => {
        const [row] = await tx
          .insert(review)
          .values({ id, modelId, title, draft, takenOn: draft.on })
          .returning()
        if (!row) throw problem(500, 'fault', 'The review was not written')
        await remember(tx, [{ action: 'made', resource: 'reviews', row: headOf(row) }])
        return { status: 201, body: headOf(row) }
      })
      return reply.code(201).send(answer.body)
    },
  )
  typed.get('/reviews/:id/draft', { schema: { tags, params } }, async ({ params: { id } }) => {
    const { draft } = await find(db, id)
    return { snapshot: draft }
  })
  typed.post(
    '/reviews/:id/retake',
    { config: SHORT, schema: { tags, params, response: { 200: reviews.Row } } },
    async (request) => {
      const { modelId } = await find(db, request.params.id)
      const draft = await taken(db, modelId)
      const { body } = await idempotently(db, request, true, async (tx) => ({
        status: 200,
        body: await set(tx, request.params.id, { draft, takenOn: draft.on }),
      }))
      return body
    },
  )
}

/** An edition: published, and withdrawn. */
function registerPublishing(typed: Typed, db: Db): void {
  typed.post(
    '/reviews/:id/publish',
    { schema: { tags, params, body: Publishing, response: { 200: reviews.Row } } },
    async (request) => {
      const { what, why, anyway } = request.body
      const { body } = await idempotently(db, request, true, async (tx) => {
        const row = await find(tx, request.params.id, true)
        const again = row.editions > 0
        if (again && !what) throw fieldProblem('what', 'what was wrong in the edition before')
        if (again && !why) throw fieldProblem('why', 'why it was wrong')
        if (!row.title.trim()) throw fieldProblem('title', 'a title, at least one character')
        const lacks = readiness(row.title, row.draft.sheet).filter((r) => !r.met)
        if (lacks.length && !anyway)
          throw fieldProblem(
            'anyway',
            `why it is published while this is missing: ${lacks.map((r) => lowerFirst(r.asks)).join(', ')}`,
          )
        const number = row.editions + 1
        const publishedOn = dayOfServer()
        await tx.insert(reviewEdition).values({
          reviewId: row.id,
          number,
          publishedOn,
          erratum: again && what && why ? { what, why } : null,
          words: { ...wordsOf(row), ...(anyway && { anyway }) },
          snapshot: row.draft,
        })
        await keepPhotos(tx, row.id, row.draft)
        return {
          status: 200,
          body: await set(tx, row.id, {
            editions: number,
            publishedOn,
            state: again ? 'corrected' : 'published',
            withdrawnOn: null,
            withdrawnWhy: '',
          }),
        }
      })
      return body
    },
  )
  typed.post(
    '/reviews/:id/withdraw',
    { schema: { tags, params, body: Withdrawing, response: { 200: reviews.Row } } },
    async (request) => {
      const { body } = await idempotently(db, request, true, async (tx) => {
        const row = await find(tx, request.params.id, true)
        if (!row.editions) throw fieldProblem('state', 'a review that was published: a draft is deleted', 409)
        return {
          status: 200,
          body: await set(tx, row.id, {
            state: 'withdrawn',
            withdrawnOn: dayOfServer(),
            withdrawnWhy: request.body.why,
          }),
        }
      })
      return body
    },
  )
}

/** What was published, its photos, and what has moved since. */
function registerEditions(typed: Typed, db: Db): void {
  typed.get('/reviews/:id/editions', { schema: { tags, params } }, async ({ params: { id } }) => {
    await find(db, id)
    const items = await db
      .select()
      .from(reviewEdition)
      .where(eq(reviewEdition.reviewId, id))
      .orderBy(asc(reviewEdition.number))
    return { items }
  })
  typed.get(
    '/reviews/:id/photos/:photoId',
    { schema: { tags, params: z.object({ id: Id, photoId: Id }) } },
    async ({ params: { id, photoId } }, reply) => {
      const [kept] = await db
        .select({ full: reviewPhoto.full })
        .from(reviewPhoto)
        .where(and(eq(reviewPhoto.reviewId, id), eq(reviewPhoto.photoId, photoId)))
      const [row] = kept
        ? [kept]
        : await db
            .select({ full: photo.full })
            .from(photo)
            .where(and(eq(photo.id, photoId), isNull(photo.deletedAt)))
      if (!row) throw problem(404, 'not-found', 'There is no such photo')
      return reply.header('cache-control', 'private, max-age=3600').type('image/jpeg').send(row.full)
    },
  )
  typed.get('/reviews/:id/moved', { schema: { tags, params } }, async ({ params: { id } }) => {
    const row = await find(db, id)
    const [last] = await db
      .select({ snapshot: reviewEdition.snapshot })
      .from(reviewEdition)
      .where(eq(reviewEdition.reviewId, id))
      .orderBy(desc(reviewEdition.number))
      .limit(1)
    const now = await taken(db, row.modelId)
    return {
      since: (last?.snapshot ?? row.draft).on,
      items: movedSince((last?.snapshot ?? row.draft).sheet, now.sheet),
    }
  })
}

/** Reviews: words round numbers that are taken here and never changed once they are published. */
export function registerReviews(app: FastifyInstance, db: Db): void {
  const typed = typedOf(app)
  registerDrafts(typed, db)
  registerPublishing(typed, db)
  registerEditions(typed, db)
  registerShares(app, db, find)
}

const wordsOf = ({ title, intro, words, buy, buyWhy }: Row): EditedWords => ({
  title,
  intro,
  words,
  buy,
  buyWhy,
})

type Find = (tx: Db | Tx, id: string, lock?: boolean) => Promise<Row>

/** A link that was made or taken back, as the history has it: never with its secret. */
const deedOfShare = (
  action: 'made' | 'deleted',
  { id, label, expiresOn }: typeof reviewShare.$inferSelect,
  { title, modelId }: Row,
): Deed => ({
  action,
  resource: 'shares',
  row: { id, modelId, name: label || title },
  ...(action === 'made' && { after: { expiresOn } }),
})

/** Links that read one review without an account. */
function registerShares(app: FastifyInstance, db: Db, find: Find): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['reviews']
  const params = z.object({ id: Id })
  const shown = ({ secretHash: _, reviewId: _r, ...s }: typeof reviewShare.$inferSelect): ReviewShare =>
    travelling(s) as ReviewShare
  typed.get(
    '/reviews/:id/shares',
    { schema: { tags, params, response: { 200: z.object({ items: z.array(ReviewShare) }) } } },
    async ({ params: { id } }) => {
      const rows = await db
        .select()
        .from(reviewShare)
        .where(eq(reviewShare.reviewId, id))
        .orderBy(desc(reviewShare.createdAt))
      return { items: rows.map(shown) }
    },
  )
  typed.post(
    '/reviews/:id/shares',
    {
      schema: {
        tags,
        params,
        body: NewShare,
        response: { 201: z.object({ share: ReviewShare, secret: z.string() }) },
      },
    },
    async (request, reply) => {
      const row = await find(db, request.params.id)
      if (!row.editions) throw fieldProblem('state', 'a review that was published', 409)
      const { label, expiresOn } = request.body
      if (expiresOn !== null && expiresOn < dayOfServer()) throw fieldProblem('expiresOn', 'today or later')
      const secret = newSecret(SECRET)
      const share = await asPerson(db, request, async (tx) => {
        const [made] = await tx
          .insert(reviewShare)
          .values({ id: randomUUID(), reviewId: row.id, label, expiresOn, secretHash: hashOf(secret) })
          .returning()
        if (!made) throw problem(500, 'fault', 'The link was not written')
        await remember(tx, [deedOfShare('made', made, row)])
        return made
      })
      return reply.code(201).send({ share: shown(share), secret })
    },
  )
  typed.post('/shares/:id/revoke', { schema: { tags, params, response: { 200: ReviewShare } } }, (request) =>
    asPerson(db, request, async (tx) => {
      const [was] = await tx
        .select()
        .from(reviewShare)
        .where(eq(reviewShare.id, request.params.id))
        .for('update')
      if (!was) throw problem(404, 'not-found', 'There is no such link')
      if (was.revokedAt) return shown(was)
      const [share] = await tx
        .update(reviewShare)
        .set({ revokedAt: new Date() })
        .where(eq(reviewShare.id, was.id))
        .returning()
      const [of] = await tx.select().from(review).where(eq(review.id, was.reviewId))
      if (!share || !of) throw problem(404, 'not-found', 'There is no such link')
      await remember(tx, [deedOfShare('deleted', share, of)])
      return shown(share)
    }),
  )
}
