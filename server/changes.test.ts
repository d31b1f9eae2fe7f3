import { sql } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import { createServer, request as ask, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { FastifyRequest } from 'fastify'
import { buildApp } from './app'
import { Changes, endsWith } from './changes'
import { connect } from './db/client'
import { harness, type Harness } from './tests/harness'

let h: Harness
/** A second server on the same database, and a small balancer that gives each of the two every other request. */
let second: { app: Awaited<ReturnType<typeof buildApp>>; pool: ReturnType<typeof connect>['pool'] }
let balancer: Server
let url = ''
let turn = 0
beforeAll(async () => {
  h = await harness()
  const { db, pool } = connect(h.url)
  second = { app: await buildApp({ db, logLevel: 'silent' }), pool }
  const ports = await Promise.all(
    [h.app, second.app].map(async (app) =>
      Number(new URL(await app.listen({ host: '127.0.0.1', port: 0 })).port),
    ),
  )
  balancer = createServer((incoming, outgoing) => {
    const { url: path, method, headers } = incoming
    const on = ask({ host: '127.0.0.1', port: ports[turn++ % 2], path, method, headers }, (answer) => {
      outgoing.writeHead(answer.statusCode ?? 502, answer.headers)
      answer.pipe(outgoing)
    })
    incoming.pipe(on)
    outgoing.on('close', () => on.destroy())
  })
  await new Promise<void>((r) => balancer.listen(0, '127.0.0.1', r))
  url = `http://127.0.0.1:${(balancer.address() as AddressInfo).port}/api/v1`
})
afterAll(async () => {
  balancer.closeAllConnections()
  balancer.close()
  await second.app.close()
  await second.pool.end()
  await h.close()
})

const post = async (path: string, body: object, headers: Record<string, string> = {}) =>
  fetch(`${url}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', 'idempotency-key': randomUUID(), ...headers },
    body: JSON.stringify({ id: randomUUID(), ...body }),
  })

/** Follows the changes; what came so far, and a wait for the next that fits. */
async function follow() {
  const abort = new AbortController()
  const response = await fetch(`${url}/changes`, { signal: abort.signal })
  const seen: { model?: string; list?: string; all?: true; by?: string | null }[] = []
  const reading = (async () => {
    const decoder = new TextDecoder()
    let rest = ''
    for await (const part of response.body ?? []) {
      rest += decoder.decode(part as Uint8Array, { stream: true })
      const events = rest.split('\n\n')
      rest = events.pop() ?? ''
      for (const e of events)
        if (e.startsWith('data: ')) seen.push(JSON.parse(e.slice(6)) as (typeof seen)[number])
    }
  })().catch(() => undefined)
  const until = async (fits: (e: (typeof seen)[number]) => boolean) => {
    for (let i = 0; i < 400; i++) {
      const found = seen.find(fits)
      if (found) return found
      await new Promise((r) => setTimeout(r, 25))
    }
    throw new Error(`never told; seen: ${JSON.stringify(seen)}`)
  }
  const end = async (): Promise<void> => {
    abort.abort()
    await reading
  }
  return { seen, until, end }
}

test('what one server writes, the pages of both are told of, each with the page that wrote it', async () => {
  const pages = [await follow(), await follow()]
  const by = randomUUID()
  const model = (await (
    await post('/models', { maker: 'Quillon', name: 'Told', kind: 'internal' }, { 'x-page': by })
  ).json()) as { id: string }
  for (const p of pages) expect(await p.until((e) => e.model === model.id)).toMatchObject({ by })
  await post('/tanks', { name: 'Told' })
  for (const p of pages) expect(await p.until((e) => e.list === 'tanks')).toMatchObject({ list: 'tanks' })
  await Promise.all(pages.map((p) => p.end()))
})

test('the two behave as one: a key answered by one is known to the other, a stale version is stale at both', async () => {
  const key = randomUUID()
  const body = { id: randomUUID(), maker: 'Quillon', name: 'Shared', kind: 'internal' }
  const sent = await Promise.all(
    Array.from({ length: 4 }, () => post('/models', body, { 'idempotency-key': key })),
  )
  expect(sent.map((r) => r.status)).toEqual([201, 201, 201, 201])
  const patch = (note: string) =>
    fetch(`${url}/models/${body.id}`, {
      method: 'PATCH',
      headers: { 'content-type': 'application/json', 'if-match': '"1"' },
      body: JSON.stringify({ note }),
    })
  const both = await Promise.all([patch('a'), patch('b')])
  expect(both.map((r) => r.status).sort()).toEqual([200, 409])
  // A row that is being made new says so; then it is the same on both.
  const read = () => Promise.all([0, 1].map(async () => (await fetch(`${url}/models?search=Shared`)).text()))
  let rows = await read()
  for (let i = 0; i < 100 && rows.some((r) => r.includes('"old":true')); i++) rows = await read()
  expect(rows[0]).toEqual(rows[1])
})

test('a stream of instruments or of progress ends with the session it was asked under', async () => {
  const changes = new Changes(h.url)
  const ended: string[] = []
  const asked = (sessionId: string | null) => ({ sessionId }) as unknown as FastifyRequest
  const mine = randomUUID()
  const free = [
    endsWith(changes, asked(mine), () => ended.push('mine')),
    endsWith(changes, asked(randomUUID()), () => ended.push('another’s')),
    endsWith(changes, asked(null), () => ended.push('a visitor’s')),
  ]
  await changes.listening
  const account = randomUUID()
  await h.db.execute(sql`insert into account (id, name, role) values (${account}, 'Turned out', 'reader')`)
  await h.db.execute(sql`insert into session (id, account_id, secret_hash, ends_at, address, agent)
    values (${mine}, ${account}, 'x', now() + interval '1 day', '', '')`)
  await h.db.execute(sql`delete from session where id = ${mine}`)
  for (let i = 0; i < 400 && ended.length < 2; i++) await new Promise((r) => setTimeout(r, 25))
  // People who come make a visitor’s bench somebody’s: it ends as well.
  expect([...new Set(ended)].sort()).toEqual(['a visitor’s', 'mine'])
  free.forEach((stop) => stop())
  await h.db.execute(sql`delete from account where id = ${account}`)
  await changes.close()
})

test('a listener whose connection is cut listens again, and says that something may have been missed', async () => {
  const page = await follow()
  await h.db.execute(
    sql`select pg_terminate_backend(pid) from pg_stat_activity where query = 'listen record' and datname = current_database()`,
  )
  await page.until((e) => e.all === true)
  const model = (await (
    await post('/models', { maker: 'Quillon', name: 'Again', kind: 'internal' })
  ).json()) as { id: string }
  await page.until((e) => e.model === model.id)
  await page.end()
})

describe('the shelf keeps what it shows', () => {
  const entry = async (id: string) => {
    const { rows } = await h.db.execute<{ revision: number; rated_flow: number; worked_from: string | null }>(
      sql`select revision, rated_flow, worked_from from shelf_entry where model_id = ${id}`,
    )
    return rows[0]
  }
  const onShelf = async (search: string) =>
    (
      (await (await fetch(`${url}/models?search=${search}&sort=rated-flow`)).json()) as {
        items: { ratedFlow: { value: number } | null }[]
      }
    ).items[0]

  test('every kind of write under a model raises its revision; a page works out what is old, once', async () => {
    const { id } = (await (
      await post('/models', { maker: 'Quillon', name: 'Counted', kind: 'internal' })
    ).json()) as { id: string }
    const before = await entry(id)
    await post('/claims', { modelId: id, quantity: 'rated-flow', value: 2e-4 })
    const trial = (await (await post('/trials', { modelId: id })).json()) as { id: string }
    await post('/readings', {
      trialId: trial.id,
      kind: 'vessel',
      takenAt: new Date().toISOString(),
      volume: 0.005,
      seconds: 30,
    })
    const after = await entry(id)
    expect(after).toMatchObject({ revision: (before?.revision ?? 0) + 3, rated_flow: 2e-4 })
    expect((await onShelf('Counted'))?.ratedFlow?.value).toBe(2e-4)
    const worked = (await entry(id))?.worked_from
    expect(worked).toMatch(new RegExp(`^${after?.revision}:`))
    await onShelf('Counted')
    expect((await entry(id))?.worked_from).toBe(worked)
    await post('/claims', { modelId: id, quantity: 'tank-max', value: 0.1 })
    await onShelf('Counted')
    expect((await entry(id))?.worked_from).not.toBe(worked)
  })
})

test('where a page is, is told to the pages of both servers with who it is; a page cannot say it is somebody else', async () => {
  const pages = [await follow(), await follow()]
  const here = { page: randomUUID(), at: randomUUID(), row: randomUUID(), field: 'note', hello: true }
  expect((await post('/presence', { id: undefined, ...here })).status).toBe(204)
  for (const p of pages)
    expect(await p.until((e) => 'here' in e)).toEqual({
      here: { ...here, who: { id: expect.any(String), name: 'This machine' } },
    })
  const lying = await post('/presence', { id: undefined, ...here, who: { id: randomUUID(), name: 'Orla' } })
  expect([lying.status, ((await lying.json()) as { errors: { field: string }[] }).errors[0]?.field]).toEqual([
    400,
    'who',
  ])
  await Promise.all(pages.map((p) => p.end()))
})
