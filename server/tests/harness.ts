import type { FastifyInstance } from 'fastify'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { buildApp } from '../app'
import { connect, migrate, type Db } from '../db/client'

export interface Harness {
  readonly app: FastifyInstance
  readonly db: Db
  readonly url: string
  readonly close: () => Promise<void>
  /** Sends a request and gives status, parsed body and headers. */
  readonly call: (
    method: Method,
    path: string,
    body?: unknown,
    headers?: Record<string, string>,
  ) => Promise<Reply>
  /** POST with a fresh idempotency key. */
  readonly create: (path: string, body: Record<string, unknown>) => Promise<Reply>
}
type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE'
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers are examined field by field in tests
type Json = any
export interface Reply {
  readonly status: number
  readonly body: Json
  readonly headers: Record<string, unknown>
}

/** The app on a fresh, migrated database of the test cluster. */
export async function harness(): Promise<Harness> {
  const admin = process.env.TEST_CLUSTER_URL
  if (!admin) throw new Error('TEST_CLUSTER_URL is not set: run through Jest')
  const name = `t_${randomUUID().replace(/-/g, '')}`
  const client = new pg.Client({ connectionString: admin })
  await client.connect()
  await client.query(`create database ${name}`)
  await client.end()
  const url = admin.replace(/\/postgres$/, `/${name}`)
  const { db, pool } = connect(url)
  await migrate(db)
  const app = await buildApp({ db, logLevel: 'silent' })
  const call: Harness['call'] = async (method, path, body, headers = {}) => {
    const r = await app.inject({
      method,
      url: `/api/v1${path}`,
      headers: { host: 'localhost', ...headers },
      ...(body !== undefined && { payload: body as object }),
    })
    const json = /json/.test(String(r.headers['content-type']))
    return { status: r.statusCode, body: json ? (r.json() as Json) : r.body, headers: r.headers }
  }
  return {
    app,
    db,
    url,
    call,
    create: (path, body) =>
      call('POST', path, { id: randomUUID(), ...body }, { 'idempotency-key': randomUUID() }),
    close: async () => {
      await app.close()
      await pool.end()
    },
  }
}
