import { hash } from '@node-rs/argon2'
import type { PassMade } from '@ypsometer/contract'
import { sql } from 'drizzle-orm'
import fc from 'fast-check'
import type { LightMyRequestResponse } from 'fastify'
import { randomUUID } from 'node:crypto'
import { buildApp } from '../app'
import { account, pass, session } from '../db/schema'
import { harness, type Harness } from '../tests/harness'
import { addAccount } from './accounts'
import { IDLE_DAYS } from './identity'
import { TRIES } from './limits'

const PASSWORD = 'otter granite nine lamp'
const lines: string[] = []
let h: Harness
beforeAll(async () => {
  h = await harness({ visitor: null, logLevel: 'info', logTo: { write: (line) => void lines.push(line) } })
  await h.app.ready()
})
afterAll(() => h.close())
beforeEach(async () => {
  await h.db.execute(sql`truncate account cascade`)
  await h.db.execute(sql`truncate sign_in_try`)
})

type Method = 'GET' | 'POST' | 'PATCH' | 'DELETE'
interface Ask {
  readonly cookie?: string
  readonly headers?: Record<string, string>
  readonly from?: string
  readonly host?: string
}
async function ask(method: Method, path: string, body?: unknown, { cookie, headers, from }: Ask = {}) {
  const r = await h.app.inject({
    method,
    url: `/api/v1${path}`,
    headers: { host: 'localhost', ...(cookie && { cookie }), ...headers },
    ...(from && { remoteAddress: from }),
    ...(body !== undefined && { payload: body as object }),
  })
  const json = /json/.test(String(r.headers['content-type']))
  // oxlint-disable-next-line typescript/no-explicit-any -- answers are examined field by field in tests
  return { status: r.statusCode, body: (json ? r.json() : r.body) as any, cookie: cookieOf(r) }
}
/** The cookie an answer sets, as it is sent back. */
const cookieOf = (r: LightMyRequestResponse): string =>
  r.cookies.map(({ name, value }) => `${name}=${value}`).join('; ')

/** Of a hash that takes no time: it says itself how it was made. What the app makes is held against its measure below. */
const quick = hash(PASSWORD, { memoryCost: 8, timeCost: 1 })
const add = async (name: string, role: 'owner' | 'editor' | 'reader'): Promise<string> => {
  const passwordHash = await quick
  return h.db.transaction((tx) => addAccount(tx, { name, role, passwordHash }))
}
const signIn = async (name: string, how: Ask = {}): Promise<string> => {
  const answer = await ask('POST', '/session', { name, password: PASSWORD }, how)
  if (answer.status !== 201) throw new Error(JSON.stringify(answer.body))
  return answer.cookie
}
/** Somebody of each role, signed in. */
async function three() {
  const ids = { owner: await add('Orla', 'owner'), editor: await add('Edda', 'editor'), reader: await add('Rune', 'reader') } // prettier-ignore
  const cookies = { owner: await signIn('Orla'), editor: await signIn('Edda'), reader: await signIn('Rune') }
  return { ids, ...cookies }
}

/**
 * Routes that need no session (the first owner's refuses by itself all but a machine's visitor), and what else a reader
 * may ask for that is no reading.
 */
const OPEN = ['GET /me', 'POST /people/first', 'POST /session', 'DELETE /session', 'POST /passes/look', 'POST /passes/use', 'GET /shared/{secret}', 'GET /shared/{secret}/photos/{id}'] // prettier-ignore
const READERS = ['POST /me/password', 'DELETE /sessions/{id}', 'POST /presence']

describe('the door', () => {
  /** Every route that the API tells of, with an address that fits it. */
  const routes = (): { name: string; method: Method; path: string }[] =>
    Object.entries(h.app.swagger().paths ?? {}).flatMap(([url, item]) =>
      Object.keys(item ?? {}).map((m) => {
        const bare = url.replace('/api/v1', '')
        return {
          name: `${m.toUpperCase()} ${bare}`,
          method: m.toUpperCase() as Method,
          path: bare.replace(/\{\w+\}/g, randomUUID()),
        }
      }),
    )

  test('without a session nothing of the API answers but signing in, links, and what is shared', async () => {
    expect(routes().length).toBeGreaterThan(120)
    for (const { name, method, path } of routes()) {
      const { status } = await ask(method, path, method === 'GET' || method === 'DELETE' ? undefined : {})
      if (OPEN.includes(name)) expect([name, status]).not.toEqual([name, 403])
      else expect([name, status]).toEqual([name, 401])
    }
  })
  test('a reader reads everything and writes nothing', async () => {
    const { reader } = await three()
    for (const { name, method, path } of routes()) {
      if (name === 'DELETE /session') continue
      const body = method === 'GET' || method === 'DELETE' ? undefined : {}
      const { status } = await ask(method, path, body, { cookie: reader })
      const reads = method === 'GET' || /^POST \/calc\//.test(name) || READERS.includes(name)
      if (OPEN.includes(name) || reads) expect([name, status]).not.toEqual([name, 403])
      else expect([name, status]).toEqual([name, 403])
    }
    const answer = await ask('POST', '/models', {}, { cookie: reader })
    expect(answer.body).toMatchObject({ code: 'not-yours', detail: expect.stringContaining('reader') })
  })
  test('nobody becomes its first owner where there is one: no stranger, nobody who is signed in', async () => {
    const { reader, editor } = await three()
    const before = await h.db.execute(sql`select count(*) from account`)
    for (const cookie of ['', reader, editor])
      expect(
        await ask('POST', '/people/first', { name: 'Nemo', password: PASSWORD }, { cookie }),
      ).toMatchObject({
        status: 409,
        body: { code: 'owned' },
      })
    expect((await h.db.execute(sql`select count(*) from account`)).rows).toEqual(before.rows)
  })
  test('an editor writes, and does not look after people', async () => {
    const { ids, editor } = await three()
    const made = await ask(
      'POST',
      '/models',
      { id: randomUUID(), maker: 'Quillon', name: 'Reed 4', kind: 'canister' },
      { cookie: editor, headers: { 'idempotency-key': randomUUID() } },
    )
    expect(made.status).toBe(201)
    for (const [method, path, body] of [
      ['POST', '/people', { name: 'Nobody', role: 'reader' }],
      ['PATCH', `/people/${ids.editor}`, { role: 'owner' }],
      ['DELETE', `/people/${ids.owner}`, undefined],
      ['POST', `/people/${ids.owner}/link`, undefined],
      ['DELETE', `/people/${ids.owner}/sessions`, undefined],
    ] as const)
      expect(await ask(method, path, body, { cookie: editor })).toMatchObject({ status: 403 })
    // When others were here last is for owners.
    const seen = async (cookie: string) => (await ask('GET', '/people', undefined, { cookie })).body.items
    expect((await seen(editor)).map((p: { sessions: number }) => p.sessions)).toEqual([0, 0, 0])
    expect((await seen(await signIn('Orla'))).map((p: { name: string }) => p.name)).toEqual(['Orla', 'Edda', 'Rune']) // prettier-ignore
  })
  test('a cookie on another origin is worth nothing: not to write, not to read', async () => {
    const { editor } = await three()
    const foreign = (method: Method, headers: Record<string, string>) =>
      ask(method, '/models', method === 'POST' ? {} : undefined, { cookie: editor, headers })
    for (const headers of [
      { origin: 'https://elsewhere.example' },
      { origin: 'null' },
      { 'sec-fetch-site': 'cross-site' },
      { 'sec-fetch-site': 'same-site' },
    ])
      expect((await foreign('POST', headers)).body).toMatchObject({ code: 'foreign-origin' })
    expect(await foreign('GET', { 'sec-fetch-site': 'cross-site', 'sec-fetch-mode': 'cors' })).toMatchObject({ status: 403 }) // prettier-ignore
    expect(await foreign('GET', { 'sec-fetch-site': 'same-origin', 'sec-fetch-mode': 'cors' })).toMatchObject({ status: 200 }) // prettier-ignore
    expect((await foreign('GET', { host: 'bench.example' })).body).toMatchObject({ code: 'wrong-host' })
  })
})

describe('signing in', () => {
  test('the cookie is out of reach of scripts and of other sites; only hashes are kept', async () => {
    await add('Orla', 'owner')
    const r = await h.app.inject({
      method: 'POST',
      url: '/api/v1/session',
      headers: { host: 'localhost' },
      payload: { name: 'orLA ', password: PASSWORD },
    })
    expect(r.cookies[0]).toMatchObject({ httpOnly: true, sameSite: 'Strict', path: '/' })
    const [kept] = await h.db.select().from(session)
    const [who] = await h.db.select().from(account)
    const secret = r.cookies[0]?.value ?? ''
    expect(Buffer.from(secret, 'base64url')).toHaveLength(32)
    expect(JSON.stringify(kept)).not.toContain(secret)
    expect(JSON.stringify(who)).not.toContain(PASSWORD)
    const me = await ask('GET', '/me', undefined, { cookie: cookieOf(r) })
    expect(me.body).toEqual({
      person: { id: who?.id, name: 'Orla', role: 'owner' },
      by: 'session',
      unowned: false,
    })
  })
  test('a password is hashed by argon2id with 19 MiB and two passes (OWASP Password Storage Cheat Sheet)', async () => {
    await add('Orla', 'owner')
    const change = { password: PASSWORD, next: 'kelp tundra violin 8' }
    const cookie = await signIn('Orla')
    expect(await ask('POST', '/me/password', change, { cookie })).toMatchObject({ status: 204 })
    const [who] = await h.db.select().from(account)
    expect(who?.passwordHash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
  })
  test('over TLS the cookie is for this host alone, and the browser is told to stay with TLS', async () => {
    const address = 'https://bench.example'
    const app = await buildApp({ db: h.db, logLevel: 'silent', visitor: null, address })
    await add('Orla', 'owner')
    const r = await app.inject({
      method: 'POST',
      url: '/api/v1/session',
      headers: { host: 'bench.example', origin: address },
      payload: { name: 'Orla', password: PASSWORD },
    })
    expect(r.cookies[0]).toMatchObject({ name: '__Host-ypsometer', secure: true, path: '/' })
    expect(r.cookies[0]).not.toHaveProperty('domain')
    expect(r.headers['strict-transport-security']).toBe('max-age=31536000')
    await app.close()
  })
  test('whether there is somebody of that name is not told', async () => {
    await add('Orla', 'owner')
    const wrong = await ask('POST', '/session', { name: 'Orla', password: 'not this one, no' })
    const nobody = await ask('POST', '/session', { name: 'Olga', password: 'not this one, no' })
    expect(wrong).toMatchObject({ status: 401, body: { code: 'wrong-sign-in' } })
    expect(nobody.body).toEqual(wrong.body)
  })
  test('a session that was planted before is not the one signed in with; the one before is ended', async () => {
    await add('Orla', 'owner')
    const planted = 'ypsometer=cGxhbnRlZA'
    const mine = await signIn('Orla', { cookie: planted })
    expect(mine).not.toContain('cGxhbnRlZA')
    expect(await ask('GET', '/models', undefined, { cookie: planted })).toMatchObject({ status: 401 })
    const next = await signIn('Orla', { cookie: mine })
    expect(await ask('GET', '/models', undefined, { cookie: mine })).toMatchObject({ status: 401 })
    expect(await ask('GET', '/models', undefined, { cookie: next })).toMatchObject({ status: 200 })
  })
  test('hammered, also many at once: ten tries an account, then even the right password waits', async () => {
    await add('Orla', 'owner')
    await add('Edda', 'editor')
    const tries = await Promise.all(
      Array.from({ length: 30 }, (_, i) =>
        ask('POST', '/session', { name: 'Orla', password: `wrong ${i}` }, { from: `10.0.0.${i}` }),
      ),
    )
    expect(tries.filter((t) => t.status === 401)).toHaveLength(TRIES.account)
    expect(tries.filter((t) => t.status === 429)).toHaveLength(30 - TRIES.account)
    const right = await ask('POST', '/session', { name: ' ORLA', password: PASSWORD }, { from: '10.1.0.1' })
    expect(right).toMatchObject({
      status: 429,
      body: { detail: expect.stringMatching(/again in 1[45] min/) },
    })
    expect(await signIn('Edda', { from: '10.0.0.1' })).not.toBe('')
  })
  test('a device that has signed somebody in before comes in while a stranger hammers their name', async () => {
    await add('Orla', 'owner')
    const device = await signIn('Orla')
    await Promise.all(
      Array.from({ length: TRIES.account + 2 }, (_, i) =>
        ask('POST', '/session', { name: 'Orla', password: `wrong ${i}` }, { from: `10.0.0.${i}` }),
      ),
    )
    const right = { name: 'Orla', password: PASSWORD }
    expect(await ask('POST', '/session', right, { from: '10.1.0.1' })).toMatchObject({ status: 429 })
    expect(await ask('POST', '/session', right, { cookie: device })).toMatchObject({ status: 201 })
    // The mark is of that name and that password alone, and has tries of its own.
    await add('Edda', 'editor')
    const forged = `ypsometer-device=${'A'.repeat(43)}`
    expect(await ask('POST', '/session', right, { cookie: forged })).toMatchObject({ status: 429 })
    for (let i = 0; i < TRIES.account; i++)
      await ask('POST', '/session', { name: 'Orla', password: 'wrong' }, { cookie: device })
    expect(await ask('POST', '/session', right, { cookie: device })).toMatchObject({ status: 429 })
  })
  test('who was let in, made something else or turned out stands in the history', async () => {
    const { owner } = await three()
    const as = { cookie: owner }
    const { body: made } = await ask('POST', '/people', { name: 'Nell', role: 'reader' }, as)
    const { id } = made.person
    await ask('PATCH', `/people/${id}`, { role: 'editor' }, as)
    await ask('DELETE', `/people/${id}`, undefined, as)
    const { body } = await ask('GET', `/history?row=${id}`, undefined, as)
    expect(body.items.map((c: { action: string; who: { name: string }; name: string; before: object; after: object; undoable: boolean }) => [c.action, c.who.name, c.name, c.before, c.after, c.undoable])).toEqual([
      ['deleted', 'Orla', 'Nell', { role: 'editor' }, {}, false],
      ['changed', 'Orla', 'Nell', { role: 'reader' }, { role: 'editor' }, false],
      ['made', 'Orla', 'Nell', {}, { role: 'reader' }, false],
    ]) // prettier-ignore
  })
  test('hammered over many names from one address: that address waits, others do not', async () => {
    await add('Orla', 'owner')
    for (let i = 0; i < TRIES.address; i++)
      await ask('POST', '/session', { name: `nobody ${i}`, password: 'x' }, { from: '10.9.9.9' })
    const from = { from: '10.9.9.9' }
    expect(await ask('POST', '/session', { name: 'Orla', password: PASSWORD }, from)).toMatchObject({ status: 429 }) // prettier-ignore
    expect(await ask('POST', '/passes/look', { secret: 'x' }, from)).toMatchObject({ status: 429 })
    expect(await signIn('Orla', { from: '10.9.9.8' })).not.toBe('')
  })
  test('what stands in front says where a try comes from; whoever else says so is not believed', async () => {
    const app = await buildApp({ db: h.db, logLevel: 'silent', visitor: null, proxies: ['127.0.0.1'] })
    await add('Orla', 'owner')
    const from = async (remoteAddress: string): Promise<string> => {
      await app.inject({
        method: 'POST',
        url: '/api/v1/session',
        headers: { host: 'localhost', 'x-forwarded-for': '203.0.113.7' },
        remoteAddress,
        payload: { name: 'Orla', password: PASSWORD },
      })
      const [row] = await h.db.select({ address: session.address }).from(session)
      await h.db.delete(session)
      return row?.address ?? ''
    }
    expect(await from('127.0.0.1')).toBe('203.0.113.7')
    expect(await from('198.51.100.4')).toBe('198.51.100.4')
    await app.close()
  })
  test('no password, secret or cookie is ever in the log; what was refused is', async () => {
    const { owner } = await three()
    await ask('POST', '/session', { name: 'Orla', password: 'my other secret word' })
    const { body } = await ask('POST', '/people', { name: 'Nils', role: 'reader' }, { cookie: owner })
    await ask('POST', '/passes/look', { secret: (body as PassMade).secret })
    await ask('GET', '/shared/abcdefgh-secret-of-a-link')
    const log = lines.join('')
    expect(log).toContain('sign-in refused')
    expect(log).toContain('"event":"invited","by":"Orla"')
    for (const secret of [
      PASSWORD,
      'my other secret word',
      owner.split('=')[1] ?? '',
      body.secret,
      'abcdefgh-secret',
    ])
      expect(log).not.toContain(secret)
  })
})

test('what somebody wrote is not taken under the name of another who signed in meanwhile', async () => {
  const { ids, editor, owner } = await three()
  const write = (cookie: string, writer: string) =>
    ask(
      'POST',
      '/models',
      { id: randomUUID(), maker: 'Quillon', name: randomUUID(), kind: 'canister' },
      { cookie, headers: { 'idempotency-key': randomUUID(), 'x-writer': writer } },
    )
  expect(await write(owner, ids.editor)).toMatchObject({ status: 409, body: { code: 'other-writer' } })
  expect(await write(editor, ids.editor)).toMatchObject({ status: 201 })
})

describe('sessions', () => {
  test('seen, ended one by one; what was ended is refused at once', async () => {
    await add('Orla', 'owner')
    const phone = await signIn('Orla', { headers: { 'user-agent': 'A phone' } })
    const desk = await signIn('Orla', { headers: { 'user-agent': 'A desk' } })
    const { body } = await ask('GET', '/sessions', undefined, { cookie: desk })
    expect(body.items.map((s: { agent: string; here: boolean }) => [s.agent, s.here])).toEqual([
      ['A desk', true],
      ['A phone', false],
    ])
    expect(await ask('DELETE', `/sessions/${body.items[1].id}`, undefined, { cookie: desk })).toMatchObject({ status: 204 }) // prettier-ignore
    expect(await ask('GET', '/models', undefined, { cookie: phone })).toMatchObject({ status: 401 })
    expect(await ask('GET', '/models', undefined, { cookie: desk })).toMatchObject({ status: 200 })
  })
  test('nobody ends another’s by its id; an owner ends all of somebody’s', async () => {
    const { ids, owner, editor, reader } = await three()
    const { body } = await ask('GET', '/sessions', undefined, { cookie: reader })
    const path = `/sessions/${body.items[0].id}`
    expect(await ask('DELETE', path, undefined, { cookie: editor })).toMatchObject({ status: 404 })
    await ask('DELETE', `/people/${ids.reader}/sessions`, undefined, { cookie: owner })
    expect(await ask('GET', '/models', undefined, { cookie: reader })).toMatchObject({ status: 401 })
    expect(await ask('GET', '/models', undefined, { cookie: editor })).toMatchObject({ status: 200 })
  })
  test('signing out ends it on the server too, and clears what the browser keeps', async () => {
    await add('Orla', 'owner')
    const cookie = await signIn('Orla')
    const r = await h.app.inject({
      method: 'DELETE',
      url: '/api/v1/session',
      headers: { host: 'localhost', cookie },
    })
    expect(r.statusCode).toBe(204)
    expect(r.headers['clear-site-data']).toBe('"cache"')
    expect(r.cookies[0]).toMatchObject({ name: 'ypsometer', value: '' })
    expect(await ask('GET', '/models', undefined, { cookie })).toMatchObject({ status: 401 })
  })
  test.each([
    ['unused for too long', sql`seen_at = now() - make_interval(days => ${IDLE_DAYS}, mins => 1)`],
    ['too old', sql`ends_at = now() - interval '1 second'`],
  ])('one that is %s has ended', async (_why, set) => {
    await add('Orla', 'owner')
    const cookie = await signIn('Orla')
    await h.db.execute(sql`update session set ${set}`)
    expect(await ask('GET', '/models', undefined, { cookie })).toMatchObject({ status: 401 })
  })
  test('a new password needs the present one and ends all other sessions', async () => {
    await add('Orla', 'owner')
    const [here, there] = [await signIn('Orla'), await signIn('Orla')]
    const change = (password: string, next: string) =>
      ask('POST', '/me/password', { password, next }, { cookie: here })
    expect((await change('not mine at all', 'kelp tundra violin 8')).body.errors[0].field).toBe('password')
    expect((await change(PASSWORD, 'password1234')).body.errors[0].field).toBe('next')
    expect(await change(PASSWORD, 'kelp tundra violin 8')).toMatchObject({ status: 204 })
    expect(await ask('GET', '/models', undefined, { cookie: there })).toMatchObject({ status: 401 })
    expect(await ask('GET', '/models', undefined, { cookie: here })).toMatchObject({ status: 200 })
  })
  test('a stream that was open ends with its session', async () => {
    await add('Orla', 'owner')
    const cookie = await signIn('Orla')
    const at = await h.app.listen({ host: '127.0.0.1', port: 0 })
    const stream = await fetch(`${at}/api/v1/changes`, { headers: { cookie } })
    const reader = stream.body?.getReader()
    await reader?.read()
    const ended = (async () => {
      for (;;) if ((await reader?.read())?.done) return true
    })()
    const listening = async (): Promise<boolean> =>
      Number((await h.db.execute(sql`select count(*) as n from pg_stat_activity where query = 'listen record' and datname = current_database()`)).rows[0]?.n) > 0 // prettier-ignore
    // The session is ended once the database is listened to.
    while (!(await listening())) await new Promise((r) => setTimeout(r, 20))
    await h.db.delete(session)
    expect(await ended).toBe(true)
  })
})

test('a calendar of another program comes by the key of the last link, which reads that and nothing else', async () => {
  const { editor, reader } = await three()
  expect(await ask('POST', '/upkeep/link', undefined, { cookie: reader })).toMatchObject({ status: 403 })
  const make = async (): Promise<string> =>
    (await ask('POST', '/upkeep/link', undefined, { cookie: editor })).body.key
  const [first, second] = [await make(), await make()]
  expect(await ask('GET', `/upkeep.ics?key=${second}`)).toMatchObject({ status: 200, body: expect.stringMatching(/^BEGIN:VCALENDAR/) }) // prettier-ignore
  expect(await ask('GET', '/upkeep.ics', undefined, { cookie: reader })).toMatchObject({ status: 200 })
  for (const path of [
    `/upkeep.ics?key=${first}`,
    '/upkeep.ics',
    `/ticks?key=${second}`,
    `/models?key=${second}`,
  ])
    expect(await ask('GET', path)).toMatchObject({ status: 401 })
  expect(lines.join('')).not.toContain(second)
})

describe('one-time links', () => {
  const invite = async (owner: string, name = 'Nils'): Promise<PassMade> =>
    (await ask('POST', '/people', { name, role: 'editor' }, { cookie: owner })).body
  test('an invitation says who it is for, lets in once, and not again', async () => {
    const { owner } = await three()
    const { secret, person } = await invite(owner)
    expect(person).toMatchObject({ name: 'Nils', role: 'editor', joined: false })
    expect((await ask('POST', '/passes/look', { secret })).body).toEqual({
      name: 'Nils',
      role: 'editor',
      purpose: 'invitation',
    })
    const used = await ask('POST', '/passes/use', { secret, password: PASSWORD })
    expect(used).toMatchObject({ status: 201, body: { person: { name: 'Nils' } } })
    expect(await ask('GET', '/models', undefined, { cookie: used.cookie })).toMatchObject({ status: 200 })
    for (const [path, body] of [
      ['/passes/look', { secret }],
      ['/passes/use', { secret, password: PASSWORD }],
    ] as const)
      expect(await ask('POST', path, body)).toMatchObject({ status: 404, body: { code: 'no-such-link' } })
    expect(await signIn('Nils')).not.toBe('')
  })
  test('used by two at once, it lets in one of them', async () => {
    const { owner } = await three()
    const { secret } = await invite(owner)
    const both = await Promise.all(
      [1, 2, 3].map(() => ask('POST', '/passes/use', { secret, password: PASSWORD })),
    )
    expect(both.map((b) => b.status).sort()).toEqual([201, 404, 404])
  })
  test('recovery: the old password holds until the link is used, then every session is out', async () => {
    const { ids, owner, editor } = await three()
    const first = (await ask('POST', `/people/${ids.editor}/link`, undefined, { cookie: owner })).body
    const { secret } = (await ask('POST', `/people/${ids.editor}/link`, undefined, { cookie: owner })).body
    // A second link takes the place of the first.
    expect(await ask('POST', '/passes/look', { secret: first.secret })).toMatchObject({ status: 404 })
    expect((await ask('POST', '/passes/look', { secret })).body.purpose).toBe('recovery')
    expect(await ask('GET', '/models', undefined, { cookie: editor })).toMatchObject({ status: 200 })
    const used = await ask('POST', '/passes/use', { secret, password: 'kelp tundra violin 8' })
    expect(used.status).toBe(201)
    expect(await ask('GET', '/models', undefined, { cookie: editor })).toMatchObject({ status: 401 })
    expect(await ask('POST', '/session', { name: 'Edda', password: PASSWORD })).toMatchObject({ status: 401 })
  })
  test('it ends after two days, and with the person', async () => {
    const { owner } = await three()
    const one = await invite(owner)
    await h.db.update(pass).set({ endsAt: new Date(Date.now() - 1000) })
    expect(await ask('POST', '/passes/look', { secret: one.secret })).toMatchObject({ status: 404 })
    const two = await invite(owner, 'Mara')
    await ask('DELETE', `/people/${two.person.id}`, undefined, { cookie: owner })
    expect(await ask('POST', '/passes/look', { secret: two.secret })).toMatchObject({ status: 404 })
  })
  test.each([
    ['short', 'tiny otter'],
    ['common', 'password1234'],
    ['one letter over and over', 'aaaaaaaaaaaaaaaa'],
    ['a row of keys', 'qwertyuiop[]'],
    ['the name', 'Nils Ohlander'],
  ])('a password that is %s is refused by name, and the link holds on', async (_why, password) => {
    const { owner } = await three()
    const { secret } = await invite(owner, 'Nils Ohlander')
    const refused = await ask('POST', '/passes/use', { secret, password })
    expect([400, 422]).toContain(refused.status)
    expect(refused.body.errors[0].field).toBe('password')
    expect(await ask('POST', '/passes/look', { secret })).toMatchObject({ status: 200 })
  })
})

describe('looking after people', () => {
  test('names are taken once, however they are written, and free again when somebody goes', async () => {
    const { ids, owner } = await three()
    const invite = (name: string) => ask('POST', '/people', { name, role: 'reader' }, { cookie: owner })
    expect(await invite('EDDA')).toMatchObject({ status: 409, body: { errors: [{ field: 'name' }] } })
    expect(await ask('PATCH', `/people/${ids.reader}`, { name: 'edda' }, { cookie: owner })).toMatchObject({ status: 409 }) // prettier-ignore
    expect(await ask('PATCH', `/people/${ids.editor}`, { name: 'EDDA' }, { cookie: owner })).toMatchObject({ status: 200 }) // prettier-ignore
    await ask('DELETE', `/people/${ids.editor}`, undefined, { cookie: owner })
    expect(await invite('Edda')).toMatchObject({ status: 201 })
  })
  test('a role changes what an open session may do, at once', async () => {
    const { ids, owner, editor } = await three()
    await ask('PATCH', `/people/${ids.editor}`, { role: 'reader' }, { cookie: owner })
    expect(await ask('POST', '/models', {}, { cookie: editor })).toMatchObject({ status: 403 })
  })
  test('somebody always owns the bench', async () => {
    const { ids, owner } = await three()
    for (const [method, body] of [
      ['DELETE', undefined],
      ['PATCH', { role: 'editor' }],
    ] as const)
      expect(await ask(method, `/people/${ids.owner}`, body, { cookie: owner })).toMatchObject({
        status: 409,
        body: { code: 'last-owner' },
      })
  })
  test('owners who race to remove each other: one stays, ten times of ten', async () => {
    for (let i = 0; i < 10; i++) {
      await h.db.execute(sql`truncate account cascade`)
      const a = await add('Orla', 'owner')
      const b = await add('Omar', 'owner')
      await add('Odin', 'owner')
      const [asA, asB] = [await signIn('Orla'), await signIn('Omar')]
      const both = await Promise.all([
        ask('DELETE', `/people/${b}`, undefined, { cookie: asA }),
        ask('DELETE', `/people/${a}`, undefined, { cookie: asB }),
      ])
      // The second is no owner any more by the time it is its turn, or not even signed in.
      const [first, second] = both.map((r) => r.status).sort()
      expect(first).toBe(204)
      expect([401, 403]).toContain(second)
      const left = (await ask('GET', '/people', undefined, { cookie: await signIn('Odin') })).body.items
      expect(left).toHaveLength(2)
    }
  })
})

describe('a bench of this machine', () => {
  let open: Harness
  beforeEach(async () => {
    open = await harness()
  })
  afterEach(() => open.close())
  const owner = { name: 'Orla', password: PASSWORD }

  test('its visitor is an editor at once, by name, until somebody owns the bench', async () => {
    const { body } = await open.call('GET', '/me')
    expect(body).toMatchObject({
      by: 'visitor',
      unowned: true,
      person: { role: 'editor', name: 'This machine' },
    })
    const made = await open.call('POST', '/people/first', owner)
    expect(made).toMatchObject({ status: 201, body: { person: { name: 'Orla', role: 'owner' } } })
    expect(await open.call('GET', '/models')).toMatchObject({ status: 401 })
    expect((await open.call('GET', '/me')).body).toEqual({ person: null, by: null, unowned: false })
  })
  test('two who would be the first owner: one is', async () => {
    const both = await Promise.all(
      ['Orla', 'Omar', 'Odin'].map((name) =>
        open.call('POST', '/people/first', { name, password: PASSWORD }),
      ),
    )
    expect(both.map((b) => b.status).sort()).toEqual([201, 409, 409])
  })
  test('whoever comes after the first owner, with the form still open, is told that there is one', async () => {
    expect(await open.call('POST', '/people/first', owner)).toMatchObject({ status: 201 })
    expect(await open.call('POST', '/people/first', { ...owner, name: 'Omar' })).toMatchObject({
      status: 409,
      body: { code: 'owned', detail: 'This bench has an owner by now: ask them for a way in.' },
    })
  })
  test('who is a visitor has no people to look after and no password to change', async () => {
    expect(await open.call('POST', '/people', { name: 'Nils', role: 'owner' })).toMatchObject({ status: 403 })
    const change = { password: PASSWORD, next: 'kelp tundra violin 8' }
    expect(await open.call('POST', '/me/password', change)).toMatchObject({ status: 404 })
    expect((await open.call('GET', '/sessions')).body).toEqual({ items: [] })
  })
})

test('the metrics need their token, count by route, and hold no id', async () => {
  const metricsToken = 'a token for the metrics, long'
  const app = await buildApp({ db: h.db, logLevel: 'silent', metricsToken })
  const id = randomUUID()
  await app.inject({ url: `/api/v1/models/${id}/dossier`, headers: { host: 'localhost' } })
  const read = (authorization?: string) =>
    app.inject({ url: '/metrics', headers: { host: 'localhost', ...(authorization && { authorization }) } })
  expect((await read()).statusCode).toBe(401)
  expect((await read('Bearer a token for the metrics, lonG')).statusCode).toBe(401)
  const told = await read(`Bearer ${metricsToken}`)
  expect(told.headers['content-type']).toMatch(/^text\/plain; version=0\.0\.4/)
  expect(told.body).toMatch(
    /http_request_duration_seconds_count\{method="GET",route="\/api\/v1\/models\/:id\/dossier",status="404"\} 1/,
  )
  expect(told.body).toMatch(/database_connections\{state="waiting"\} 0/)
  expect(told.body).not.toContain(id)
  expect((await h.app.inject({ url: '/metrics', headers: { host: 'localhost' } })).statusCode).toBe(404)
  await app.close()
})

test('whatever people do to each other, in whatever order: somebody owns the bench, and who was removed is out (a property)', async () => {
  const names = ['Orla', 'Omar', 'Edda', 'Rune'] as const
  const who = fc.nat(names.length - 1)
  const act = fc.oneof(
    fc.record({ by: who, to: who, what: fc.constant('remove' as const) }),
    fc.record({ by: who, to: who, what: fc.constant('end' as const) }),
    fc.record({ by: who, to: who, what: fc.constantFrom('owner', 'editor', 'reader') }),
  )
  await fc.assert(
    fc.asyncProperty(fc.array(act, { minLength: 2, maxLength: 8 }), async (acts) => {
      await h.db.execute(sql`truncate account cascade`)
      await h.db.execute(sql`truncate sign_in_try`)
      const ids = [await add('Orla', 'owner'), await add('Omar', 'owner'), await add('Edda', 'editor'), await add('Rune', 'reader')] // prettier-ignore
      const cookies = await Promise.all(names.map((n) => signIn(n)))
      // Two at a time, as two people would.
      for (let i = 0; i < acts.length; i += 2)
        await Promise.all(
          acts.slice(i, i + 2).map(({ by, to, what }) => {
            const path = `/people/${ids[to]}`
            const cookie = cookies[by] ?? ''
            if (what === 'remove') return ask('DELETE', path, undefined, { cookie })
            if (what === 'end') return ask('DELETE', `${path}/sessions`, undefined, { cookie })
            return ask('PATCH', path, { role: what }, { cookie })
          }),
        )
      const left = await h.db.select().from(account)
      expect(left.filter((a) => a.role === 'owner' && a.removedAt === null).length).toBeGreaterThan(0)
      for (const [i, id] of ids.entries()) {
        const row = left.find((a) => a.id === id)
        const { status } = await ask('GET', '/models', undefined, { cookie: cookies[i] ?? '' })
        if (row?.removedAt) expect([status, row.passwordHash]).toEqual([401, null])
        const write = await ask('POST', '/models', {}, { cookie: cookies[i] ?? '' })
        if (row?.role === 'reader') expect([401, 403]).toContain(write.status)
      }
    }),
    { numRuns: 15 },
  )
})
