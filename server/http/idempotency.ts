import { eq } from 'drizzle-orm'
import type { FastifyRequest } from 'fastify'
import { createHash } from 'node:crypto'
import type { Db, Tx } from '../db/client'
import { idempotencyKey } from '../db/schema'
import { sign } from '../db/signing'
import { fieldProblem, problem } from './problems'

export interface Answer<T extends object> {
  readonly status: number
  readonly body: T
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/i

function keyOf(request: FastifyRequest, required: boolean): string | null {
  const key = request.headers['idempotency-key']
  if (typeof key === 'string' && UUID.test(key)) return key.toLowerCase()
  if (key === undefined && !required) return null
  throw fieldProblem('Idempotency-Key', 'a header with a UUID made for this one write', 400)
}

/** Which page a write comes from, so that the page is not told of it, and who writes, so that the history knows. */
function writerOf(request: FastifyRequest): Parameters<typeof sign>[1] {
  const page = request.headers['x-page']
  const { id = '', name = '' } = request.person ?? {}
  return { page: typeof page === 'string' && UUID.test(page) ? page : '', id, name }
}

/** A transaction in which whoever asks writes. */
export const asPerson = <T>(db: Db, request: FastifyRequest, work: (tx: Tx) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await sign(tx, writerOf(request))
    return work(tx)
  })

/**
 * Does `work` once per `Idempotency-Key`, in the same transaction as the key itself: a repeat gets the first answer,
 * another request under the same key is refused, and what was not answered was not written.
 */
export async function idempotently<T extends object>(
  db: Db,
  request: FastifyRequest,
  required: boolean,
  work: (tx: Tx) => Promise<Answer<T>>,
): Promise<Answer<T> & { replayed: boolean }> {
  const key = keyOf(request, required)
  if (!key) return { ...(await asPerson(db, request, work)), replayed: false }
  const route = `${request.method} ${request.url}`
  const requestHash = createHash('sha256')
    .update(String(request.headers['if-match'] ?? ''))
    .update(Buffer.isBuffer(request.body) ? request.body : JSON.stringify(request.body ?? null))
    .digest('hex')
  return asPerson(db, request, async (tx) => {
    const fresh = await tx
      .insert(idempotencyKey)
      .values({ key, route, requestHash, status: 0, answer: {} })
      .onConflictDoNothing()
      .returning({ key: idempotencyKey.key })
    if (!fresh.length) {
      const [seen] = await tx.select().from(idempotencyKey).where(eq(idempotencyKey.key, key))
      if (!seen || seen.route !== route || seen.requestHash !== requestHash)
        throw problem(422, 'key-reused', 'This Idempotency-Key was used for another write', {
          errors: [{ field: 'Idempotency-Key', message: 'a new UUID for each write' }],
        })
      // The route and the request are the same, so the answer kept is of the kind this work gives.
      return { status: seen.status, body: seen.answer as T, replayed: true }
    }
    const answer = await work(tx)
    await tx
      .update(idempotencyKey)
      .set({ status: answer.status, answer: answer.body })
      .where(eq(idempotencyKey.key, key))
    return { ...answer, replayed: false }
  })
}
