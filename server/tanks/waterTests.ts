import { Id, WaterTestPage } from '@ypsometer/contract'
import { and, asc, eq, gt, isNotNull, isNull, or } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { model, tank, visit } from '../db/schema'

/** Tests on a page. */
const PAGE = 1000

/** Water tests that visits to filters on tanks have found: what rules are put on trial by. */
export function registerWaterTests(app: FastifyInstance, db: Db): void {
  app.withTypeProvider<ZodTypeProvider>().get(
    '/water-tests',
    {
      schema: {
        tags: ['tanks'],
        querystring: z.object({ after: Id.optional() }),
        response: { 200: WaterTestPage },
      },
    },
    async ({ query }) => {
      const rows = await db
        .select({
          id: visit.id,
          tankId: tank.id,
          on: visit.on,
          ammonia: visit.ammonia,
          nitrite: visit.nitrite,
          binder: visit.binder,
        })
        .from(visit)
        .innerJoin(tank, and(eq(tank.id, visit.tankId), isNull(tank.deletedAt)))
        .innerJoin(model, and(eq(model.id, visit.modelId), isNull(model.deletedAt)))
        .where(
          and(
            isNull(visit.deletedAt),
            or(isNotNull(visit.ammonia), isNotNull(visit.nitrite)),
            query.after ? gt(visit.id, query.after) : undefined,
          ),
        )
        .orderBy(asc(visit.id))
        .limit(PAGE + 1)
      const page = rows.slice(0, PAGE)
      return {
        items: page.map(({ id: _id, ...test }) => test),
        next: rows.length > PAGE ? (page.at(-1)?.id ?? null) : null,
      }
    },
  )
}
