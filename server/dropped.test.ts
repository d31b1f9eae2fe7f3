import { sql } from 'drizzle-orm'
import pg from 'pg'
import { harness, type Harness } from './tests/harness'

let h: Harness
beforeAll(async () => {
  h = await harness()
})
afterAll(() => h.close())

test('connections dropped under load, in the middle of transactions: the server lives, says 503 with a hint, and what it acknowledged is there', async () => {
  const killer = new pg.Client({ connectionString: h.url })
  killer.on('error', () => undefined)
  await killer.connect()
  let writing = true
  const drops = (async () => {
    while (writing) {
      await killer.query(
        'select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid()',
      )
      await new Promise((r) => setTimeout(r, 60))
    }
  })()
  const made = await Promise.all(
    Array.from({ length: 20 }, async (_, writer) => {
      const kept: string[] = []
      for (let i = 0; i < 10; i++) {
        const r = await h.create('/models', {
          maker: 'Pellam Works',
          name: `Drop ${writer}-${i}`,
          kind: 'internal',
        })
        if (r.status === 201) kept.push(String(r.body.id))
        else {
          expect([r.status, r.body.code]).toEqual([503, 'database-away'])
          expect(Number(r.headers['retry-after'])).toBeGreaterThan(0)
        }
      }
      return kept
    }),
  )
  writing = false
  await drops
  await killer.end()
  const { rows } = await h.db.execute<{ id: string }>(sql`select id from model`)
  const there = new Set(rows.map((r) => r.id))
  for (const id of made.flat()) expect(there.has(id)).toBe(true)
  // It recovers by itself.
  expect((await h.create('/models', { maker: 'Pellam Works', name: 'After', kind: 'internal' })).status).toBe(
    201,
  )
})
