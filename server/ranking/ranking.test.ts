import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { eq, sql } from 'drizzle-orm'
import pg from 'pg'
import { connect } from '../db/client'
import { ranking, rankingPart } from '../db/schema'
import { startJobs } from '../keep/jobs'
import { demoHarness, type Harness, write } from '../tests/harness'
import { workPart, workParts } from './parts'

let h: Harness
beforeAll(async () => {
  h = await demoHarness()
})
afterAll(() => h.close())

const start = async () =>
  (await h.create('/rankings', {})).body as { id: string; parts: number; state: string }
const read = async (id: string) => (await h.call('GET', `/rankings/${id}`)).body

test('many models that changed at once: a few are worked out while one waits, the others come as they were and say so', async () => {
  await h.call('GET', '/candidates')
  // Forty more, all as new; and a price of the library that touches every one.
  for (let i = 0; i < 40; i++)
    await h.create('/models', { maker: 'Marrowby', name: `Row ${i}`, kind: 'canister' })
  const first = (await h.call('GET', '/candidates')).body.items as { old: boolean; candidate: unknown }[]
  expect([first.length, first.filter((c) => c.old).length]).toEqual([51, 40 - 25])
  const second = (await h.call('GET', '/candidates')).body.items as { old: boolean }[]
  expect(second.some((c) => c.old)).toBe(false)
  const page = await h.call('GET', '/candidates?limit=20')
  const rest = await h.call('GET', `/candidates?limit=40&after=${page.body.next}`)
  expect([page.body.items.length, rest.body.items.length, rest.body.next]).toEqual([20, 31, null])
  expect((await h.call('GET', '/candidates?limit=0')).status).toBe(400)
  await write(h.db, sql`update model set deleted_at = now() where name like 'Row %'`)
})

test('two workers share the parts, none is done twice, and what comes of it is what the counter says', async () => {
  const { id, parts } = await start()
  // Eleven models in one part, and a part for each of twelve tanks.
  expect(parts).toBe(13)
  // One that is asked for meanwhile is the one that runs.
  expect((await start()).id).toBe(id)
  const other = connect(h.url)
  const done = await Promise.all([workParts(h.db), workParts(other.db)])
  await other.pool.end()
  expect(done[0] + done[1]).toBe(13)
  const r = await read(id)
  expect(r).toMatchObject({ state: 'done', done: 13, models: 11, stale: false })
  expect(r.tanks).toHaveLength(12)
  const { body: tanks } = await h.call('GET', '/tanks')
  const named = (name: string) => r.tanks.find((t: { tankId: string }) => t.tankId === tanks.items.find((x: { name: string }) => x.name === name).id) // prettier-ignore
  // 1.2 kg of the Ledger and its coarse foam carry 126.7 L normally stocked: more than the 57.6 L of this tank.
  const ledger = named('Vet, quarantine').options.find((o: { name: string }) => o.name === 'Ledger 700')
  expect(ledger.carries).toBeCloseTo(0.1267, 3)
  expect([ledger.priceMinor, ledger.currency]).toEqual([12900, 'EUR'])
  expect(ledger.low).toBeLessThan(ledger.score)
  const chances = named('Vet, quarantine').options.reduce(
    (sum: number, o: { best: number }) => sum + o.best,
    0,
  )
  expect(chances).toBeCloseTo(1, 6)
  // 295 L of turtles: filters rated for three to four times that, in sum (common practice). Two of 500 L are 1000.
  const pond = named('Museum, turtle pond').options
  expect(pond[0].carries).toBeCloseTo(1 / 3.5, 9)
  expect(pond.every((o: { name: string }) => / and |^Two /.test(o.name))).toBe(true)
})

test('a part whose worker dies is let go at once and done by another; until then the ranking is not done', async () => {
  const { id } = await start()
  const dying = new pg.Client({ connectionString: h.url })
  dying.on('error', () => undefined)
  await dying.connect()
  await dying.query('begin')
  await dying.query(`select 1 from ranking_part where ranking_id = $1 and position = 3 for update`, [id])
  const { rows } = await dying.query<{ pid: number }>('select pg_backend_pid() as pid')
  expect(await workParts(h.db)).toBe(12)
  expect(await read(id)).toMatchObject({ state: 'running', done: 12, parts: 13 })
  await h.db.execute(sql`select pg_terminate_backend(${rows[0]?.pid})`)
  // The server lets go of its locks as the backend ends.
  for (let left = 50; left && !(await workPart(h.db)); left--) await new Promise((r) => setTimeout(r, 20))
  expect(await read(id)).toMatchObject({ state: 'done', done: 13 })
})

test('one that is stopped is left where it was; a change since makes it old; a worker takes up what another left', async () => {
  const { id } = await start()
  await workPart(h.db)
  const stopped = await h.call('POST', `/rankings/${id}/cancel`)
  expect(stopped.body).toMatchObject({ state: 'cancelled', done: 1 })
  expect(await workParts(h.db)).toBe(0)
  const again = await start()
  expect(again.id).not.toBe(id)
  // Started by nobody in particular: any worker that is up takes it.
  const end = await startJobs({ db: h.db, url: h.url, log: () => undefined })
  for (let left = 300; left && (await read(again.id)).state === 'running'; left--)
    await new Promise((r) => setTimeout(r, 50))
  await end()
  const r = await read(again.id)
  expect([r.state, r.stale]).toEqual(['done', false])
  const { body: tank } = await h.create('/tanks', { name: 'A new one', stockClassId: STOCK_CLASSES[1]?.id })
  expect((await read(again.id)).stale).toBe(true)
  expect((await h.call('GET', '/rankings/latest')).body.ranking.id).toBe(again.id)
  await h.call('DELETE', `/tanks/${tank.id}`, undefined, { 'if-match': `"${tank.version}"` })
})

test('a tank that cannot be worked out says so, and the others stand', async () => {
  const { id } = await start()
  // A class that is gone.
  await write(h.db, sql`update stock_class set deleted_at = now() where code = 'marine'`)
  await workParts(h.db)
  await write(h.db, sql`update stock_class set deleted_at = null where code = 'marine'`)
  const r = await read(id)
  expect(r.tanks.filter((t: { problem: string | null }) => t.problem).map((t: { problem: string }) => t.problem)).toEqual(['its stock class was removed']) // prettier-ignore
  expect(r.state).toBe('done')
  const [kept] = await h.db.select().from(ranking).where(eq(ranking.id, id))
  expect(kept?.finishedAt).toBeInstanceOf(Date)
  const parts = await h.db.select().from(rankingPart).where(eq(rankingPart.rankingId, id))
  expect(parts.every((p) => p.doneAt && p.worker)).toBe(true)
  expect((await h.call('GET', '/rankings/00000000-0000-4000-8000-000000000000')).status).toBe(404)
})
