import { ImportAnswer, ImportRequest, LogPoints, LogWindow, Id } from '@ypsometer/contract'
import { thinned } from '@ypsometer/core/bench/logs'
import { and, eq, isNull } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db } from '../db/client'
import { log, reading, trial } from '../db/schema'
import { remember, type Deed, type Named } from '../db/remember'
import { idempotently } from '../http/idempotency'
import { problem } from '../http/problems'
import { at, checkReferences, referencesOf } from '../http/references'
import { asMoments } from '../http/rows'
import { checkReading, logColumns } from './rows'

/** The points of a log between two times, as few as are asked for. */
function windowOf(
  { times, values }: z.infer<typeof LogPoints>,
  w: z.infer<typeof LogWindow>,
): z.infer<typeof LogPoints> {
  if (w.most === undefined && w.from === undefined && w.to === undefined) return { times, values }
  const points = times
    .map((time, i) => ({ time, value: values[i] ?? NaN }))
    .filter((p) => p.time >= (w.from ?? -Infinity) && p.time <= (w.to ?? Infinity))
  const kept = w.most === undefined ? points : thinned(points, Math.max(1, Math.floor((w.most - 2) / 2)))
  return { times: kept.map((p) => p.time), values: kept.map((p) => p.value) }
}

const made = (resource: Deed['resource'], rows: readonly Named[]): Deed[] =>
  rows.map((row) => ({ action: 'made', resource, row }))

/** Whole imports can be larger than one row. */
const IMPORT_LIMIT = 12 * 1024 * 1024

/** `POST /imports`: trials with their readings and logs in one transaction; and the points of a log. */
export function registerImports(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  typed.post(
    '/imports',
    {
      config: { heavy: 'short' },
      bodyLimit: IMPORT_LIMIT,
      schema: { tags: ['imports'], body: ImportRequest, response: { 201: ImportAnswer } },
    },
    async (request, reply) => {
      const { trials, readings, logs } = request.body
      readings.forEach((r, i) => checkReading(r, `readings.${i}.`))
      const answer = await idempotently(db, request, true, async (tx) => {
        const named = (name: 'trials' | 'readings' | 'logs', rows: readonly object[]) =>
          rows.flatMap((r, i) => at(`${name}.${i}`, referencesOf(name, r)))
        await checkReferences(tx, named('trials', trials))
        if (trials.length) await tx.insert(trial).values(trials)
        await checkReferences(tx, [...named('readings', readings), ...named('logs', logs)])
        if (readings.length) await tx.insert(reading).values(readings.map((r) => asMoments('readings', r)))
        for (const l of logs) await tx.insert(log).values(logColumns(l))
        await remember(tx, [...made('trials', trials), ...made('readings', readings), ...made('logs', logs)])
        return {
          status: 201,
          body: { trials: trials.length, readings: readings.length, logs: logs.length },
        }
      })
      return reply.code(201).send(answer.body)
    },
  )
  typed.get(
    '/logs/:id/points',
    {
      schema: {
        tags: ['logs'],
        params: z.object({ id: Id }),
        querystring: LogWindow,
        response: { 200: LogPoints },
      },
    },
    async (request, reply) => {
      const [row] = await db
        .select({ times: log.times, values: log.values })
        .from(log)
        .where(and(eq(log.id, request.params.id), isNull(log.deletedAt)))
      if (!row) throw problem(404, 'not-found', 'There is no such log')
      // The points of a log never change.
      return reply
        .header('cache-control', 'private, max-age=31536000, immutable')
        .send(windowOf(row, request.query))
    },
  )
}
