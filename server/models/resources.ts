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
  Specimen,
  SpecimenCreate,
  SpecimenPatch,
  Trial,
  TrialCreate,
  TrialPatch,
} from '@ypsometer/contract'
import type { Segment } from '@ypsometer/core/hydraulics'
import { asc, eq, inArray } from 'drizzle-orm'
import type { Db, Tx } from '../db/client'
import {
  body,
  chamber,
  claim,
  contentItem,
  hookup,
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
  { path: 'trials', one: 'trial', table: trial, row: Trial, create: TrialCreate, patch: TrialPatch },
  {
    path: 'readings',
    one: 'run',
    table: reading,
    row: Reading,
    create: ReadingCreate,
    patch: ReadingPatch,
    columns: (body) => ({ ...body, takenAt: new Date(String(body.takenAt)) }),
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
