import {
  FirstOwner,
  Me,
  NewPassword,
  NewPerson,
  PassLook,
  PassMade,
  PassSeen,
  PassUse,
  PeopleList,
  PersonPatch,
  PersonRow,
  SignIn,
  type Person,
} from '@ypsometer/contract'
import { and, eq, isNull, sql } from 'drizzle-orm'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import { z } from 'zod'
import type { Db, Tx } from '../db/client'
import { account, pass } from '../db/schema'
import { differences, remember } from '../db/remember'
import { asPerson } from '../http/idempotency'
import { fieldProblem, problem } from '../http/problems'
import { addAccount, alone, free, keepsAnOwner, makePass, passOf, people, personOf } from './accounts'
import { isOwned, may, type Door } from './identity'
import { knownDevice, markDevice } from './device'
import { SignInLimits } from './limits'
import { hashPassword, isPassword, isSoonGuessed } from './secrets'
import { endSessions, openSession, registerSessions } from './sessions'

const tags = ['people']
const params = z.object({ id: z.uuid() })
/** A route that anybody may call, signed in or not. */
const anyone = { config: { access: 'anyone' } } as const
const owner = { config: { access: 'owner' } } as const

/** @throws a problem naming the field when a password is one of the first that are tried. */
async function goodPassword(password: string, name: string, field = 'password'): Promise<string> {
  if (await isSoonGuessed(password, name))
    throw fieldProblem(field, 'a password that is harder to guess: a few words that do not belong together')
  return hashPassword(password)
}

/** Who is here, signing in, one-time links, and looking after people. */
export function registerPeople(app: FastifyInstance, db: Db, door: Door): void {
  const limits = new SignInLimits(db)
  registerSigningIn(app, db, door, limits)
  registerPasses(app, db, door, limits)
  registerSessions(app, db, door)
  registerLookingAfter(app, db)
}

const meOf = (request: FastifyRequest): Me => ({
  person: request.person,
  by: request.sessionId ? 'session' : request.person ? 'visitor' : null,
  // The door lets visitors in only while that is so.
  unowned: request.person !== null && request.sessionId === null,
})

const owned = () =>
  problem(409, 'owned', 'This bench has an owner', {
    detail: 'This bench has an owner by now: ask them for a way in.',
  })

/** Answer to somebody who has just come in. */
const signedIn = ({ id, name, role }: Person): Me => ({
  person: { id, name, role },
  by: 'session',
  unowned: false,
})

function registerSigningIn(app: FastifyInstance, db: Db, door: Door, limits: SignInLimits): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  typed.get('/me', { ...anyone, schema: { tags, response: { 200: Me } } }, async (request) => meOf(request))
  typed.post(
    '/session',
    { ...anyone, schema: { tags, body: SignIn, response: { 201: Me } } },
    async (request, reply) => {
      const name = request.body.name.trim()
      const [found] = await db
        .select()
        .from(account)
        .where(and(sql`lower(${account.name}) = lower(${name})`, isNull(account.removedAt)))
      const device = knownDevice(request, found)
      await limits.count(request.ip, name, device)
      if (!(await isPassword(found?.passwordHash ?? null, request.body.password)) || !found) {
        request.log.warn({ event: 'sign-in refused', address: request.ip }, 'people')
        throw problem(401, 'wrong-sign-in', 'Name and password do not go together', {
          errors: [{ field: 'password', message: 'the password of this name' }],
        })
      }
      await limits.forgive(request.ip, name, device)
      await openSession(db, door, request, reply, found.id)
      markDevice(reply, door, found)
      request.log.info({ event: 'signed in', by: found.name }, 'people')
      return reply.code(201).send(signedIn(found))
    },
  )
  typed.post(
    '/me/password',
    { config: { access: 'reader' }, schema: { tags, body: NewPassword, response: { 204: z.null() } } },
    async (request, reply) => {
      const me = await personOf(db, request.person?.id ?? '')
      await limits.count(request.ip, me.name)
      if (!(await isPassword(me.passwordHash, request.body.password)))
        throw fieldProblem('password', 'your present password')
      await limits.forgive(request.ip, me.name)
      const passwordHash = await goodPassword(request.body.next, me.name, 'next')
      await db.transaction(async (tx) => {
        await tx.update(account).set({ passwordHash }).where(eq(account.id, me.id))
        await endSessions(tx, me.id, request.sessionId)
      })
      return reply.code(204).send(null)
    },
  )
  typed.post(
    '/people/first',
    { ...anyone, schema: { tags, body: FirstOwner, response: { 201: Me } } },
    async (request, reply) => {
      // Only a machine's own visitor, whom the door lets in while nobody owns the bench. Whoever comes later, with the
      // form still open, is told that, not that they have been signed out.
      if (!request.person || request.sessionId) throw owned()
      const { name, password } = request.body
      const passwordHash = await goodPassword(password, name)
      const id = await db.transaction(async (tx) => {
        await alone(tx)
        if (await isOwned(tx)) throw owned()
        return addAccount(tx, { name, role: 'owner', passwordHash })
      })
      await openSession(db, door, request, reply, id)
      return reply.code(201).send(signedIn({ id, name, role: 'owner' }))
    },
  )
}

/** One-time links: what one is for, and using it. Their secrets travel in bodies, never in addresses. */
function registerPasses(app: FastifyInstance, db: Db, door: Door, limits: SignInLimits): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  typed.post(
    '/passes/look',
    { ...anyone, schema: { tags, body: PassLook, response: { 200: PassSeen } } },
    async (request) => {
      await limits.count(request.ip)
      const { purpose, person } = await passOf(db, request.body.secret)
      return { purpose, name: person.name, role: person.role }
    },
  )
  typed.post(
    '/passes/use',
    { ...anyone, schema: { tags, body: PassUse, response: { 201: Me } } },
    async (request, reply) => {
      await limits.count(request.ip)
      const { secret, password } = request.body
      const seen = await passOf(db, secret)
      const passwordHash = await goodPassword(password, seen.person.name)
      const person = await db.transaction(async (tx) => {
        await alone(tx)
        const { id: used, person } = await passOf(tx, secret)
        await tx.update(pass).set({ usedAt: new Date() }).where(eq(pass.id, used))
        await tx.update(account).set({ passwordHash }).where(eq(account.id, person.id))
        // Whoever had the old password is out.
        await endSessions(tx, person.id)
        return person
      })
      await openSession(db, door, request, reply, person.id)
      return reply.code(201).send(signedIn(person))
    },
  )
}

/** Deeds of an owner: inviting, changing and removing people, ending their sessions, letting them in again. */
function registerLookingAfter(app: FastifyInstance, db: Db): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  /** One at a time, and only for one who is an owner still: the other owner may have been quicker. */
  const asOwner = <T>(request: FastifyRequest, what: string, work: (tx: Tx) => Promise<T>): Promise<T> =>
    asPerson(db, request, async (tx) => {
      await alone(tx)
      const me = await personOf(tx, request.person?.id ?? '').catch(() => null)
      if (me?.role !== 'owner') throw problem(403, 'not-yours', 'That needs an owner')
      const done = await work(tx)
      await keepsAnOwner(tx)
      request.log.info({ event: what, by: me.name }, 'people')
      return done
    })
  const changed = (
    request: FastifyRequest,
    what: string,
    id: string,
    work: (tx: Tx) => Promise<void>,
  ): Promise<PersonRow | undefined> =>
    asOwner(request, what, async (tx) => {
      await personOf(tx, id)
      await work(tx)
      return (await people(tx, id))[0]
    })
  typed.get('/people', { schema: { tags, response: { 200: PeopleList } } }, async ({ person }) => {
    const items = await people(db)
    return {
      items: may(person, 'owner') ? items : items.map((p) => ({ ...p, seenAt: null, sessions: 0 })),
    }
  })
  const passFor = (purpose: 'invitation' | 'recovery') => async (tx: Tx, id: string) => {
    const made = await makePass(tx, id, purpose)
    const [person] = await people(tx, id)
    if (!person) throw problem(404, 'not-found', 'There is no such person')
    return { person, ...made }
  }
  typed.post(
    '/people',
    { ...owner, schema: { tags, body: NewPerson, response: { 201: PassMade } } },
    async (request, reply) => {
      const made = await asOwner(request, 'invited', async (tx) => {
        const id = await addAccount(tx, request.body)
        const { name, role } = request.body
        await remember(tx, [{ action: 'made', resource: 'people', row: { id, name }, after: { role } }])
        return passFor('invitation')(tx, id)
      })
      return reply.code(201).send(made)
    },
  )
  typed.post(
    '/people/:id/link',
    { ...owner, schema: { tags, params, response: { 201: PassMade } } },
    async (request, reply) => {
      const made = await asOwner(request, 'link made', async (tx) => {
        const { id, passwordHash } = await personOf(tx, request.params.id)
        return passFor(passwordHash ? 'recovery' : 'invitation')(tx, id)
      })
      return reply.code(201).send(made)
    },
  )
  typed.patch(
    '/people/:id',
    { ...owner, schema: { tags, params, body: PersonPatch, response: { 200: PersonRow } } },
    async (request) => {
      const {
        body,
        params: { id },
      } = request
      return changed(request, 'changed', id, async (tx) => {
        if (body.name !== undefined) await free(tx, body.name, id)
        const was = await personOf(tx, id)
        const row = { id, name: body.name ?? was.name }
        await remember(tx, [
          {
            action: 'changed',
            resource: 'people',
            row,
            ...differences({ name: was.name, role: was.role }, body),
          },
        ])
        if (Object.keys(body).length) await tx.update(account).set(body).where(eq(account.id, id))
      })
    },
  )
  typed.delete(
    '/people/:id',
    { ...owner, schema: { tags, params, response: { 204: z.null() } } },
    async (request, reply) => {
      const { id } = request.params
      await changed(request, 'removed', id, async (tx) => {
        const { name, role } = await personOf(tx, id)
        await remember(tx, [{ action: 'deleted', resource: 'people', row: { id, name }, before: { role } }])
        await tx.update(account).set({ removedAt: new Date(), passwordHash: null }).where(eq(account.id, id))
        await tx.delete(pass).where(eq(pass.accountId, id))
        await endSessions(tx, id)
      })
      return reply.code(204).send(null)
    },
  )
  typed.delete(
    '/people/:id/sessions',
    { ...owner, schema: { tags, params, response: { 204: z.null() } } },
    async (request, reply) => {
      const { id } = request.params
      await changed(request, 'sessions ended', id, (tx) => endSessions(tx, id))
      return reply.code(204).send(null)
    },
  )
}
