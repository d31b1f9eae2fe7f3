import type { FastifyInstance } from 'fastify'
import { createHash, timingSafeEqual } from 'node:crypto'
import { collectDefaultMetrics, Gauge, Histogram, Registry } from 'prom-client'
import type { Db } from '../db/client'
import { problem } from './problems'

const digest = (text: string): Buffer => createHash('sha256').update(text).digest()

/**
 * `GET /metrics`, in the text format of Prometheus, for whoever sends the token as a bearer; without a token set there
 * is nothing at this address. Counts requests by route, not by address: no id, name or secret is in them.
 */
export function registerMetrics(app: FastifyInstance, db: Db, token: string | undefined): void {
  if (!token) return
  const registry = new Registry()
  collectDefaultMetrics({ register: registry })
  const seconds = new Histogram({
    name: 'http_request_duration_seconds',
    help: 'Time from request to answer',
    labelNames: ['method', 'route', 'status'],
    buckets: [0.005, 0.02, 0.1, 0.5, 2, 10],
    registers: [registry],
  })
  new Gauge({
    name: 'database_connections',
    help: 'Connections to the database, and requests that wait for one',
    labelNames: ['state'],
    registers: [registry],
    collect() {
      const { totalCount, idleCount, waitingCount } = db.$client
      this.set({ state: 'busy' }, totalCount - idleCount)
      this.set({ state: 'idle' }, idleCount)
      this.set({ state: 'waiting' }, waitingCount)
    },
  })
  app.addHook('onResponse', async (request, reply) =>
    seconds.observe(
      {
        method: request.method,
        route: request.routeOptions.url ?? 'none',
        status: String(reply.statusCode),
      },
      reply.elapsedTime / 1000,
    ),
  )
  app.get('/metrics', { schema: { hide: true } }, async (request, reply) => {
    const sent = /^Bearer (.+)$/.exec(request.headers.authorization ?? '')?.[1] ?? ''
    if (!timingSafeEqual(digest(sent), digest(token)))
      throw problem(401, 'token-needed', 'The metrics need their token')
    return reply.header('content-type', registry.contentType).send(await registry.metrics())
  })
}
