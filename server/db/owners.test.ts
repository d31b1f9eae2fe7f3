import { randomUUID } from 'node:crypto'
import pg from 'pg'
import { demoHarness, type Harness } from '../tests/harness'
import { buildApp } from '../app'
import { connect } from './client'
import { migrate } from './migrate'
import { APP, handOver } from './owners'

/** Roles belong to the cluster: whichever file comes first makes them, with a password of its own for its own login. */
const PASSWORD = randomUUID()
let h: Harness
let url = ''
let client: pg.Client
beforeAll(async () => {
  h = await demoHarness()
  await h.db.$client.query(`do $$ begin
    if not exists (select from pg_roles where rolname = 'ypsometer_keeper') then create role ypsometer_keeper nologin; end if;
    if not exists (select from pg_roles where rolname = '${APP}') then create role ${APP} login; end if; end $$`)
  await h.db.$client.query(`alter role ${APP} nosuperuser password '${PASSWORD}'`)
  await handOver(h.db)
  const as = new URL(h.url)
  as.username = APP
  as.password = PASSWORD
  url = as.href
  client = new pg.Client({ connectionString: url })
  await client.connect()
})
afterAll(async () => {
  await client.end()
  await h.close()
})
const refused = async (statement: string): Promise<string> =>
  client.query(statement).then(
    () => 'it was done',
    (error: Error) => error.message,
  )

test('the app comes as no superuser, and cannot change, empty or forge what was done and published', async () => {
  for (const statement of [
    "update row_change set who_name = 'nobody'",
    'delete from row_change',
    'truncate row_change',
    'truncate review_edition cascade',
    "update review_edition set published_on = '2020-01-01'",
    'delete from review_edition',
    'alter table row_change disable trigger all',
    'drop trigger history_stays on row_change',
    'drop table row_change',
    'create or replace function history_stays() returns trigger language plpgsql as $$ begin return old; end $$',
    "set session_replication_role = 'replica'",
    "copy row_change to program 'cat'",
    "copy (select 1) to '/tmp/ypsometer-out'",
    'create table public.other (a int)',
    'delete from drizzle.__drizzle_migrations',
    `alter role ${APP} superuser`,
  ])
    expect([statement, await refused(statement)]).toEqual([
      statement,
      expect.stringMatching(/permission denied|must be owner|must be superuser|must be member/),
    ])
  const forged = await refused(
    `insert into row_change (at, who_name, action, resource, row_id, name, before, after)
     values ('2020-01-01', 'Orla', 'made', 'models', '${randomUUID()}', '', '{}', '{}')`,
  )
  expect(forged).toMatch(/written down when it is done/)
})

test('all the app does it still does: it starts, writes, remembers, publishes and empties its own', async () => {
  const { db, pool } = connect(url)
  await migrate(db)
  const app = await buildApp({ db, logLevel: 'silent' })
  const id = randomUUID()
  const ask = (method: 'GET' | 'POST', path: string, payload?: object) =>
    app.inject({
      method,
      url: `/api/v1${path}`,
      headers: { host: 'localhost', 'idempotency-key': randomUUID() },
      ...(payload && { payload }),
    })
  try {
    expect((await ask('GET', '/health')).statusCode).toBe(200)
    expect((await ask('POST', '/models', { id, maker: 'Quillon', name: 'Handed over', kind: 'internal' })).statusCode).toBe(201) // prettier-ignore
    const { items } = (await ask('GET', `/history?row=${id}`)).json() as { items: { action: string }[] }
    expect(items.map((c) => c.action)).toEqual(['made'])
    const [any] = ((await ask('GET', '/reviews')).json() as { items: { id: string; state: string }[] }).items.filter((r) => r.state === 'draft') // prettier-ignore
    const published = any && (await ask('POST', `/reviews/${any.id}/publish`, { anyway: 'No photo yet.' }))
    expect(published?.statusCode ?? 200).toBe(200)
    await pool.query('truncate sign_in_try')
  } finally {
    await app.close()
    await pool.end()
  }
})
