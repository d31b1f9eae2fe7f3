import { connect, type Db } from '@ypsometer/server/db/client'
import { migrate } from '@ypsometer/server/db/migrate'
import { loadDemo } from '@ypsometer/server/demo/load'
import { ranking, shelfEntry } from '@ypsometer/server/db/schema'
import { startRanking } from '@ypsometer/server/ranking/parts'
import { eq, sql } from 'drizzle-orm'
import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { fileURLToPath } from 'node:url'
import { throwawayCluster } from '../lib/cluster.mjs'

const SIZES = [250, 500, 1000] as const

/** Copies of the demo’s models with all that hangs on them, until there are so many. */
async function grow(db: Db, to: number): Promise<void> {
  const copied: readonly (readonly [table: string, owner: string])[] = [
    ['claim', 'model_id'],
    ['specimen', 'model_id'],
    ['body', 'model_id'],
    ['chamber', 'model_id'],
    ['hookup', 'model_id'],
    ['fill', 'model_id'],
    ['trial', 'model_id'],
    ['part', 'model_id'],
    ['segment', 'hookup_id'],
    ['layer', 'fill_id'],
    ['reading', 'trial_id'],
  ]
  const named = /(^|_)id$/
  const own = ['layer', 'segment']
  const { rows } = await db.execute<{ id: string }>(sql`select id from model where name !~ ' #' order by id`)
  const { rows: count } = await db.execute<{ n: number }>(sql`select count(*)::int as n from model`)
  for (let i = count[0]?.n ?? 0; i < to; i++) {
    const from = rows[i % rows.length]?.id ?? ''
    const again = (column: string): string => `md5(${column}::text || '${i}')::uuid`
    const copy = async (table: string, where: string): Promise<void> => {
      const { rows: columns } = await db.execute<{ name: string; type: string }>(
        sql`select column_name as name, data_type as type from information_schema.columns where table_name = ${table} order by ordinal_position`,
      )
      const values = columns.map(({ name, type }) => {
        const q = `"${name}"`
        if (table === 'model' && name === 'name') return `${q} || ' #${i}'`
        const shared = ['medium_id', 'house_rule_id', 'kin_id'].includes(name)
        return type === 'uuid' && named.test(name) && !shared
          ? `case when ${q} is null then null else ${again(q)} end`
          : q
      })
      await db.execute(
        sql.raw(
          `insert into ${table} (${columns.map((c) => `"${c.name}"`).join()}) select ${values.join()} from ${table} where ${where}`,
        ),
      )
    }
    await copy('model', `id = '${from}'`)
    for (const [table, owner] of copied) {
      const parent = { model_id: `= '${from}'`, hookup_id: `in (select id from hookup where model_id = '${from}')`, fill_id: `in (select id from fill where model_id = '${from}')`, trial_id: `in (select id from trial where model_id = '${from}')` }[owner] ?? '' // prettier-ignore
      // Ids of layers and pieces are names of their own within their parent.
      if (own.includes(table)) await copyWithin(db, table, owner, parent, again)
      else await copy(table, `${owner} ${parent}`)
    }
  }
  await db.execute(sql.raw('analyze'))
}

async function copyWithin(
  db: Db,
  table: string,
  owner: string,
  parent: string,
  again: (column: string) => string,
): Promise<void> {
  const { rows } = await db.execute<{ name: string }>(
    sql`select column_name as name from information_schema.columns where table_name = ${table} order by ordinal_position`,
  )
  const renewed = [owner, 'chamber_id']
  const values = rows.map(({ name }) => (renewed.includes(name) ? again(`"${name}"`) : `"${name}"`))
  await db.execute(
    sql.raw(
      `insert into ${table} (${rows.map((c) => `"${c.name}"`).join()}) select ${values.join()} from ${table} where ${owner} ${parent}`,
    ),
  )
}

const said = (child: ChildProcess, word: string): Promise<void> =>
  new Promise((resolve) => {
    const listen = (d: Buffer): void => {
      if (!d.toString().includes(word)) return
      child.stdout?.off('data', listen)
      resolve()
    }
    child.stdout?.on('data', listen)
  })

/** Puts the database on these cores, with the connections it opens from now on. */
async function databaseOn(db: Db, cores: string): Promise<void> {
  const { rows } = await db.execute<{ pid: string }>(
    sql`select split_part(pg_read_file('postmaster.pid'), chr(10), 1) as pid`,
  )
  execFileSync('taskset', ['-a', '-cp', cores, rows[0]?.pid ?? ''], { stdio: 'ignore' })
}

/**
 * Ranks the whole shelf from nothing in so many worker processes; seconds. Each has a core of its own, and the database
 * is on the same ones: what a second worker brings is then what a second core brings, and not what the first one left
 * of it. They rank it once before that: workers live long, and a process that has just started spends as much on
 * compiling itself as on the work.
 */
async function rankIn(db: Db, url: string, workers: number): Promise<number> {
  const script = fileURLToPath(new URL('./rankProcess.ts', import.meta.url))
  await databaseOn(db, `0-${workers - 1}`)
  const all = Array.from({ length: workers }, (_, core) =>
    spawn('taskset', ['-c', String(core), process.execPath, '--import', 'tsx', script], {
      env: { ...process.env, DATABASE_URL: url },
      stdio: ['pipe', 'pipe', 'inherit'],
    }),
  )
  await Promise.all(all.map((w) => said(w, 'ready')))
  await rankOnce(db, all)
  const seconds = await rankOnce(db, all)
  all.forEach((w) => w.kill())
  return seconds
}

async function rankOnce(db: Db, workers: readonly ChildProcess[]): Promise<number> {
  await db.update(shelfEntry).set({ workedFrom: null, candidate: null })
  const id = await db.transaction((tx) => startRanking(db, tx))
  const ended = workers.map((w) => said(w, 'done'))
  const from = performance.now()
  workers.forEach((w) => w.stdin?.write('go\n'))
  await Promise.all(ended)
  const seconds = (performance.now() - from) / 1000
  const [row] = await db.select().from(ranking).where(eq(ranking.id, id))
  if (row?.state !== 'done') throw new Error(`The ranking ended ${row?.state}.`)
  return seconds
}

/** The whole shelf for twelve tanks as a job: linear in the models, and two workers against one. */
export async function shelfRanked(): Promise<void> {
  const cluster = await throwawayCluster()
  const { db, pool } = connect(cluster.url)
  await migrate(db)
  await loadDemo(db)
  const alone: number[] = []
  let two = NaN
  for (const n of SIZES) {
    await grow(db, n)
    alone.push(await rankIn(db, cluster.url, 1))
    if (n === SIZES[1]) two = await rankIn(db, cluster.url, 2)
  }
  const each = alone.map((s, i) => (s / (SIZES[i] ?? 1)) * 1000)
  console.log(
    `the shelf ranked, 12 tanks   ${SIZES.map((n, i) => `${n} models ${alone[i]?.toFixed(1)} s`).join(', ')}: ${each.map((e) => e.toFixed(0)).join(', ')} ms a model · two workers on two cores take ${((two / (alone[1] ?? NaN)) * 100).toFixed(0)} % of the time of one on one at ${SIZES[1]} · targets linear, nearly half`,
  )
  await pool.end()
  cluster.stop()
}
