import { SessionList } from '@ypsometer/contract'
import { and, desc, eq, ne } from 'drizzle-orm'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { randomUUID } from 'node:crypto'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { session } from '../db/schema'
import { problem } from '../http/problems'
import { cookieName, type Door } from './identity'
import { hashOf, newSecret } from '../http/secrets'

/** A session ends after so long, however much it is used (days). */
export const LONGEST_DAYS = 90
const DAY = 86_400_000

/** Signs a browser in: always with a new secret, so that one planted before is worth nothing. */
export async function openSession(
  db: Db | Tx,
  door: Door,
  request: FastifyRequest,
  reply: FastifyReply,
  accountId: string,
): Promise<void> {
  // What it had before is not left open behind it.
  if (request.sessionId) await db.delete(session).where(eq(session.id, request.sessionId))
  const secret = newSecret()
  await db.insert(session).values({
    id: randomUUID(),
    accountId,
    secretHash: hashOf(secret),
    endsAt: new Date(Date.now() + LONGEST_DAYS * DAY),
    address: request.ip,
    agent: (request.headers['user-agent'] ?? '').slice(0, 200),
  })
  void reply.setCookie(cookieName(door.secure), secret, {
    path: '/',
    httpOnly: true,
    sameSite: 'strict',
    secure: door.secure,
    maxAge: (LONGEST_DAYS * DAY) / 1000,
  })
}

/** A person's sessions: seen, and ended one by one or all but this one. */
export function registerSessions(app: FastifyInstance, db: Db, door: Door): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const tags = ['people']
  typed.delete(
    '/session',
    { config: { access: 'anyone' }, schema: { tags, response: { 204: z.null() } } },
    async (request, reply) => {
      if (request.sessionId) await db.delete(session).where(eq(session.id, request.sessionId))
      return reply
        .clearCookie(cookieName(door.secure), { path: '/', secure: door.secure, sameSite: 'strict' })
        .header('clear-site-data', '"cache"')
        .code(204)
        .send(null)
    },
  )
  typed.get(
    '/sessions',
    { schema: { tags, response: { 200: SessionList } } },
    async ({ person, sessionId }) => {
      const rows = await db
        .select()
        .from(session)
        .where(eq(session.accountId, person?.id ?? ''))
        .orderBy(desc(session.seenAt))
      return {
        items: rows.map(({ id, createdAt, seenAt, endsAt, address, agent }) => ({
          id,
          createdAt: createdAt.toISOString(),
          seenAt: seenAt.toISOString(),
          endsAt: endsAt.toISOString(),
          address,
          agent,
          here: id === sessionId,
        })),
      }
    },
  )
  typed.delete(
    '/sessions/:id',
    {
      config: { access: 'reader' },
      schema: { tags, params: z.object({ id: z.uuid() }), response: { 204: z.null() } },
    },
    async ({ person, params: { id } }, reply) => {
      const gone = await db
        .delete(session)
        .where(and(eq(session.id, id), eq(session.accountId, person?.id ?? '')))
        .returning({ id: session.id })
      if (!gone.length) throw problem(404, 'not-found', 'There is no such session of yours')
      return reply.code(204).send(null)
    },
  )
}

/** Ends all sessions of an account but one. */
export async function endSessions(tx: Db | Tx, accountId: string, but: string | null = null): Promise<void> {
  const of = eq(session.accountId, accountId)
  await tx.delete(session).where(but ? and(of, ne(session.id, but)) : of)
}
