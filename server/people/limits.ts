import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import type { Db } from '../db/client'
import { problem } from '../http/problems'

/** Tries that an account and an address have within `WINDOW` (s). */
export const TRIES = { account: 10, address: 50 } as const
export const WINDOW = 15 * 60

/** Counts tries to sign in, for all servers of a bench together, and refuses those that are too many. */
export class SignInLimits {
  private readonly account
  private readonly address

  constructor(db: Db) {
    const by = (keyPrefix: string, points: number) =>
      new RateLimiterPostgres({
        storeClient: db.$client,
        tableName: 'sign_in_try',
        tableCreated: true,
        clearExpiredByTimeout: false,
        keyPrefix,
        points,
        duration: WINDOW,
      })
    this.account = by('account', TRIES.account)
    this.address = by('address', TRIES.address)
  }

  /** Counts a try before it is looked at, so that many at once are no way round. @throws a problem (429). */
  async count(address: string, name?: string): Promise<void> {
    try {
      await this.address.consume(address)
      if (name !== undefined) await this.account.consume(keyOf(name))
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error
      const minutes = Math.max(1, Math.ceil(error.msBeforeNext / 60_000))
      throw problem(429, 'too-many-tries', 'Too many tries to sign in', {
        detail: `Try again in ${minutes} min, or ask an owner for a one-time link.`,
      })
    }
  }

  /** A try that was right counts for nothing. */
  async forgive(address: string, name: string): Promise<void> {
    await this.account.delete(keyOf(name))
    await this.address.reward(address)
  }
}

/** The account a name means, however it is written. */
const keyOf = (name: string): string => name.trim().toLowerCase().slice(0, 100)
