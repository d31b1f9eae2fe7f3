import { sql } from 'drizzle-orm'
import { buildApp } from '@ypsometer/server/app'
import { connect, migrate, type Db } from '@ypsometer/server/db/client'
import { refreshShelf } from '@ypsometer/server/models/shelfEntries'
import { throwawayCluster } from '../lib/cluster.mjs'

/** A shelf of this many models with twice as many trials, ten readings each; the same every time. */
const MODELS = 10_000

/** A number from 0 to 1 that depends on the words alone. */
const chance = (words: string): string =>
  `(('x' || substr(md5(${words}), 1, 8))::bit(32)::bigint::float8 / 4294967295)`

async function fill(db: Db): Promise<void> {
  await db.execute(
    sql.raw(`insert into model (id, maker, name, kind)
    select md5('model' || i)::uuid, 'Maker ' || i % 97, 'Model ' || md5('name' || i), case when i % 3 = 0 then 'internal' else 'canister' end
    from generate_series(1, ${MODELS}) i`),
  )
  await db.execute(
    sql.raw(`insert into claim (id, model_id, quantity, value, printed_on)
    select md5(q || i)::uuid, md5('model' || i)::uuid, q,
      case q when 'rated-flow' then (400 + 1600 * ${chance("'flow' || i")}) / 3.6e6 when 'max-head' then 0.8 + 2 * ${chance("'head' || i")} else 0.1 + 0.5 * ${chance("'tank' || i")} end, 'box'
    from generate_series(1, ${MODELS}) i, unnest(array['rated-flow', 'max-head', 'tank-max']) q`),
  )
  await db.execute(
    sql.raw(`insert into trial (id, model_id, kind, state, lift, water_temperature, mains_frequency, vessel_volume, vessel_uncertainty, clock_resolution, reaction)
    select md5('trial' || i || '-' || t)::uuid, md5('model' || i)::uuid, 'vessel', case t when 1 then 'empty' else 'as-shipped' end, 0, 22, 50, 0.005, 0.01, 0.01, 0.05
    from generate_series(1, ${MODELS}) i, generate_series(1, 2) t`),
  )
  await db.execute(
    sql.raw(`insert into reading (id, trial_id, kind, taken_at, volume, seconds)
    select md5('reading' || i || '-' || t || '-' || r)::uuid, md5('trial' || i || '-' || t)::uuid, 'vessel', now(), 0.005,
      0.005 * 3.6e6 / ((400 + 1600 * ${chance("'flow' || i")}) * (1.1 - 0.2 * t)) * (0.98 + 0.04 * ${chance("'run' || i || t || r")})
    from generate_series(1, ${MODELS}) i, generate_series(1, 2) t, generate_series(1, 10) r`),
  )
  await db.execute(sql.raw('analyze'))
}

const median = (list: readonly number[]): number =>
  [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? NaN

/** A page of the shelf against the bare SQL of the same page, at every depth, in turns. */
export async function shelfOfMany(): Promise<void> {
  const cluster = await throwawayCluster()
  const { db, pool } = connect(cluster.url)
  await migrate(db)
  await fill(db)
  const from = performance.now()
  let worked = 0
  for (let n = 1; n; worked += n) n = await refreshShelf(db, 500)
  const each = (performance.now() - from) / worked
  const app = await buildApp({ db, logLevel: 'silent' })
  const ask = async (path: string): Promise<{ next: string | null }> => {
    const r = await app.inject({ url: `/api/v1/models?limit=40${path}`, headers: { host: 'localhost' } })
    return r.json()
  }
  const bare = {
    name: { first: '', rest: 'and (lower(m.name), m.id) > ($1, $2)', by: 'lower(m.name), m.id' },
    'rated-flow': {
      first: '',
      rest: 'and (s.rated_flow, s.model_id) < ($1, $2)',
      by: 's.rated_flow desc nulls last, s.model_id desc nulls last',
    },
  } as const
  for (const sort of ['name', 'rated-flow'] as const) {
    const pages: number[] = []
    const queries: number[] = []
    let cursor = ''
    let seen: [string | number, string] | undefined
    for (let i = 0; i < 200; i++) {
      const before = performance.now()
      const { next } = await ask(`&sort=${sort}${cursor}`)
      pages.push(performance.now() - before)
      cursor = next ? `&cursor=${encodeURIComponent(next)}` : ''
      const then = performance.now()
      const { by, first, rest } = bare[sort]
      const { rows } = await pool.query<{ id: string; name: string; rated_flow: number }>(
        `select m.*, s.* from model m join shelf_entry s on s.model_id = m.id
         where m.deleted_at is null ${seen ? rest : first} order by ${by} limit 41`,
        seen ?? [],
      )
      const last = rows[39]
      seen = last && [sort === 'name' ? last.name.toLowerCase() : last.rated_flow, last.id]
      await pool.query('select count(*) from model where deleted_at is null')
      queries.push(performance.now() - then)
    }
    console.log(
      `shelf of ${MODELS}, by ${sort.padEnd(10)} page ${median(pages).toFixed(1)} ms · bare SQL ${median(queries).toFixed(1)} ms · ${(median(pages) / median(queries)).toFixed(2)} times · target 2 times`,
    )
  }
  console.log(
    `shelf of ${MODELS}, kept up    ${each.toFixed(1)} ms a row in the job · ${(process.memoryUsage().rss / 2 ** 20).toFixed(0)} MB resident`,
  )
  await app.close()
  await pool.end()
  cluster.stop()
}
