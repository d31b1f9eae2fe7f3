import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible'
import type { FastifyReply, FastifyRequest } from 'fastify'
import type { Db } from '../db/client'
import { problem } from '../http/problems'

/** Tries that an account and an address have within `WINDOW` (s). */
export const TRIES = { account: 10, address: 50 } as const
export const WINDOW = 15 * 60

const limiter = (db: Db, keyPrefix: string, points: number, duration: number) =>
  new RateLimiterPostgres({
    storeClient: db.$client,
    tableName: 'sign_in_try',
    tableCreated: true,
    clearExpiredByTimeout: false,
    keyPrefix,
    points,
    duration,
  })

/** Counts readings of shared links, for all servers of a bench together. */
export class ReadingLimits {
  private readonly by

  /** @param most Readings that an address has a minute. */
  constructor(db: Db, name: string, most: number) {
    this.by = limiter(db, name, most, 60)
  }

  /** @throws a problem (429), and says when to come again. */
  async count({ ip }: FastifyRequest, reply: FastifyReply): Promise<void> {
    try {
      await this.by.consume(ip)
    } catch (error) {
      if (!(error instanceof RateLimiterRes)) throw error
      const seconds = Math.max(1, Math.ceil(error.msBeforeNext / 1000))
      reply.header('retry-after', seconds)
      throw problem(429, 'too-many', 'Too many readings from here', {
        detail: `Try again in ${seconds} s.`,
      })
    }
  }
}

/** Counts tries to sign in, for all servers of a bench together, and refuses those that are too many. */
export class SignInLimits {
  private readonly account
  private readonly address
  private readonly device

  constructor(db: Db) {
    this.account = limiter(db, 'account', TRIES.account, WINDOW)
    this.address = limiter(db, 'address', TRIES.address, WINDOW)
    this.device = limiter(db, 'device', TRIES.account, WINDOW)
  }

  /**
   * Counts a try before it is looked at, so that many at once are no way round. A device that has signed this name in
   * before has tries of its own: nobody who knows the name alone can use them up. @throws a problem (429).
   */
  async count(address: string, name?: string, device?: string): Promise<void> {
    try {
      if (device !== undefined) return void (await this.device.consume(device))
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
  async forgive(address: string, name: string, device?: string): Promise<void> {
    if (device !== undefined) return void (await this.device.delete(device))
    await this.account.delete(keyOf(name))
    await this.address.reward(address)
  }
}

/** The account a name means, however it is written. */
const keyOf = (name: string): string => name.trim().toLowerCase().slice(0, 100)
