import { DOSSIER_ROWS, RESOURCES, type Dossier } from '@ypsometer/contract'
import { and, asc, eq, getTableColumns, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { PgColumn, PgTable } from 'drizzle-orm/pg-core'
import type { Db } from '../db/client'
import {
  body,
  chamber,
  claim,
  contentItem,
  fill,
  hookup,
  log,
  model,
  part,
  photo,
  reading,
  specimen,
  trial,
  visit,
} from '../db/schema'
import { travelling } from '../http/rows'
import { problem } from '../http/problems'
import { layers, segments } from './resources'

type OwnedTable = PgTable & { id: PgColumn; modelId: PgColumn; createdAt: PgColumn; deletedAt: PgColumn }

/** A photo's record without its pictures. */
const { full: _full, thumb: _thumb, ...PHOTO_COLUMNS } = getTableColumns(photo)

/** A log without its points. */
const { times: _times, values: _values, ...LOG_COLUMNS } = getTableColumns(log)

export type ModelRow = typeof model.$inferSelect

/** Of these models: their ids are given when the query is asked. */
const among = (column: PgColumn): SQL => sql`${column} = any(${sql.placeholder('ids')}::uuid[])`

/** The queries of a dossier, put into words once; they have no names of their own, so any pool may stand between. */
function queriesOf(db: Db) {
  const live = (t: OwnedTable): SQL | undefined => and(among(t.modelId), isNull(t.deletedAt))
  const byAge = (t: OwnedTable): SQL[] => [asc(t.createdAt), asc(t.id)]
  return {
    claims: db
      .select()
      .from(claim)
      .where(live(claim))
      .orderBy(...byAge(claim))
      .prepare(''),
    specimens: db
      .select()
      .from(specimen)
      .where(live(specimen))
      .orderBy(...byAge(specimen))
      .prepare(''),
    hookups: db
      .select()
      .from(hookup)
      .where(live(hookup))
      .orderBy(...byAge(hookup))
      .prepare(''),
    trials: db
      .select()
      .from(trial)
      .where(live(trial))
      .orderBy(...byAge(trial))
      .prepare(''),
    contents: db
      .select()
      .from(contentItem)
      .where(live(contentItem))
      .orderBy(...byAge(contentItem))
      .prepare(''),
    parts: db
      .select()
      .from(part)
      .where(live(part))
      .orderBy(...byAge(part))
      .prepare(''),
    bodies: db
      .select()
      .from(body)
      .where(live(body))
      .orderBy(...byAge(body))
      .prepare(''),
    chambers: db
      .select()
      .from(chamber)
      .where(live(chamber))
      .orderBy(...byAge(chamber))
      .prepare(''),
    fills: db
      .select()
      .from(fill)
      .where(live(fill))
      .orderBy(...byAge(fill))
      .prepare(''),
    visits: db
      .select()
      .from(visit)
      .where(live(visit))
      .orderBy(asc(visit.on), asc(visit.createdAt), asc(visit.id))
      .prepare(''),
    readings: db
      .select({ reading, modelId: trial.modelId })
      .from(reading)
      .innerJoin(trial, eq(trial.id, reading.trialId))
      .where(and(among(trial.modelId), isNull(trial.deletedAt), isNull(reading.deletedAt)))
      .orderBy(asc(reading.takenAt), asc(reading.id))
      .prepare(''),
    logs: db
      .select({ log: LOG_COLUMNS, modelId: trial.modelId })
      .from(log)
      .innerJoin(trial, eq(trial.id, log.trialId))
      .where(and(among(trial.modelId), isNull(trial.deletedAt), isNull(log.deletedAt)))
      .orderBy(asc(log.startedAt), asc(log.id))
      .prepare(''),
    photos: db
      .select({
        photo: PHOTO_COLUMNS,
        modelId: sql<string>`coalesce(${part.modelId}, ${trial.modelId}, ${visit.modelId})`,
      })
      .from(photo)
      .leftJoin(part, eq(part.id, photo.partId))
      .leftJoin(trial, eq(trial.id, photo.trialId))
      .leftJoin(visit, eq(visit.id, photo.visitId))
      .where(
        and(
          or(
            and(among(part.modelId), isNull(part.deletedAt)),
            and(among(trial.modelId), isNull(trial.deletedAt)),
            and(among(visit.modelId), isNull(visit.deletedAt)),
          ),
          isNull(photo.deletedAt),
        ),
      )
      .orderBy(asc(photo.createdAt), asc(photo.id))
      .prepare(''),
  }
}
const queries = new WeakMap<Db, ReturnType<typeof queriesOf>>()

/** Everything the dossiers of these models stand on, in fifteen queries whatever their number. */
export async function dossiers(db: Db, models: readonly ModelRow[]): Promise<readonly Dossier[]> {
  const ids = models.map((m) => m.id)
  if (!ids.length) return []
  const q = queries.get(db) ?? queriesOf(db)
  queries.set(db, q)
  const [
    claims,
    specimens,
    hookups,
    trials,
    contents,
    parts,
    bodies,
    chambers,
    fills,
    visits,
    readings,
    logs,
    photos,
  ] = await Promise.all([
    q.claims.execute({ ids }),
    q.specimens.execute({ ids }),
    q.hookups.execute({ ids }),
    q.trials.execute({ ids }),
    q.contents.execute({ ids }),
    q.parts.execute({ ids }),
    q.bodies.execute({ ids }),
    q.chambers.execute({ ids }),
    q.fills.execute({ ids }),
    q.visits.execute({ ids }),
    q.readings.execute({ ids }),
    q.logs.execute({ ids }),
    q.photos.execute({ ids }),
  ])
  const piecesOf = await segments.read(db, idsOf(hookups))
  const layersOf = await layers.read(db, idsOf(fills))
  const of = <T extends { modelId: string }>(rows: readonly T[], id: string) =>
    rows.filter((r) => r.modelId === id).map(travelling)
  return models.map((m) => ({
    model: travelling(m),
    claims: of(claims, m.id),
    specimens: of(specimens, m.id),
    hookups: of(hookups, m.id).map((h) => ({ ...h, segments: piecesOf.get(h.id) ?? [] })),
    trials: of(trials, m.id),
    readings: readings.filter((r) => r.modelId === m.id).map((r) => travelling(r.reading)),
    logs: logs.filter((r) => r.modelId === m.id).map((r) => travelling(r.log)),
    contents: of(contents, m.id),
    parts: of(parts, m.id),
    bodies: of(bodies, m.id),
    chambers: of(chambers, m.id),
    fills: of(fills, m.id).map((f) => ({ ...f, layers: layersOf.get(f.id) ?? [] })),
    visits: of(visits, m.id),
    photos: photos.filter((r) => r.modelId === m.id).map((r) => travelling(r.photo)),
  }))
}

const idsOf = (rows: readonly { readonly id: string }[]): string[] => rows.map((r) => r.id)

/** One dossier. @throws 404 for a model that is not there; a deleted one is given, marked by `deletedAt`. */
export async function dossier(db: Db, id: string): Promise<Dossier> {
  const rows = await db.select().from(model).where(eq(model.id, id))
  const [found] = await dossiers(db, rows)
  if (!found) throw problem(404, 'not-found', 'There is no such model')
  return readable(found)
}

/** A dossier without the rows that cannot be read, which it names: one row never takes the others with it. */
function readable(d: Dossier): Dossier {
  const unreadable: NonNullable<Dossier['unreadable']> = []
  const read = DOSSIER_ROWS.map((collection) => {
    const { Row, one } = RESOURCES[collection]
    const whole = d[collection].filter((row) => {
      const wrong = Row.safeParse(row).error?.issues[0]
      if (!wrong) return true
      const { id, version } = row
      unreadable.push({ collection, one, id, version, field: wrong.path.join('.'), message: wrong.message })
      return false
    })
    return [collection, whole]
  })
  return unreadable.length ? { ...d, ...Object.fromEntries(read), unreadable } : d
}
