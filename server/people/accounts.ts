import type { PersonRow, Role } from '@ypsometer/contract'
import { PASS_PURPOSES } from '@ypsometer/contract'
import { and, asc, count, eq, isNull, max, sql } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import type { Db, Tx } from '../db/client'
import { account, pass, session } from '../db/schema'
import { fieldProblem, problem } from '../http/problems'
import { hashOf, newSecret } from '../http/secrets'

/** Any number, as long as every server of a bench takes the same one. */
const PEOPLE_LOCK = 4681
/** One change of people at a time: two owners who remove each other are told one after the other. */
export const alone = (tx: Tx) => tx.execute(sql`select pg_advisory_xact_lock(${PEOPLE_LOCK})`)

/** How long a one-time link holds (h). */
export const PASS_HOURS = 48

type Account = typeof account.$inferSelect

/** Everyone of the bench, or one of them. */
export async function people(db: Db | Tx, id?: string): Promise<PersonRow[]> {
  const rows = await db
    .select({
      id: account.id,
      name: account.name,
      role: account.role,
      createdAt: account.createdAt,
      joined: sql<boolean>`${account.passwordHash} is not null`,
      seenAt: max(session.seenAt),
      sessions: count(session.id),
    })
    .from(account)
    .leftJoin(session, eq(session.accountId, account.id))
    .where(and(isNull(account.removedAt), id === undefined ? undefined : eq(account.id, id)))
    .groupBy(account.id)
    .orderBy(asc(account.createdAt), asc(account.id))
  return rows.map((r) => ({
    ...r,
    createdAt: r.createdAt.toISOString(),
    seenAt: r.seenAt?.toISOString() ?? null,
  }))
}

/** @throws a problem (404) where there is no such person, or they were removed. */
export async function personOf(tx: Db | Tx, id: string): Promise<Account> {
  const [row] = await tx
    .select()
    .from(account)
    .where(and(eq(account.id, id), isNull(account.removedAt)))
  if (!row) throw problem(404, 'not-found', 'There is no such person')
  return row
}

/** @throws a problem naming `name` where somebody is called so. */
export async function addAccount(
  tx: Tx,
  row: { readonly name: string; readonly role: Role; readonly passwordHash?: string },
): Promise<string> {
  await free(tx, row.name)
  const id = randomUUID()
  await tx.insert(account).values({ id, ...row })
  return id
}

export async function free(tx: Tx, name: string, but = ''): Promise<void> {
  const [taken] = await tx
    .select({ id: account.id })
    .from(account)
    .where(and(sql`lower(${account.name}) = lower(${name})`, isNull(account.removedAt)))
  if (taken && taken.id !== but)
    throw fieldProblem('name', 'a name not in use here: people sign in with it', 409)
}

/** @throws a problem where nobody would be left to look after people. */
export async function keepsAnOwner(tx: Tx): Promise<void> {
  const [left] = await tx
    .select({ n: count() })
    .from(account)
    .where(and(eq(account.role, 'owner'), isNull(account.removedAt)))
  if (!left?.n)
    throw problem(409, 'last-owner', 'Somebody must own the bench', {
      detail: 'Make somebody else an owner first.',
    })
}

/** A one-time link for a person; those they had before are worth nothing. */
export async function makePass(
  tx: Tx,
  accountId: string,
  purpose: (typeof PASS_PURPOSES)[number],
): Promise<{ secret: string; endsAt: string }> {
  const secret = newSecret()
  const endsAt = new Date(Date.now() + PASS_HOURS * 3_600_000)
  await tx.delete(pass).where(and(eq(pass.accountId, accountId), isNull(pass.usedAt)))
  await tx.insert(pass).values({ id: randomUUID(), accountId, purpose, secretHash: hashOf(secret), endsAt })
  return { secret, endsAt: endsAt.toISOString() }
}

/**
 * The one-time link of a secret and the person it is for.
 * @throws a problem (404) where it was used, has ended, or never was: which, is not told.
 */
export async function passOf(tx: Db | Tx, secret: string) {
  const [found] = await tx
    .select({ id: pass.id, purpose: pass.purpose, person: account })
    .from(pass)
    .innerJoin(account, eq(account.id, pass.accountId))
    .where(
      and(
        eq(pass.secretHash, hashOf(secret)),
        isNull(pass.usedAt),
        sql`${pass.endsAt} > now()`,
        isNull(account.removedAt),
      ),
    )
  if (!found)
    throw problem(404, 'no-such-link', 'This link no longer holds', {
      detail: `A link holds once, and for ${PASS_HOURS} h. Ask an owner for another one.`,
    })
  return found
}
