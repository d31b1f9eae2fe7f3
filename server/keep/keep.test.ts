import { sql } from 'drizzle-orm'
import { randomUUID } from 'node:crypto'
import {
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  truncateSync,
  writeFileSync,
  copyFileSync,
  chmodSync,
} from 'node:fs'
import { execFileSync } from 'node:child_process'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect } from '../db/client'
import { migrate } from '../db/migrate'
import { demoHarness, emptyDatabase, harness, type Harness, write } from '../tests/harness'
import { BackupRefused, makeBackup, restoreBackup } from './backup'
import { backUp, startJobs } from './jobs'
import { prune } from './prune'
import { lastBackup } from './status'

let h: Harness
let folder = ''
beforeAll(async () => {
  h = await demoHarness()
  folder = mkdtempSync(join(tmpdir(), 'ypsometer-keep-'))
  chmodSync(folder, 0o755)
})
afterAll(async () => {
  await h.close()
  rmSync(folder, { recursive: true, force: true })
})

/** Each table of a database with a hash of all that is in it, row by row. */
async function contents(url: string): Promise<Record<string, string>> {
  const { db, pool } = connect(url)
  const { rows } = await db.execute<{ name: string }>(
    sql`select tablename as name from pg_tables where schemaname = 'public' order by 1`,
  )
  const out: Record<string, string> = {}
  for (const { name } of rows) {
    const t = sql.identifier(name)
    const { rows: one } = await db.execute<{ n: number; hash: string }>(
      sql`select count(*)::int as n, md5(coalesce(string_agg(r, '|' order by r), '')) as hash from (select ${t}::text as r from ${t}) x`,
    )
    out[name] = `${one[0]?.n} rows, ${one[0]?.hash}`
  }
  await pool.end()
  return out
}

test('a backup made while others write is one moment; restored into an empty record every table is the same', async () => {
  const made = await h.create('/models', { maker: 'Quillon', name: 'Written meanwhile', kind: 'canister' })
  const trial = (await h.create('/trials', { modelId: made.body.id })).body
  let going = true
  let written = 0
  const writer = (async () => {
    while (going) {
      const r = await h.create('/readings', {
        trialId: trial.id,
        kind: 'vessel',
        takenAt: new Date().toISOString(),
        volume: 0.005,
        seconds: 20,
      })
      if (r.status === 201) written++
    }
  })()
  while (written < 5) await new Promise((r) => setTimeout(r, 10))
  const file = join(folder, 'shop.tar')
  const manifest = await makeBackup(h.url, file)
  going = false
  await writer
  expect(manifest.tables.reading).toBeGreaterThanOrEqual(5)
  expect(manifest.tables.model).toBe(12)

  // A second one at rest is compared word for word.
  const still = join(folder, 'still.tar')
  await makeBackup(h.url, still)
  const before = await contents(h.url)
  const other = await emptyDatabase()
  await restoreBackup(other, still)
  expect(await contents(other)).toEqual(before)
  // And it goes on from there: migrated, written to, its shelf kept up.
  const { db, pool } = connect(other)
  await migrate(db)
  await write(db, sql`update model set note = 'x' where id = ${made.body.id}`)
  const { rows } = await db.execute<{ revision: number }>(
    sql`select revision from shelf_entry where model_id = ${made.body.id}`,
  )
  expect(rows[0]?.revision).toBeGreaterThan(1)
  await pool.end()
  expect(readdirSync(folder).filter((n) => n.startsWith('.'))).toEqual([])
}, 60_000)

test('who was let in when a backup was made signs in anew after it was restored: accounts and history are back, sessions are not', async () => {
  const own = await harness()
  const id = randomUUID()
  await own.create('/tanks', { name: 'Told' })
  await own.db.execute(
    sql`insert into account (id, name, role, password_hash) values (${id}, 'Orla', 'owner', 'x')`,
  )
  await own.db.execute(sql`insert into session (id, account_id, secret_hash, ends_at, address)
    values (${randomUUID()}, ${id}, 'x', now() + interval '9 days', '::1')`)
  await own.db.execute(sql`insert into pass (id, account_id, purpose, secret_hash, ends_at)
    values (${randomUUID()}, ${id}, 'recovery', 'x', now() + interval '1 day')`)
  const file = join(folder, 'people.tar')
  await makeBackup(own.url, file)
  await own.close()
  const other = await emptyDatabase()
  await restoreBackup(other, file)
  const { db, pool } = connect(other)
  const count = async (table: string): Promise<number> =>
    Number(
      (await db.execute<{ n: string }>(sql`select count(*) as n from ${sql.identifier(table)}`)).rows[0]?.n,
    )
  expect(await Promise.all(['account', 'row_change', 'session', 'pass'].map(count))).toEqual([1, 1, 0, 0])
  // What was done stays out of reach of statements there too.
  await expect(db.execute(sql`delete from row_change`)).rejects.toThrow()
  await pool.end()
})

test('sessions that have ended, links and counts of tries go; those that hold stay', async () => {
  const own = await harness()
  const id = randomUUID()
  await own.db.execute(sql`insert into account (id, name, role) values (${id}, 'Orla', 'owner')`)
  for (const [ends, seen] of [
    ['1 day', '0'],
    ['-1 day', '0'],
    ['1 day', '-15 days'],
    ['1 day', '-13 days'],
  ] as const)
    await own.db.execute(sql`insert into session (id, account_id, secret_hash, ends_at, seen_at, address)
      values (${randomUUID()}, ${id}, ${randomUUID()}, now() + ${ends}::interval, now() + ${seen}::interval, '::1')`)
  await own.db.execute(
    sql`insert into sign_in_try values ('old', 1, ${Date.now() - 1000}), ('new', 1, ${Date.now() + 60_000})`,
  )
  expect(await prune(own.db)).toBe(3)
  const { rows } = await own.db.execute<{ n: string; tries: string }>(
    sql`select (select count(*) from session) as n, (select string_agg(key, ',') from sign_in_try) as tries`,
  )
  expect(rows[0]).toMatchObject({ n: '2', tries: 'new' })
  await own.close()
})

describe('a backup that cannot be trusted is refused before anything is touched', () => {
  const bad = (name: string, spoil: (path: string) => void): string => {
    const path = join(folder, name)
    copyFileSync(join(folder, 'still.tar'), path)
    spoil(path)
    return path
  }
  const repack = (path: string, change: (manifest: Record<string, unknown>) => void): void => {
    const own = mkdtempSync(join(folder, 'repack-'))
    execFileSync('tar', ['-xf', path, '-C', own])
    const manifest = JSON.parse(readFileSync(join(own, 'manifest.json'), 'utf8')) as Record<string, unknown>
    change(manifest)
    writeFileSync(join(own, 'manifest.json'), JSON.stringify(manifest))
    execFileSync('tar', ['-cf', path, '-C', own, 'manifest.json', 'record.dump'])
    rmSync(own, { recursive: true })
  }
  test.each([
    ['cut short', (p: string) => truncateSync(p, Math.floor(statSync(p).size / 2)), 'cut short'],
    [
      'altered',
      (p: string) => {
        const bytes = readFileSync(p)
        bytes.writeUInt8(bytes.readUInt8(bytes.length - 60_000) ^ 1, bytes.length - 60_000)
        writeFileSync(p, bytes)
      },
      'altered',
    ],
    [
      'of a newer version',
      (p: string) => repack(p, (m) => (m.migrations = [...(m.migrations as string[]), 'abc'])),
      'newer version',
    ],
    ['of another format', (p: string) => repack(p, (m) => (m.version = 9)), 'manifest'],
    ['no backup at all', (p: string) => writeFileSync(p, 'holiday pictures'), 'not a backup'],
  ] as const)('%s', async (name, spoil, words) => {
    const path = bad(`${name}.tar`, spoil)
    const target = await emptyDatabase()
    await expect(restoreBackup(target, path)).rejects.toThrow(words)
    expect(await contents(target)).toEqual({})
  })
  test('and so is any over a record that holds models, unless that is asked for: then it is backed up first', async () => {
    const still = join(folder, 'still.tar')
    await h.create('/models', { maker: 'Quillon', name: 'After the backup', kind: 'canister' })
    await expect(restoreBackup(h.url, still)).rejects.toThrow('--over')
    const before = join(folder, 'before.tar')
    await restoreBackup(h.url, still, before)
    const names = (await h.call('GET', '/models?search=After')).body.items
    expect(names).toEqual([])
    expect((await restoreBackup(await emptyDatabase(), before)).tables.model).toBe(13)
  }, 60_000)
})

test('the nightly job keeps so many, says when, and what is older goes', async () => {
  const backups = { folder: join(folder, 'nightly'), kept: 2 }
  const said: string[] = []
  const keeping = { db: h.db, url: h.url, backups, log: (t: string) => void said.push(t) }
  expect((await h.call('GET', '/status')).body.backup).toBeNull()
  for (const day of [1, 2, 3]) await backUp(keeping, new Date(Date.UTC(2026, 10, day, 3, 30)))
  expect(readdirSync(backups.folder)).toEqual([
    'ypsometer-2026-11-02T033000Z.tar',
    'ypsometer-2026-11-03T033000Z.tar',
  ])
  expect((await h.call('GET', '/status')).body.backup).toMatchObject({ at: '2026-11-03T03:30:00.000Z' })
  expect(said).toHaveLength(3)
}, 60_000)

test('two workers share the jobs: the backup that is due is made once', async () => {
  const backups = { folder: join(folder, 'shared'), kept: 5 }
  const keeping = { db: h.db, url: h.url, backups, log: () => undefined }
  const ends = await Promise.all([startJobs(keeping), startJobs(keeping)])
  for (let i = 0; i < 200; i++) {
    const last = await lastBackup(h.db)
    if (last && Date.now() - Date.parse(last.at) < 60_000) break
    await new Promise((r) => setTimeout(r, 100))
  }
  await Promise.all(ends.map((end) => end()))
  expect(readdirSync(backups.folder)).toHaveLength(1)
}, 60_000)

test('what was deleted long ago and answers nobody asks for go; what is younger, or still in use, stays', async () => {
  const gone = (await h.create('/tanks', { name: 'Long gone' })).body
  const young = (await h.create('/tanks', { name: 'Just gone' })).body
  const used = (await h.call('GET', '/media')).body.items[0]
  await write(h.db, sql`update tank set deleted_at = now() - interval '91 days' where id = ${gone.id}`)
  await write(h.db, sql`update tank set deleted_at = now() - interval '89 days' where id = ${young.id}`)
  await write(
    h.db,
    sql`update medium set deleted_at = now() - interval '91 days' where id in (select medium_id from layer)`,
  )
  await h.db.execute(sql`insert into idempotency_key (key, route, request_hash, status, answer, created_at)
    values (${randomUUID()}, 'x', 'x', 200, '{}', now() - interval '91 days')`)
  expect(await prune(h.db)).toBe(2)
  const tanks = await h.db.execute(sql`select name from tank where name like '%gone'`)
  expect(tanks.rows).toEqual([{ name: 'Just gone' }])
  await write(h.db, sql`update medium set deleted_at = null`)
  expect(used).toBeDefined()
})

test('what was typed is let go of when the field is emptied, and never grows beyond its bound', async () => {
  const made = (await h.create('/tanks', { name: 'Typed', typed: { width: '60 cm', length: '1 m' } })).body
  const patch = (version: number, typed: Record<string, string>) =>
    h.call('PATCH', `/tanks/${made.id}`, { typed }, { 'if-match': `"${version}"` })
  expect((await patch(1, { width: '' })).body.typed).toEqual({ length: '1 m' })
  const many = (from: number) =>
    Object.fromEntries(Array.from({ length: 40 }, (_, i) => [`f${from + i}`, 'x']))
  expect((await patch(2, many(0))).status).toBe(200)
  expect(await patch(3, many(40))).toMatchObject({ status: 422, body: { errors: [{ field: 'typed' }] } })
})

test('a backup that was made to run a program is refused by the database, and runs none', async () => {
  const from = await emptyDatabase()
  const mark = join(folder, 'ran')
  chmodSync(folder, 0o777)
  const { db, pool } = connect(from)
  await migrate(db)
  await db.execute(
    sql.raw(`create function ran() returns int language plpgsql as $$
      begin copy (select 1) to program 'touch ${mark}'; return 1; end $$`),
  )
  await db.execute(sql`create materialized view held as select ran() as a`)
  await pool.end()
  // The database of the test runs it where it is made; a restore must not.
  expect(existsSync(mark)).toBe(true)
  rmSync(mark)
  const file = join(folder, 'crafted.tar')
  await makeBackup(from, file)
  expect(statSync(file).mode & 0o777).toBe(0o600)
  const into = await emptyDatabase()
  await expect(restoreBackup(into, file)).rejects.toThrow(BackupRefused)
  expect(existsSync(mark)).toBe(false)
  // Nothing of it is there, nor of the role that was to write it.
  const { db: after, pool: done } = connect(into)
  const { rows } = await after.execute(
    sql`select (select count(*)::int from pg_tables where schemaname = 'public') as tables,
      (select count(*)::int from pg_roles where rolname like 'ypsometer_restore%') as roles`,
  )
  await done.end()
  expect(rows).toEqual([{ tables: 0, roles: 0 }])
}, 60_000)

test('a backup with a date ahead does not count as the last one', async () => {
  const bare = { db: h.db, url: h.url, log: () => undefined }
  const ahead = new Date(Date.now() + 30 * 86_400_000)
  await backUp({ ...bare, backups: { folder: join(folder, 'ahead'), kept: 2 } }, ahead)
  expect(await lastBackup(h.db)).toBeNull()
  await backUp({ ...bare, backups: { folder: join(folder, 'ahead'), kept: 2 } })
  expect(Date.parse((await lastBackup(h.db))?.at ?? '')).toBeLessThan(Date.now() + 1000)
}, 60_000)
