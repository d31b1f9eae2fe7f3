import type { FastifyInstance } from 'fastify'
import type { SQL } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { buildApp, type AppOptions } from '../app'
import { connect, type Db } from '../db/client'
import { migrate } from '../db/migrate'
import { asProgram } from '../db/signing'

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
// oxlint-disable-next-line typescript/no-explicit-any -- answers are examined field by field in tests
type Json = any
export interface Reply {
  readonly status: number
  readonly body: Json
  readonly headers: Record<string, unknown>
}

/** Any number, as long as it is the same in every test process. */
const TEMPLATE_LOCK = 4680
/** Databases that the first file of tests to ask for one makes, and others copy. */
const TEMPLATES = {
  migrated: async () => {},
  demo: async (db: Db) => (await import('../demo/load')).loadDemo(db),
}

/** Carries out statements on the test cluster; `urlOf` gives the address of a database by its name. */
async function onCluster<T>(
  work: (client: pg.Client, urlOf: (name: string) => string) => Promise<T>,
): Promise<T> {
  const admin = process.env.TEST_CLUSTER_URL
  if (!admin) throw new Error('TEST_CLUSTER_URL is not set: run through Jest')
  const client = new pg.Client({ connectionString: admin })
  await client.connect()
  try {
    return await work(client, (name) => admin.replace(/\/postgres$/, `/${name}`))
  } finally {
    await client.end()
  }
}
const freshName = (): string => `t_${randomUUID().replace(/-/g, '')}`

/** A new database with nothing in it. */
export const emptyDatabase = (): Promise<string> =>
  onCluster(async (client, urlOf) => {
    const name = freshName()
    await client.query(`create database ${name}`)
    return urlOf(name)
  })

/** A database of the test cluster with every migration in, copied from a template. */
const copyOf = (template: keyof typeof TEMPLATES): Promise<string> =>
  onCluster(async (client, urlOf) => {
    await client.query('select pg_advisory_lock($1)', [TEMPLATE_LOCK])
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [template])
    if (!rowCount) {
      const making = freshName()
      await client.query(`create database ${making}`)
      const { db, pool } = connect(urlOf(making))
      try {
        await migrate(db)
        await TEMPLATES[template](db)
      } finally {
        await pool.end()
      }
      // It has its name once it is whole: nobody copies half of one.
      await client.query(`alter database ${making} rename to ${template}`)
    }
    const name = freshName()
    await client.query(`create database ${name} template ${template}`)
    return urlOf(name)
  })

/** Writes to the database past the app, as the program itself does. */
export const write = (db: Db, statement: SQL): Promise<unknown> =>
  asProgram(db, (tx) => tx.execute(statement))

/** The app on a fresh database of the test cluster, with nothing in it but what every bench has. */
export const harness = (options: Partial<AppOptions> = {}): Promise<Harness> => appOn('migrated', options)

/** The app on a database of its own that holds the demo bench. */
export const demoHarness = (options: Partial<AppOptions> = {}): Promise<Harness> => appOn('demo', options)

async function appOn(template: keyof typeof TEMPLATES, options: Partial<AppOptions>): Promise<Harness> {
  const url = await copyOf(template)
  const { db, pool } = connect(url)
  const app = await buildApp({ db, logLevel: 'silent', ...options })
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
