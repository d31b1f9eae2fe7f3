import { modelRecord, type CsvTable, type Dossier } from '@ypsometer/contract'
import { writeTable } from '@ypsometer/contract/csv'
import { trialResults } from '@ypsometer/core/trials/flows'
import { fromMinor } from '@ypsometer/core/units/money'
import { and, asc, eq, isNull, type SQL } from 'drizzle-orm'
import type { Db } from '../db/client'
import { claim, log, model, part, reading, tank, trial, visit } from '../db/schema'
import { plainRows } from '../documents/export'
import { dossier } from '../models/queries'
import { COLLECTION_OF, columnsOf } from './columns'

/** Which rows: those of one model, or all there are. */
interface Of {
  readonly modelId: string | undefined
}

/** A model by its names, which stand in a table for people to read. */
type Names = ReadonlyMap<string, readonly [maker: string, name: string]>
const namesOf = async (db: Db): Promise<Names> =>
  new Map(
    (await db.select({ id: model.id, maker: model.maker, name: model.name }).from(model)).map((m) => [
      m.id,
      [m.maker, m.name],
    ]),
  )

/** A cell: what is no number, word, or yes or no, as JSON. */
const cell = (v: unknown): unknown => (v !== null && typeof v === 'object' ? JSON.stringify(v) : v)

/** A table of rows as they are: every field a column, numbers in SI, and the names of the model beside its id. */
async function rowsTable(db: Db, table: keyof typeof COLLECTION_OF, { modelId }: Of): Promise<string> {
  const name = COLLECTION_OF[table]
  const columns = columnsOf(name)
  const stored = { claims: claim, runs: reading, parts: part, tanks: tank, visits: visit }[table]
  const living = isNull(stored.deletedAt)
  const mine: SQL | undefined =
    modelId === undefined ? undefined : 'modelId' in stored ? eq(stored.modelId, modelId) : undefined
  const all = await plainRows(db, name, and(living, mine))
  const names = await namesOf(db)
  const trials = new Map(
    table === 'runs'
      ? (
          await db
            .select({ id: trial.id, modelId: trial.modelId })
            .from(trial)
            .where(
              and(isNull(trial.deletedAt), modelId === undefined ? undefined : eq(trial.modelId, modelId)),
            )
        ).map((t) => [t.id, t.modelId])
      : [],
  )
  const owner = (r: Readonly<Record<string, unknown>>): string =>
    String(table === 'runs' ? trials.get(String(r.trialId)) : r.modelId)
  const rows = table === 'runs' ? all.filter((r) => trials.has(String(r.trialId))) : all
  const named = table !== 'tanks'
  return writeTable(
    [...(named ? ['maker', 'model'] : []), ...columns.map((c) => c.header)],
    rows.map((r) => [
      ...(named ? (names.get(owner(r)) ?? ['', '']) : []),
      ...columns.map((c) => cell((r as Readonly<Record<string, unknown>>)[c.field])),
    ]),
  )
}

/** Prices of models: the list price among the claims, and what they are offered for. */
async function pricesTable(db: Db, { modelId }: Of): Promise<string> {
  const models = await db
    .select()
    .from(model)
    .where(and(isNull(model.deletedAt), modelId === undefined ? undefined : eq(model.id, modelId)))
    .orderBy(asc(model.maker), asc(model.name), asc(model.id))
  const lists = await db
    .select()
    .from(claim)
    .where(and(isNull(claim.deletedAt), eq(claim.quantity, 'price')))
    .orderBy(asc(claim.createdAt), asc(claim.id))
  const row = (
    m: typeof model.$inferSelect,
    kind: string,
    price: { readonly minor: number; readonly currency: string; readonly on: string | null },
  ) => [m.maker, m.name, m.id, kind, fromMinor(price.minor, price.currency), price.currency, price.on]
  return writeTable(
    ['maker', 'model', 'modelId', 'kind', 'price', 'currency', 'on'],
    models.flatMap((m) => [
      ...lists
        .filter((c) => c.modelId === m.id)
        .flatMap(({ amountMinor, currency, pricedOn }) =>
          amountMinor === null || currency === null
            ? []
            : [row(m, 'list', { minor: amountMinor, currency, on: pricedOn })],
        ),
      ...m.offers.map((o) => row(m, o.kind, o)),
    ]),
  )
}

/** Dossiers one after another, so that a whole shelf is never in memory. */
async function* each(db: Db, { modelId }: Of): AsyncGenerator<Dossier> {
  const ids =
    modelId === undefined
      ? await db
          .select({ id: model.id })
          .from(model)
          .where(isNull(model.deletedAt))
          .orderBy(asc(model.maker), asc(model.name), asc(model.id))
      : [{ id: modelId }]
  for (const { id } of ids) yield dossier(db, id)
}

/** Measured points of pump curves: the flow of every trial that ends in one, at its lift, with what was attached. */
async function curvesTable(db: Db, of: Of): Promise<string> {
  const rows: unknown[][] = []
  for await (const d of each(db, of))
    for (const { trial: t, result, figure } of trialResults(modelRecord(d))) {
      const { kind, state, lift, mainsFrequency, hookupId } = t
      const hookup = d.hookups.find((h) => h.id === hookupId)?.name ?? ''
      rows.push([d.model.maker, d.model.name, t.id, kind ?? 'vessel', state, hookup, mainsFrequency, lift, figure.value, figure.uncertainty ?? null, result.n]) // prettier-ignore
    }
  return writeTable(
    ['maker', 'model', 'trialId', 'kind', 'state', 'hookup', 'mainsFrequency', 'lift [m]', 'flow [m³/s]', 'U 95 % [m³/s]', 'runs'], // prettier-ignore
    rows,
  )
}

/** The points of every log: of dye that was let pass, of level, flow or watts over time. */
async function tracersTable(db: Db, { modelId }: Of): Promise<string> {
  const logs = await db
    .select({
      maker: model.maker,
      model: model.name,
      trialId: trial.id,
      kind: trial.kind,
      id: log.id,
      series: log.series,
      startedAt: log.startedAt,
      times: log.times,
      values: log.values,
    })
    .from(log)
    .innerJoin(trial, eq(trial.id, log.trialId))
    .innerJoin(model, eq(model.id, trial.modelId))
    .where(
      and(
        isNull(log.deletedAt),
        isNull(trial.deletedAt),
        isNull(model.deletedAt),
        modelId === undefined ? undefined : eq(model.id, modelId),
      ),
    )
    .orderBy(asc(log.createdAt), asc(log.id))
  return writeTable(
    ['maker', 'model', 'trialId', 'kind', 'logId', 'series', 'startedAt', 'time [s]', 'value'],
    logs.flatMap(({ maker, model: name, trialId, kind, id, series, startedAt, times, values }) => {
      const head = [maker, name, trialId, kind, id, series, startedAt.toISOString()]
      return times.map((time, i) => [...head, time, values[i]])
    }),
  )
}

/** A table as text: of one model, or of the whole bench. @throws a problem (404) where there is no such model. */
export function csvOf(db: Db, table: CsvTable, modelId?: string): Promise<string> {
  const of = { modelId }
  switch (table) {
    case 'prices':
      return pricesTable(db, of)
    case 'curves':
      return curvesTable(db, of)
    case 'tracers':
      return tracersTable(db, of)
    default:
      return rowsTable(db, table, of)
  }
}
