import { Presence, type Here } from '@ypsometer/contract'
import { sql } from 'drizzle-orm'
import type { FastifyInstance, FastifyRequest } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import pg from 'pg'
import { z } from 'zod'
import type { Db } from './db/client'
import { openEvents } from './http/events'

/** Longest wait (ms) before the database is listened to again after the connection was lost. */
const LONGEST_PAUSE = 5000
/** How often a stream with nothing to say says so (ms), so that what stands between keeps it open. */
const BEAT = 20_000
/** Longest wait (ms) for the database before a stream is opened all the same. */
const PATIENCE = 2000

/** One stream's way of being told. */
type Listener = (event: string) => void

/**
 * Listens to what the database says was written, by whichever server, and passes it on. A connection that is lost is
 * made again; what was missed meanwhile is made good by telling everyone that anything may have changed.
 */
export class Changes {
  private readonly listeners = new Set<Listener>()
  private client: pg.Client | null = null
  private closed = false
  private pause = 100
  private heard: () => void = () => undefined
  /** Resolves once the database is listened to for the first time: what is written from then on is told. */
  readonly listening = new Promise<void>((done) => (this.heard = done))

  constructor(private readonly url: string) {}

  /** Adds a listener; the database is listened to from the first one on. */
  watch(listener: Listener): () => void {
    this.listeners.add(listener)
    if (!this.client) void this.listen(false)
    return () => this.listeners.delete(listener)
  }

  async close(): Promise<void> {
    this.closed = true
    await this.client?.end().catch(() => undefined)
  }

  private tell(event: string): void {
    this.listeners.forEach((l) => l(event))
  }

  private async listen(again: boolean): Promise<void> {
    const client = new pg.Client({ connectionString: this.url, keepAlive: true })
    this.client = client
    let lost = false
    const retry = (): void => {
      if (lost || this.closed) return
      lost = true
      client.end().catch(() => undefined)
      setTimeout(() => void this.listen(true), this.pause).unref()
      this.pause = Math.min(LONGEST_PAUSE, this.pause * 2)
    }
    client.on('error', retry)
    client.on('end', retry)
    client.on('notification', ({ payload }) => payload && this.tell(payload))
    try {
      await client.connect()
      await client.query('listen record')
      this.pause = 100
      this.heard()
      if (again) this.tell('{"all":true}')
    } catch {
      retry()
    }
  }
}

/** Ends of sessions are for the server's own ears. */
const ENDED = /^\{"session" ?: ?"([^"]+)"\}$/
const OF_PEOPLE = /^\{"list" ?: ?"people"/

/** Ends a stream with the session it was asked under, or when a visitor's bench has an owner; gives what stops it. */
export const endsWith = (
  changes: Changes | null,
  { sessionId }: FastifyRequest,
  end: () => void,
): (() => void) =>
  changes?.watch((event) => {
    const ended = ENDED.exec(event)?.[1]
    if ((ended !== undefined && ended === sessionId) || (OF_PEOPLE.test(event) && !sessionId)) end()
  }) ?? (() => undefined)

/**
 * `GET /changes`: server-sent events, one for each model or list that was written to:
 * `{ "model": id, "by": page }`, `{ "list": "tanks", "by": page }`, or `{ "all": true }` after a gap; and
 * `{ "here": … }` for where another page is, which `POST /presence` tells. It ends with the session it was asked under.
 */
export function registerChanges(app: FastifyInstance, db: Db, changes: Changes | null): void {
  if (!changes) return
  app.get('/changes', { exposeHeadRoute: false, schema: { hide: true } }, async (request, reply) => {
    let tell: (event: string) => void = () => undefined
    const deaf = changes.watch((event) => {
      if (!ENDED.test(event)) tell(event)
    })
    const free = endsWith(changes, request, () => reply.raw.end())
    const stop = (): void => {
      deaf()
      free()
    }
    // Whoever is told that the stream is open misses nothing from then on; a database that is away is made good later.
    await Promise.race([changes.listening, new Promise((r) => setTimeout(r, PATIENCE))])
    if (request.raw.destroyed || reply.raw.writableEnded) {
      reply.hijack()
      return stop()
    }
    tell = openEvents(reply)
    const beat = setInterval(() => void reply.raw.write(': still here\n\n'), BEAT)
    const end = (): void => {
      clearInterval(beat)
      stop()
    }
    request.raw.on('close', end)
    reply.raw.on('error', end)
  })
  app.withTypeProvider<ZodTypeProvider>().post(
    '/presence',
    {
      config: { access: 'reader' },
      schema: { tags: ['people'], body: Presence, response: { 204: z.null() } },
    },
    async ({ person, body }, reply) => {
      const here: Here | null = person && { ...body, who: { id: person.id, name: person.name } }
      await db.execute(sql`select pg_notify('record', ${JSON.stringify({ here })})`)
      return reply.code(204).send(null)
    },
  )
}
