import type { Person } from '@ypsometer/contract'
import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { Db, Tx } from '../db/client'
import { account, session } from '../db/schema'
import { problem } from '../http/problems'
import { hashOf } from '../http/secrets'

/** Who may call a route. */
export type Access = 'anyone' | 'reader' | 'editor' | 'owner'

declare module 'fastify' {
  interface FastifyRequest {
    /** Who asks; nobody on a route for anyone. */
    person: Person | null
    /** The session they came by; none for a visitor of this machine's own bench. */
    sessionId: string | null
  }
  interface FastifyContextConfig {
    /** Who may call it: a reader where it only reads, an editor otherwise, unless it says so. */
    access?: Access
  }
}

/** How people come in. */
export interface Door {
  /**
   * Whoever sits at this machine is let in as this person while nobody owns the bench; null where everyone signs in.
   */
  readonly visitor: Person | null
  /** Cookies go over TLS only. */
  readonly secure: boolean
}

/** A visitor of this machine's own bench: it needs no account. */
export const visitorOf = (name: string): Person => ({
  id: '00000000-0000-4000-8000-000000000001',
  name,
  role: 'editor',
})

/** A session unused for so long ends (days). */
export const IDLE_DAYS = 14
/** Between two times that it is noted that a session is in use (s). */
const SEEN_EVERY = 60

/** The name of the cookie; with its prefix a browser takes it over TLS only, and from this host alone. */
export const cookieName = (secure: boolean): string => (secure ? '__Host-ypsometer' : 'ypsometer')

const RANKS: readonly Access[] = ['anyone', 'reader', 'editor', 'owner']
/** May a person of this role do what needs that one? */
export const may = (person: Person | null, needed: Access): boolean =>
  RANKS.indexOf(person?.role ?? 'anyone') >= RANKS.indexOf(needed)

/** Does somebody own this bench? */
export async function isOwned(db: Db | Tx): Promise<boolean> {
  const [owner] = await db
    .select({ id: account.id })
    .from(account)
    .where(and(eq(account.role, 'owner'), isNull(account.removedAt)))
    .limit(1)
  return owner !== undefined
}

/** The session of a secret with its person, when it has not ended. */
async function ofSecret(db: Db, secret: string) {
  const [found] = await db
    .select({
      session: session.id,
      seenAt: session.seenAt,
      person: { id: account.id, name: account.name, role: account.role },
    })
    .from(session)
    .innerJoin(account, eq(account.id, session.accountId))
    .where(
      and(
        eq(session.secretHash, hashOf(secret)),
        gt(session.endsAt, sql`now()`),
        gt(session.seenAt, sql`now() - make_interval(days => ${IDLE_DAYS})`),
        isNull(account.removedAt),
      ),
    )
  return found
}

/** Finds out who asks. */
async function identify(db: Db, door: Door, request: FastifyRequest): Promise<void> {
  const secret = request.cookies[cookieName(door.secure)]
  const found = secret ? await ofSecret(db, secret) : undefined
  if (found) {
    request.person = found.person
    request.sessionId = found.session
    if (Date.now() - found.seenAt.getTime() > SEEN_EVERY * 1000)
      await db.update(session).set({ seenAt: new Date() }).where(eq(session.id, found.session))
  } else if (door.visitor && !(await isOwned(db))) request.person = door.visitor
}

/** Another window of the browser has signed somebody else in: nothing is written under their name. */
const otherWriter = () =>
  problem(409, 'other-writer', 'Somebody else is signed in here now', {
    detail: 'Nothing was written: what you typed waits until you are back.',
  })

export const signInFirst = () =>
  problem(401, 'sign-in', 'Sign in first', { detail: 'Your session has ended, or there was none.' })

const whoever = (request: FastifyRequest): Access =>
  request.routeOptions.config.access ?? (['GET', 'HEAD'].includes(request.method) ? 'reader' : 'editor')

/**
 * Lets in whoever may come in: every route of the API, unless it says otherwise, is a reader's where it reads and an
 * editor's where it writes.
 */
export function registerDoor(app: FastifyInstance, db: Db, door: Door): void {
  app.decorateRequest('person', null)
  app.decorateRequest('sessionId', null)
  app.addHook('onRequest', async (request) => {
    if (request.is404) return
    const access = whoever(request)
    if (access === 'anyone' && !request.headers.cookie && !door.visitor) return
    await identify(db, door, request)
    const writer = request.headers['x-writer']
    if (request.person && writer !== undefined && writer !== request.person.id) throw otherWriter()
    if (may(request.person, access)) return
    if (!request.person) throw signInFirst()
    throw problem(403, 'not-yours', `That needs ${access === 'owner' ? 'an owner' : 'an editor'}`, {
      detail: `You are here as ${request.person.role}: ${
        access === 'owner'
          ? 'only an owner looks after people.'
          : 'you can read everything and change nothing.'
      }`,
    })
  })
}
