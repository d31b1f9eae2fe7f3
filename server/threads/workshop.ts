import type { FastifyReply, FastifyRequest } from 'fastify'
import { existsSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { Readable } from 'node:stream'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { busy, problem } from '../http/problems'
import type { ThreadAnswer, ThreadOptions, ThreadRequest } from './job'

const here = typeof __dirname === 'string' ? __dirname : dirname(fileURLToPath(import.meta.url))
const BUILT = join(here, 'thread.mjs')

declare module 'fastify' {
  interface FastifyContextConfig {
    /** A route whose work would keep others waiting: it is answered in a thread. */
    heavy?: Heavy
  }
}

/** Two kinds of heavy work, so that a long one never keeps a short one waiting. */
export type Heavy = 'short' | 'long'

interface Limits {
  /** Longest time one may take (ms), most that wait, and most memory of its thread (MB). */
  readonly longest: number
  readonly waiting: number
  readonly memory: number
}
const LIMITS: Readonly<Record<Heavy, Limits>> = {
  short: { longest: 15_000, waiting: 24, memory: 384 },
  long: { longest: 120_000, waiting: 8, memory: 768 },
}
/** Most bytes of bodies for threads that are held at once, read or waiting. */
const MOST_HELD = 320 * 1024 * 1024
/** An answer longer than this (bytes) is sent in pieces, and not hashed where all are answered. */
const PIECE = 256 * 1024
/** Longest that a thread may need until it answers (ms); no request's own time runs meanwhile. */
const STARTING = 60_000

/** Headers of the connection to the thread are not those of the one to the reader. */
const OWN = new Set(['connection', 'content-length', 'date', 'keep-alive', 'transfer-encoding'])

const tooLarge = (most: number) => Object.assign(new Error(`more than ${most} bytes`), { statusCode: 413 })

/**
 * Threads that answer whole requests: what is large or long is read, checked, worked out and written there, by the same
 * routes, with a limit of memory and time each. What one of them does, others never wait for.
 */
export class Workshop {
  readonly #pools: Readonly<Record<Heavy, Piscina>>
  readonly #turns = { short: new Turns(LIMITS.short.waiting), long: new Turns(LIMITS.long.waiting) }
  #held = 0

  constructor(options: ThreadOptions) {
    const built = existsSync(BUILT)
    const pool = ({ memory }: Limits): Piscina =>
      new Piscina({
        ...(built
          ? { filename: BUILT }
          : { filename: join(here, '..', 'thread.ts'), execArgv: ['--import', 'tsx'] }),
        workerData: options,
        // Started with the server, so that nobody waits for it, nor beside it while its app is read.
        minThreads: 1,
        maxThreads: 1,
        resourceLimits: { maxOldGenerationSizeMb: memory },
      })
    this.#pools = { short: pool(LIMITS.short), long: pool(LIMITS.long) }
  }

  /** Has a request of a heavy route answered; any other goes on as it would. */
  readonly take = async (
    request: FastifyRequest,
    reply: FastifyReply,
    payload: Readable,
  ): Promise<Readable | FastifyReply> => {
    const { heavy } = request.routeOptions.config
    if (!heavy) return payload
    const held = new Hold((bytes) => {
      if (bytes > 0 && this.#held + bytes > MOST_HELD) throw busy()
      this.#held += bytes
    })
    try {
      const given = await read(request, payload, held)
      const { status, headers, body } = await this.#turns[heavy].take(() => {
        // Nobody waits for what they went away from.
        if (request.socket.destroyed) throw busy()
        return this.#answer(heavy, request, given)
      })
      for (const [name, value] of Object.entries(headers))
        if (value !== undefined && !OWN.has(name)) reply.header(name, value)
      const bytes = Buffer.from(body.buffer, body.byteOffset, body.byteLength)
      return reply.code(status).send(bytes.length > PIECE ? inPieces(bytes) : bytes)
    } finally {
      held.release()
    }
  }

  async #answer(heavy: Heavy, request: FastifyRequest, body: Uint8Array | null): Promise<ThreadAnswer> {
    const { longest } = LIMITS[heavy]
    await this.#pools[heavy].run(null, { signal: AbortSignal.timeout(STARTING) })
    const limit = AbortSignal.timeout(longest)
    const { 'accept-encoding': _, ...headers } = request.headers
    const job: ThreadRequest = {
      method: request.method,
      url: request.url,
      headers,
      remoteAddress: request.socket.remoteAddress ?? '127.0.0.1',
      body,
    }
    try {
      return (await this.#pools[heavy].run(job, {
        signal: limit,
        transferList: body ? [body.buffer as ArrayBuffer] : [],
      })) as ThreadAnswer
    } catch (error) {
      if (limit.aborted)
        throw problem(422, 'too-long', `This would take longer than ${longest / 1000} s`, {
          errors: [{ field: 'body', message: 'less of it at a time' }],
        })
      if (/memory/i.test(String(error)))
        throw problem(413, 'too-large', 'This needs more memory than one request may take', {
          errors: [{ field: 'body', message: 'less of it at a time' }],
        })
      throw error
    }
  }

  async close(): Promise<void> {
    await Promise.all(Object.values(this.#pools).map((p) => p.destroy()))
  }
}

/** One after another, and no more waiting than so many. */
class Turns {
  #waiting = 0
  #last: Promise<unknown> = Promise.resolve()
  constructor(private readonly most: number) {}
  async take<T>(work: () => Promise<T>): Promise<T> {
    if (this.#waiting > this.most) throw busy()
    this.#waiting++
    const mine = this.#last.then(work).finally(() => this.#waiting--)
    this.#last = mine.catch(() => undefined)
    return mine
  }
}

/** Bytes that a request takes of what all may hold. */
class Hold {
  #bytes = 0
  constructor(private readonly take: (bytes: number) => void) {}
  more(bytes: number): void {
    this.take(bytes)
    this.#bytes += bytes
  }
  release(): void {
    this.take(-this.#bytes)
    this.#bytes = 0
  }
}

/** The whole body, in memory of its own. @throws where it is longer than the route takes, or all hold too much. */
async function read(request: FastifyRequest, payload: Readable, held: Hold): Promise<Uint8Array | null> {
  if (request.method === 'GET' || request.method === 'HEAD') return null
  const most = request.routeOptions.bodyLimit
  const said = Number(request.headers['content-length'] ?? 0)
  if (said > most) throw tooLarge(most)
  held.more(said)
  const pieces: Buffer[] = []
  let length = 0
  for await (const piece of payload as AsyncIterable<Buffer>) {
    length += piece.length
    if (length > most) throw tooLarge(most)
    if (length > said) held.more(piece.length)
    pieces.push(piece)
  }
  const whole = new Uint8Array(length)
  let at = 0
  for (const piece of pieces) {
    whole.set(piece, at)
    at += piece.length
  }
  return whole
}

function* piecesOf(bytes: Buffer): Generator<Buffer> {
  for (let at = 0; at < bytes.length; at += PIECE) yield bytes.subarray(at, at + PIECE)
}
const inPieces = (bytes: Buffer): Readable => Readable.from(piecesOf(bytes), { objectMode: false })
