import { sql } from 'drizzle-orm'
import type { Db } from '@ypsometer/server/db/client'

/** A shelf of this many models with twice as many trials, ten readings each; the same every time. */
export const MODELS = 10_000

/** An id that depends on the words alone. */
const id = (words: string): string =>
  `overlay(overlay(md5(${words}) placing '4' from 13) placing '8' from 17)::uuid`

/** A number from 0 to 1 that depends on the words alone. */
const chance = (words: string): string =>
  `(('x' || substr(md5(${words}), 1, 8))::bit(32)::bigint::float8 / 4294967295)`

/** Puts them into a database. */
export async function fill(db: Db): Promise<void> {
  await db.execute(
    sql.raw(`insert into model (id, maker, name, kind)
    select ${id("'model' || i")}, 'Maker ' || i % 97, 'Model ' || md5('name' || i), case when i % 3 = 0 then 'internal' else 'canister' end
    from generate_series(1, ${MODELS}) i`),
  )
  await db.execute(
    sql.raw(`insert into claim (id, model_id, quantity, value, printed_on)
    select ${id('q || i')}, ${id("'model' || i")}, q,
      case q when 'rated-flow' then (400 + 1600 * ${chance("'flow' || i")}) / 3.6e6 when 'max-head' then 0.8 + 2 * ${chance("'head' || i")} else 0.1 + 0.5 * ${chance("'tank' || i")} end, 'box'
    from generate_series(1, ${MODELS}) i, unnest(array['rated-flow', 'max-head', 'tank-max']) q`),
  )
  await db.execute(
    sql.raw(`insert into trial (id, created_at, model_id, kind, state, lift, water_temperature, mains_frequency, vessel_volume, vessel_uncertainty, clock_resolution, reaction)
    select ${id("'trial' || i || '-' || t")}, now() - make_interval(mins => i), ${id("'model' || i")}, 'vessel', case t when 1 then 'empty' else 'as-shipped' end, 0, 22, 50, 0.005, 0.01, 0.01, 0.05
    from generate_series(1, ${MODELS}) i, generate_series(1, 2) t`),
  )
  await db.execute(
    sql.raw(`insert into reading (id, trial_id, kind, taken_at, volume, seconds)
    select ${id("'reading' || i || '-' || t || '-' || r")}, ${id("'trial' || i || '-' || t")}, 'vessel', now(), 0.005,
      0.005 * 3.6e6 / ((400 + 1600 * ${chance("'flow' || i")}) * (1.1 - 0.2 * t)) * (0.98 + 0.04 * ${chance("'run' || i || t || r")})
    from generate_series(1, ${MODELS}) i, generate_series(1, 2) t, generate_series(1, 10) r`),
  )
  await db.execute(sql.raw('analyze'))
}
