import type { FastifyReply, FastifyRequest } from 'fastify'
import { createHmac, timingSafeEqual } from 'node:crypto'
import type { Door } from './identity'

/** A device that has signed somebody in is known for so long (s). */
const KEPT = 365 * 86_400
const NAME = 'ypsometer-device'

/** The mark of a device for an account: good as long as its password is, and made by nobody without its hash. */
const markOf = (accountId: string, passwordHash: string): string =>
  createHmac('sha256', passwordHash).update(`device of ${accountId}`).digest('base64url')

/** Has this device signed this account in before? Its mark, or none. */
export function knownDevice(
  request: FastifyRequest,
  account: { readonly id: string; readonly passwordHash: string | null } | undefined,
): string | undefined {
  const given = request.cookies[NAME]
  if (!given || !account?.passwordHash) return undefined
  const mark = Buffer.from(markOf(account.id, account.passwordHash))
  const shown = Buffer.from(given)
  return shown.length === mark.length && timingSafeEqual(shown, mark) ? given : undefined
}

/** Leaves the mark on a device that has signed an account in. */
export function markDevice(
  reply: FastifyReply,
  { secure }: Door,
  account: { readonly id: string; readonly passwordHash: string | null },
): void {
  if (!account.passwordHash) return
  void reply.setCookie(NAME, markOf(account.id, account.passwordHash), {
    path: '/api/v1/session',
    httpOnly: true,
    sameSite: 'strict',
    secure,
    maxAge: KEPT,
  })
}
