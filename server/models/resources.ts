import {
  Body,
  BodyCreate,
  BodyPatch,
  Chamber,
  ChamberCreate,
  ChamberPatch,
  ContentItem,
  ContentItemCreate,
  ContentItemPatch,
  Part,
  PartCreate,
  PartPatch,
  Fill,
  FillCreate,
  FillPatch,
  Claim,
  ClaimCreate,
  ClaimPatch,
  Hookup,
  HookupCreate,
  HookupPatch,
  Model,
  ModelCreate,
  ModelPatch,
  Reading,
  ReadingCreate,
  ReadingPatch,
  Log,
  LogCreate,
  LogPatch,
  Specimen,
  SpecimenCreate,
  SpecimenPatch,
  Trial,
  TrialCreate,
  TrialPatch,
} from '@ypsometer/contract'
import { logSummary, readingProblem, type BenchReading, type TrialKind } from '@ypsometer/core/bench'
import type { FillLayer } from '@ypsometer/core/fills'
import type { Segment } from '@ypsometer/core/hydraulics'
import { asc, eq, inArray } from 'drizzle-orm'
import type { Db, Tx } from '../db/client'
import {
  body,
  chamber,
  claim,
  contentItem,
  fill,
  hookup,
  layer,
  log,
  model,
  part,
  reading,
  segment,
  specimen,
  trial,
} from '../db/schema'
import type { Editable, Plain, Row } from '../http/editable'
import { fieldProblem } from '../http/problems'

/** A claim holds one thing: a number, words, or money. */
function checkClaim(row: Plain): void {
  const held = [row.value, row.words, row.amountMinor].filter((v) => v !== null && v !== undefined)
  if (held.length > 1) throw fieldProblem('value', 'one of a number, words or a price, not several')
  if ((row.amountMinor ?? null) !== null && !row.currency)
    throw fieldProblem('currency', 'a three-letter currency code such as EUR')
}

function checkPart(row: Plain): void {
  if (((row.sparePriceMinor ?? null) === null) !== ((row.spareCurrency ?? null) === null))
    throw fieldProblem('sparePriceMinor', 'an amount together with its currency, such as 4.90 EUR')
}

function checkBody(row: Plain): void {
  const empty = row.emptyMass as number | null | undefined
  const full = row.fullMass as number | null | undefined
  if (typeof empty === 'number' && typeof full === 'number' && full < empty)
    throw fieldProblem('fullMass', 'no less than the empty weight')
}

/** A reading must hold what its kind is made of. */
function checkReading(row: Plain): void {
  const wrong = readingProblem(row.kind as TrialKind, row as BenchReading)
  if (wrong) throw fieldProblem(wrong.field, wrong.message)
}

/** A reading's columns: its time is text in JSON. */
export const readingColumns = (body: Plain): Plain => ({
  ...body,
  ...(body.takenAt !== undefined && { takenAt: new Date(String(body.takenAt)) }),
})

/** A log's columns with what it comes down to. @throws OutOfRange naming `times[i]` or `values[i]`. */
export const logColumns = (body: Plain): Plain =>
  body.times === undefined
    ? body
    : {
        ...body,
        startedAt: new Date(String(body.startedAt)),
        ...logSummary(body.times as number[], body.values as number[]),
      }

const toColumns = (hookupId: string, s: Segment, position: number) => ({ hookupId, position, ...s })

const toSegment = (row: typeof segment.$inferSelect): Segment => {
  const { id, label } = row
  if (row.kind === 'hose')
    return {
      kind: 'hose',
      id,
      label,
      length: row.length ?? 0,
      diameter: row.diameter ?? 0,
      roughness: row.roughness ?? 0,
    }
  if (row.kind === 'fitting')
    return {
      kind: 'fitting',
      id,
      label,
      lossCoefficient: row.lossCoefficient ?? 0,
      diameter: row.diameter ?? 0,
      count: row.count ?? 1,
    }
  return {
    kind: 'spray-bar',
    id,
    label,
    holes: row.holes ?? 1,
    holeDiameter: row.holeDiameter ?? 0,
    dischargeCoefficient: row.dischargeCoefficient ?? 0.62,
  }
}

/** The segments of each hookup, in flow order. */
export async function withSegments(db: Db | Tx, rows: readonly Row[]): Promise<readonly Plain[]> {
  if (!rows.length) return []
  const all = await db
    .select()
    .from(segment)
    .where(
      inArray(
        segment.hookupId,
        rows.map((r) => r.id),
      ),
    )
    .orderBy(asc(segment.position))
  return rows.map((r) => ({ ...r, segments: all.filter((s) => s.hookupId === r.id).map(toSegment) }))
}

/** Replaces the segments as a whole, under the hookup's version. */
async function splitHookup(tx: Tx, id: string, body: Plain): Promise<Plain> {
  const { segments, ...own } = body as { segments?: Segment[] } & Plain
  if (segments) {
    await tx.delete(segment).where(eq(segment.hookupId, id))
    if (segments.length) await tx.insert(segment).values(segments.map((s, i) => toColumns(id, s, i)))
  }
  return own
}

/** The layers of each fill, in the order of the water. */
export async function withLayers(db: Db | Tx, rows: readonly Row[]): Promise<readonly Plain[]> {
  if (!rows.length) return []
  const all = await db
    .select()
    .from(layer)
    .where(
      inArray(
        layer.fillId,
        rows.map((r) => r.id),
      ),
    )
    .orderBy(asc(layer.position))
  return rows.map((r) => ({
    ...r,
    layers: all.filter((l) => l.fillId === r.id).map(({ fillId: _fill, position: _position, ...own }) => own),
  }))
}

/** Replaces the layers as a whole, under the fill's version. */
async function splitFill(tx: Tx, id: string, body: Plain): Promise<Plain> {
  const { layers, ...own } = body as { layers?: FillLayer[] } & Plain
  if (layers) {
    await tx.delete(layer).where(eq(layer.fillId, id))
    if (layers.length)
      await tx.insert(layer).values(layers.map((l, position) => ({ ...l, fillId: id, position })))
  }
  return own
}

/** The editable resources of a dossier. */
export const MODEL_RESOURCES: readonly Editable[] = [
  { path: 'models', one: 'model', table: model, row: Model, create: ModelCreate, patch: ModelPatch },
  {
    path: 'claims',
    one: 'claim',
    table: claim,
    row: Claim,
    create: ClaimCreate,
    patch: ClaimPatch,
    check: checkClaim,
  },
  {
    path: 'specimens',
    one: 'specimen',
    table: specimen,
    row: Specimen,
    create: SpecimenCreate,
    patch: SpecimenPatch,
  },
  {
    path: 'hookups',
    one: 'hookup',
    table: hookup,
    row: Hookup,
    create: HookupCreate,
    patch: HookupPatch,
    split: splitHookup,
    join: withSegments,
  },
  {
    path: 'fills',
    one: 'fill',
    table: fill,
    row: Fill,
    create: FillCreate,
    patch: FillPatch,
    split: splitFill,
    join: withLayers,
  },
  { path: 'trials', one: 'trial', table: trial, row: Trial, create: TrialCreate, patch: TrialPatch },
  {
    path: 'readings',
    one: 'run',
    table: reading,
    row: Reading,
    create: ReadingCreate,
    patch: ReadingPatch,
    columns: readingColumns,
    check: checkReading,
  },
  {
    path: 'logs',
    one: 'log',
    table: log,
    row: Log,
    create: LogCreate,
    patch: LogPatch,
    columns: logColumns,
    join: async (_db, rows) => rows.map(({ times: _times, values: _values, ...own }) => own),
  },
  {
    path: 'contents',
    one: 'item',
    table: contentItem,
    row: ContentItem,
    create: ContentItemCreate,
    patch: ContentItemPatch,
  },
  {
    path: 'parts',
    one: 'part',
    table: part,
    row: Part,
    create: PartCreate,
    patch: PartPatch,
    check: checkPart,
  },
  {
    path: 'bodies',
    one: 'body',
    table: body,
    row: Body,
    create: BodyCreate,
    patch: BodyPatch,
    check: checkBody,
  },
  {
    path: 'chambers',
    one: 'chamber',
    table: chamber,
    row: Chamber,
    create: ChamberCreate,
    patch: ChamberPatch,
  },
]
