import { Day, KeptFilterList } from '@ypsometer/contract'
import { choresOf, type Chore } from '@ypsometer/core/upkeep/plan'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import { CalcPool } from '../calc/pool'
import type { Db } from '../db/client'
import { setting, tick } from '../db/schema'
import type { Specials } from '../http/rows'
import { may, signInFirst } from '../people/identity'
import { hashOf, newSecret } from '../http/secrets'
import { calendarOf } from './calendar'
import { keptFilters } from './filters'

/** Ticks older than this are not needed to tell what is due. */
const LOOK_BACK = 800
const RECENT = sql`${tick.on} > current_date - ${LOOK_BACK}::int`

const LINK = 'calendar-link'
/** Is it the key of the last link that was made? */
async function isKey(db: Db, key: string | undefined): Promise<boolean> {
  if (key === undefined) return false
  const [row] = await db.select({ value: setting.value }).from(setting).where(eq(setting.name, LINK))
  return row?.value === hashOf(key)
}

/** Specials of ticks: they are told by day and task, and old ones are not needed to tell what is due. */
export const TICK_SPECIALS: Specials = {
  ticks: {
    deterministicId: true,
    list: { by: sql<string>`${tick.on}::text`, where: RECENT },
  },
}

/** Upkeep: what was ticked, what filters ask for, and the calendar for other programs. */
export function registerUpkeep(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['upkeep']
  const pool = new CalcPool()
  app.addHook('onClose', () => pool.close())
  typed.get('/upkeep/filters', { schema: { tags, response: { 200: KeptFilterList } } }, async () => ({
    items: [...(await keptFilters(db, pool)).filters],
  }))
  typed.post(
    '/upkeep/link',
    { schema: { tags, response: { 201: z.object({ key: z.string() }) } } },
    async (_request, reply) => {
      const key = newSecret()
      const value = hashOf(key)
      await db
        .insert(setting)
        .values({ name: LINK, value })
        .onConflictDoUpdate({ target: setting.name, set: { value } })
      return reply.code(201).send({ key })
    },
  )
  typed.get(
    '/upkeep.ics',
    {
      // A calendar of another program cannot sign in: it comes with the key of a link.
      config: { access: 'anyone' },
      schema: {
        tags,
        querystring: z.object({
          place: z.string().max(120).optional(),
          from: Day.optional(),
          key: z.string().max(100).optional(),
        }),
      },
    },
    async ({ query, person }, reply) => {
      if (!may(person, 'reader') && !(await isKey(db, query.key))) throw signInFirst()
      const { house, tanks, filters } = await keptFilters(db, pool)
      const from = query.from ?? new Date().toISOString().slice(0, 10)
      const ticks = await db
        .select()
        .from(tick)
        .where(and(isNull(tick.deletedAt), RECENT))
      const wanted = tanks.filter((t) => query.place === undefined || t.place === query.place)
      const chores = wanted.flatMap((t): Chore[] => {
        const own = filters.filter((f) => f.tankId === t.id)
        return house ? [...choresOf(own, house.upkeep, t.createdAt.slice(0, 10))] : []
      })
      return reply
        .type('text/calendar; charset=utf-8')
        .header('content-disposition', 'inline; filename="maintenance.ics"')
        .send(calendarOf({ chores, ticks, tanks: wanted, filters, from }))
    },
  )
}
