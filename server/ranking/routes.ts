import { LatestRanking, Ranking, type RankingProgress } from '@ypsometer/contract'
import { and, asc, count, desc, eq, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { endsWith, type Changes } from '../changes'
import type { Db } from '../db/client'
import { ranking, rankingPart } from '../db/schema'
import { openEvents } from '../http/events'
import { idempotently } from '../http/idempotency'
import { problem } from '../http/problems'
import { Shared } from '../http/shared'
import { rankingBasis, startRanking } from './parts'

const params = z.object({ id: z.uuid() })
/** Between two looks at how far it is (ms). */
const LOOK = 400

/** How far a ranking is; null where there is none of that id. */
async function progressOf(db: Db, id: string): Promise<RankingProgress | null> {
  const [row] = await db
    .select({
      state: ranking.state,
      parts: count(rankingPart.position),
      done: sql<number>`count(${rankingPart.doneAt})::int`,
    })
    .from(ranking)
    .leftJoin(rankingPart, eq(rankingPart.rankingId, ranking.id))
    .where(eq(ranking.id, id))
    .groupBy(ranking.id)
  return row ?? null
}

async function whole(db: Db, id: string): Promise<z.infer<typeof Ranking>> {
  const [row] = await db.select().from(ranking).where(eq(ranking.id, id))
  const progress = await progressOf(db, id)
  if (!row || !progress) throw problem(404, 'not-found', 'There is no such ranking')
  const parts = await db
    .select({ result: rankingPart.result })
    .from(rankingPart)
    .where(and(eq(rankingPart.rankingId, id), eq(rankingPart.what, 'tank')))
    .orderBy(asc(rankingPart.position))
  return {
    id,
    ...progress,
    createdAt: row.createdAt.toISOString(),
    finishedAt: row.finishedAt?.toISOString() ?? null,
    models: row.models,
    stale: row.basis !== (await rankingBasis(db)),
    tanks: parts.flatMap((p) => p.result ?? []),
  }
}

/** Rankings of the whole shelf: started, looked at, followed by server-sent events, and stopped. */
export function registerRankings(app: FastifyInstance, db: Db, changes: Changes | null): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['rankings']
  const looks = new Shared<RankingProgress | null>()
  typed.post('/rankings', { schema: { tags, response: { 201: Ranking } } }, async (request, reply) => {
    const { body } = await idempotently(db, request, true, async (tx) => ({
      status: 201,
      body: { id: await startRanking(db, tx) },
    }))
    return reply.code(201).send(await whole(db, body.id))
  })
  typed.get('/rankings/latest', { schema: { tags, response: { 200: LatestRanking } } }, async () => {
    const [last] = await db.select({ id: ranking.id }).from(ranking).orderBy(desc(ranking.createdAt)).limit(1)
    return { ranking: last ? await whole(db, last.id) : null }
  })
  typed.get('/rankings/:id', { schema: { tags, params, response: { 200: Ranking } } }, (request) =>
    whole(db, request.params.id),
  )
  typed.post(
    '/rankings/:id/cancel',
    { schema: { tags, params, response: { 200: Ranking } } },
    async (request) => {
      await db
        .update(ranking)
        .set({ state: 'cancelled', finishedAt: new Date() })
        .where(and(eq(ranking.id, request.params.id), eq(ranking.state, 'running')))
      return whole(db, request.params.id)
    },
  )
  typed.get(
    '/rankings/:id/progress',
    { exposeHeadRoute: false, schema: { hide: true, params } },
    async (request, reply) => {
      const { id } = request.params
      if (!(await progressOf(db, id))) throw problem(404, 'not-found', 'There is no such ranking')
      const say = openEvents(reply)
      let last = ''
      let gone = false
      const end = (): void => {
        gone = true
        free()
        reply.raw.end()
      }
      const free = endsWith(changes, request, end)
      request.raw.on('close', end)
      reply.raw.on('error', end)
      const look = async (): Promise<void> => {
        const now = await looks.ask(id, () => progressOf(db, id)).catch(() => null)
        const text = JSON.stringify(now)
        if (gone) return
        if (now && text !== last) say((last = text))
        if (now && now.state !== 'running') return end()
        // All who follow it look at the same moments.
        setTimeout(() => void look(), LOOK - (Date.now() % LOOK)).unref()
      }
      void look()
      return reply
    },
  )
}
