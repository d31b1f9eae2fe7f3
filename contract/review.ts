import { FILTERS } from '@ypsometer/core/kinds/filters'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { choresOf } from '@ypsometer/core/upkeep/plan'
import { CoreError } from '@ypsometer/core/errors/errors'
import { assess, type Assessment } from '@ypsometer/core/judging/assess'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import { claimChances } from '@ypsometer/core/judging/chances'
import { auditOrder, HOUSE_RULES } from '@ypsometer/core/path/audit'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import { NOT_RECORDED } from '@ypsometer/core/review/disclosure'
import { sheetOf, type Sheet } from '@ypsometer/core/review/sheet'
import type { ReviewInput } from '@ypsometer/core/review/input'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import { stripCautions } from '@ypsometer/core/teardown/cautions'
import { historyOf, wantedVisits } from '@ypsometer/core/visits/history'
import { volumeAudit } from '@ypsometer/core/volumes/interior'
import { candidateOf } from './candidate'
import type { HouseRule, Medium } from './fills'
import { counterRule } from './house'
import type { Dossier } from './dossier'
import { interiorOf, modelRecord, pathRecord, usualHookup } from './records'
import type { Tank } from './tanks'
import type { Visit } from './visits'

/** Grounds of a review. */
export interface ReviewQuestion {
  readonly dossier: Dossier
  readonly media: readonly Medium[]
  readonly house: HouseRule | null
  readonly stock: readonly StockClass[]
  readonly bias: LabelBias | null
  readonly tanks: readonly Tank[]
  readonly today: string
  /** The program that works it out. */
  readonly core: string
  /** How often chances are drawn; absent: as often as on the screens. */
  readonly draws?: number
}

/** The drawing of the inside: sizes as they were, and no number worked out. */
export type Drawing = Pick<Dossier, 'bodies' | 'chambers'> & {
  readonly kind: Dossier['model']['kind']
  readonly name: string
  /** Litres of each chamber (m³), by its id. */
  readonly litres: Readonly<Record<string, number>>
}

/** A review’s numbers as they were on a day, with all they were made from. Never changed once it is published. */
export interface Snapshot {
  readonly format: 'ypsometer-review'
  readonly version: 1
  readonly on: string
  readonly core: string
  readonly inputs: {
    readonly dossier: Dossier
    readonly media: readonly Medium[]
    readonly house: HouseRule | null
    readonly stock: readonly StockClass[]
    readonly bias: LabelBias | null
  }
  readonly sheet: Sheet
  readonly drawing: Drawing | null
}

/**
 * Takes a review’s numbers.
 * @throws CoreError where a dossier cannot be worked out, naming the field.
 */
export function snapshotOf(q: ReviewQuestion): Snapshot {
  const { dossier: d, media, house, stock, bias } = q
  const used = new Set(d.fills.flatMap((f) => f.layers.map((l) => l.mediumId)))
  const sheet = sheetOf(reviewInput(q))
  return {
    format: 'ypsometer-review',
    version: 1,
    on: q.today,
    core: q.core,
    inputs: { dossier: d, media: media.filter((m) => used.has(m.id)), house, stock, bias },
    sheet,
    drawing: drawingOf(d),
  }
}

function drawingOf(d: Dossier): Drawing | null {
  const interior = interiorOf(d)
  if (!interior) return null
  const { chambers } = volumeAudit(interior.chambers, interior.body)
  return {
    kind: d.model.kind,
    name: d.model.name,
    bodies: d.bodies,
    chambers: d.chambers,
    litres: Object.fromEntries(chambers.map((c) => [c.chamber.id, c.volume])),
  }
}

function reviewInput(q: ReviewQuestion): ReviewInput {
  const { dossier: d, media, house, stock, bias, today } = q
  const record = modelRecord(d, media)
  const a = assess(record, { stockClasses: stock, bias })
  const candidate = candidateOf(d, media, a)
  const interior = interiorOf(d)
  const { shipped, claimedRange } = a.verdict
  const normal = stock.find((s) => s.code === 'normal')
  const specimen = d.specimens.at(-1)
  const { visits, came } = visitsOf(q)
  const history = historyOf(visits, came)
  const started = came ?? history.visits[0]?.on ?? null
  const upkeep = house?.upkeep ?? UPKEEP_RULE
  const wanted = started
    ? wantedVisits(
        upkeep.visits,
        started,
        history.visits.map((v) => v.on),
        today,
      )
    : []
  const kept = {
    id: 'review',
    tankId: 'review',
    label: d.model.name,
    kind: d.model.kind,
    since: null,
    forecast: null,
    media: (candidate.shipped?.uses ?? []).map(({ form, job }) => ({ form, job })),
    prefilter: candidate.facts.preFilter !== null,
    lamp: candidate.spares.some((s) => s.wears === 'lamp'),
  }
  return {
    on: today,
    maker: d.model.maker,
    name: d.model.name,
    kind: d.model.kind,
    obtained: specimen?.obtained ?? null,
    disclosure: specimen?.disclosure ?? NOT_RECORDED,
    house: { name: house?.name ?? HOUSE_RULES[0]?.name ?? '', advice: counterRule(house ?? undefined) },
    stock,
    assessment: a,
    candidate,
    claims: record.claims,
    chances: shipped && normal ? claimChances(shipped, normal, claimedRange.max, undefined, q.draws) : null,
    errata: d.model.errata,
    audit: interior && volumeAudit(interior.chambers, interior.body),
    path: pathOf(q, a),
    parts: d.parts,
    photos: d.photos.map((p) => ({
      id: p.id,
      caption: p.caption || (d.parts.find((x) => x.id === p.partId)?.name ?? ''),
      width: p.width,
      height: p.height,
    })),
    chores: choresOf([kept], upkeep, today),
    cautions: stripCautions(d.model.kind, d.parts, d.bodies.at(-1)?.fullMass ?? null),
    history: { ...history, all: history.visits as readonly Visit[] },
    next: wanted.find((w) => w.state === 'due' || w.state === 'ahead')?.on ?? null,
  }
}

/** Visits of the tank that was gone back to most, and the day it came there. */
function visitsOf({ dossier: d, tanks, today }: ReviewQuestion): {
  readonly visits: readonly Visit[]
  readonly came: string | null
} {
  const until = d.visits.filter((v) => v.on <= today)
  const times = (id: string | null): number => until.filter((v) => v.tankId === id).length
  const [most] = [...new Set(until.map((v) => v.tankId))].sort((a, b) => times(b) - times(a))
  const on = tanks.find((t) => t.id === most)?.filters.find((f) => f.modelId === d.model.id)
  return { visits: until.filter((v) => v.tankId === (most ?? null)), came: on?.since ?? null }
}

/** Water through the fill as shipped, and what is wrong with its order; null where it cannot be worked out. */
function pathOf({ dossier: d, media, house, stock }: ReviewQuestion, a: Assessment): ReviewInput['path'] {
  const fill = d.fills.findLast((f) => f.basis === 'as-shipped') ?? d.fills[0]
  const [normal] = stock
  const rule = house ?? HOUSE_RULES[0]
  if (!fill?.layers.length || !normal || !rule || !FILTERS[d.model.kind]) return null
  try {
    const record = pathRecord(d, media, a, usualHookup(d))
    const base = record && pathBase(record, fill.id)
    if (base?.kind !== 'ready') return null
    const outcome = outcomeOf({ ...base.base, fill }, normal)
    return { outcome, findings: auditOrder(outcome, rule, reaches(d.parts)) }
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}
