import { sql } from 'drizzle-orm'
import { drizzle } from 'drizzle-orm/node-postgres'
import { migrate as runMigrations } from 'drizzle-orm/node-postgres/migrator'
import { randomUUID } from 'node:crypto'
import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildApp } from '../app'
import { restoreBackup } from '../keep/backup'
import { emptyDatabase, write } from '../tests/harness'
import { connect } from './client'
import { isReady, migrate } from './migrate'

const MIGRATIONS = join(__dirname, 'migrations')

/** A copy of the migrations that ends after the first so many. */
function firstOf(count: number): string {
  const folder = mkdtempSync(join(tmpdir(), 'ypsometer-migrations-'))
  cpSync(MIGRATIONS, folder, { recursive: true })
  const path = join(folder, 'meta', '_journal.json')
  const journal = JSON.parse(readFileSync(path, 'utf8')) as { entries: unknown[] }
  writeFileSync(path, JSON.stringify({ ...journal, entries: journal.entries.slice(0, count) }))
  return folder
}

test('a database of the first release is carried over with what is in it, and is ready only when all of it is in', async () => {
  const { db, pool } = connect(await emptyDatabase())
  const folder = firstOf(1)
  try {
    await runMigrations(drizzle(pool), { migrationsFolder: folder })
    expect(await isReady(db)).toBe(false)
    const [model, trial] = [randomUUID(), randomUUID()]
    await db.execute(
      sql`insert into model (id, maker, name, kind) values (${model}, 'Quillon', 'Early', 'canister')`,
    )
    await db.execute(sql`insert into trial (id, model_id, kind, state, lift, water_temperature, mains_frequency,
      vessel_volume, vessel_uncertainty, clock_resolution, reaction)
      values (${trial}, ${model}, 'power', 'as-shipped', 0, 22, 50, 0.005, 0.01, 0.01, 0.05)`)
    await db.execute(
      sql`insert into reading (id, trial_id, kind, taken_at, value) values (${randomUUID()}, ${trial}, 'power', now(), 14)`,
    )
    // What the first release filled in by itself.
    await db.execute(sql`insert into stock_class (id, position, label, min_turnover, max_turnover, litres_per_kilogram,
      oversizing, source) values ('heavy', 2, 'Heavy', 6, 15, 50, 2, ''), ('own', 9, 'Odd', 1, 2, 3, 4, 'mine')`)
    const tank = (name: string, stock: string) =>
      db.execute(sql`insert into tank (id, name, shape, length, width, bow_width, diameter, side, end_panel, front, height,
        water_level, substrate_depth, substrate_porosity, decor_volume, stock_class_id)
        values (${randomUUID()}, ${name}, 'box', 1, 1, 1, 1, 1, 0, 'flat', 1, 0.9, 0, 0.4, 0, ${stock})`)
    await tank('A', 'heavy')
    await tank('B', 'own')
    await migrate(db)
    expect(await isReady(db)).toBe(true)
    const lived =
      await db.execute(sql`select t.name, s.code, s.litres_per_kilogram as litres, s.strongest_current as current
      from tank t join stock_class s on s.id = t.stock_class_id order by t.name`)
    // What ships has its new numbers at once; what does not keeps its own.
    expect(lived.rows).toEqual([
      { name: 'A', code: 'heavy', litres: 50, current: 0.3 },
      { name: 'B', code: 'own', litres: 3, current: 0 },
    ])
    const kept = await db.execute(sql`select value from reading where trial_id = ${trial}`)
    expect(kept.rows).toEqual([{ value: 14 }])
    // What a later release brought is there: a kind of trial that the first one refused.
    await write(
      db,
      sql`insert into trial (id, model_id, kind, state, lift, water_temperature, mains_frequency,
      vessel_volume, vessel_uncertainty, clock_resolution, reaction)
      values (${randomUUID()}, ${model}, 'water-test', 'as-shipped', 0, 22, 50, 0.005, 0.01, 0.01, 0.05)`,
    )
  } finally {
    rmSync(folder, { recursive: true, force: true })
    await pool.end()
  }
})

test('the demo bench as it was kept on 30 November 2026 is carried over, and every screen’s answers can be read', async () => {
  const url = await emptyDatabase()
  // A restore works beside its file.
  const folder = mkdtempSync(join(tmpdir(), 'ypsometer-kept-'))
  cpSync(join(__dirname, '..', 'tests', 'kept', 'demo-2026-11-30.tar'), join(folder, 'kept.tar'))
  const { tables } = await restoreBackup(url, join(folder, 'kept.tar'))
  rmSync(folder, { recursive: true, force: true })
  const { db, pool } = connect(url)
  expect(await isReady(db)).toBe(false)
  await migrate(db)
  expect(await isReady(db)).toBe(true)
  const app = await buildApp({ db, logLevel: 'silent' })
  const read = async (path: string) => {
    const r = await app.inject({ url: `/api/v1${path}`, headers: { host: 'localhost' } })
    expect([path, r.statusCode]).toEqual([path, 200])
    return r.json()
  }
  try {
    const { items } = (await read('/models?limit=100')) as {
      items: { model: { id: string }; problem: string | null }[]
    }
    expect(items).toHaveLength(tables.model ?? 0)
    for (const { model, problem } of items) {
      expect(problem).toBeNull()
      const { dossier } = (await read(`/models/${model.id}/opened`)) as {
        dossier: { unreadable?: unknown[] }
      }
      expect(dossier.unreadable ?? []).toEqual([])
    }
    for (const path of [
      '/tanks',
      '/reviews',
      '/house-rules',
      '/media',
      '/stock-classes',
      '/candidates',
      '/history',
      '/upkeep/filters',
    ])
      await read(path)
    const kept = await pool.query('select count(*)::int as n from reading')
    expect(kept.rows).toEqual([{ n: tables.reading }])
  } finally {
    await app.close()
    await pool.end()
  }
}, 60_000)
