import { buildApp } from '@ypsometer/server/app'
import { connect } from '@ypsometer/server/db/client'
import { migrate } from '@ypsometer/server/db/migrate'
import { refreshShelf } from '@ypsometer/server/models/shelfEntries'
import { throwawayCluster } from '../lib/cluster.mjs'
import { fill, MODELS } from './many'

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
