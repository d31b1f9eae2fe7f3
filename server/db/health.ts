import type { FastifyInstance } from 'fastify'
import { connect, type Db } from './client'
import { isReady } from './migrate'

/**
 * Asks whether the database answers and is migrated, on a connection of its own: whoever reads and writes may
 * have taken all others, and a server that is busy lives. Who asks while one look is under way gets its answer.
 */
export function healthOf(app: FastifyInstance, db: Db): () => Promise<boolean> {
  const url = db.$client.options.connectionString
  const own = url ? connect(url, 1) : null
  app.addHook('onClose', () => own?.pool.end())
  let asking: Promise<boolean> | null = null
  return () =>
    (asking ??= isReady(own?.db ?? db).finally(() => {
      asking = null
    }))
}
