// What each thread that answers requests runs: the same app on connections of its own, asked without a socket.
import type { InjectOptions } from 'fastify'
import { move, Piscina, transferableSymbol, valueSymbol } from 'piscina'
import { buildApp } from './app'
import { connect } from './db/client'
import type { ThreadAnswer, ThreadOptions, ThreadRequest } from './threads/job'
import { giveWay } from './threads/priority'

/** Connections of a thread: a request in a transaction may look beside it. */
const CONNECTIONS = 2

giveWay()
const { databaseUrl, ...options } = Piscina.workerData as ThreadOptions
const app = buildApp({ db: connect(databaseUrl, CONNECTIONS).db, inThread: true, ...options })

/** Answers one request with a {@link ThreadAnswer}; asked nothing, it answers as soon as it could. */
export default async function answer(r: ThreadRequest | null): Promise<unknown> {
  const ready = await app
  if (!r) return ready.ready().then(() => null)
  const response = await ready.inject({
    method: r.method as NonNullable<InjectOptions['method']>,
    url: r.url,
    headers: r.headers,
    remoteAddress: r.remoteAddress,
    ...(r.body && { payload: Buffer.from(r.body.buffer, r.body.byteOffset, r.body.byteLength) }),
  })
  // A buffer of its own changes hands; it is not copied once more.
  const body = new Uint8Array(response.rawPayload)
  const given: ThreadAnswer = { status: response.statusCode, headers: response.headers, body }
  return move({
    get [transferableSymbol]() {
      return [body.buffer]
    },
    get [valueSymbol]() {
      return given
    },
  })
}
