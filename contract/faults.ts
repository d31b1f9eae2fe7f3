import { CoreError } from '@ypsometer/core/errors/errors'
import { putFigure, type Figure } from '@ypsometer/core/figures/figure'
import { evidenceOf, nothingKnown, type FaultRecord } from '@ypsometer/core/hands/evidence'
import type { Evidence } from '@ypsometer/core/hands/faults'
import type { SetUpSubject } from '@ypsometer/core/hands/setUp'
import { assess, type Assessment } from '@ypsometer/core/judging/assess'
import { claimed, labelFigure } from '@ypsometer/core/trials/labels'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import { auditOrder, HOUSE_RULES, type OrderFinding } from '@ypsometer/core/path/audit'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { reaches } from '@ypsometer/core/teardown/reach'
import { openEvery } from '@ypsometer/core/upkeep/interval'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { EVERYTHING } from '@ypsometer/core/visits/record'
import { flowLeft, historyOf } from '@ypsometer/core/visits/history'
import type { HouseRule, Medium } from './fills'
import type { SetUp } from './hands'
import type { Dossier } from './dossier'
import { mainHookup, modelRecord, pathRecord, usualHookup } from './records'
import type { Tank } from './tanks'
import type { Visit } from './visits'

/** Question to the record of a filter when something is wrong with it. */
export interface FaultQuestion {
  readonly dossier: Dossier
  readonly media: readonly Medium[]
  readonly house: HouseRule | null
  readonly stock: readonly StockClass[]
  readonly bias: LabelBias | null
  /** The tank it stands at; null: nobody said. */
  readonly tank: Tank | null
  readonly setUps: readonly SetUp[]
  readonly today: string
}

/** Record of a model at a tank that bears on a fault. */
export function faultRecord(q: FaultQuestion): FaultRecord {
  const { dossier: d, tank, house, today } = q
  const on = tank?.filters.find((f) => f.modelId === d.model.id)
  const since = on?.since ?? null
  // What was seen later knew of it already.
  const until = d.visits.filter((v) => v.on <= today)
  const lastAt = [...until].sort((a, b) => a.on.localeCompare(b.on)).at(-1)?.tankId ?? null
  const story = historyOf(
    until.filter((v) => v.tankId === (tank?.id ?? lastAt)),
    since,
  )
  const visits = story.visits as readonly Visit[]
  const last = visits.at(-1)
  const media = (id: string): string => q.media.find((m) => m.id === id)?.name ?? 'a layer'
  const fill =
    d.fills.find((f) => f.id === last?.fillId) ??
    d.fills.findLast((f) => f.basis === (on?.fill ?? 'as-shipped')) ??
    d.fills[0]
  const assessment = assessed(q)
  const cleaned = (v: Visit, what: string): boolean =>
    v.cleaned.some((c) => c.what === what || c.what === EVERYTHING)
  const opening = visits.findLast((v) => v.cleaned.length > 0)
  const openedOn = opening?.on ?? since ?? visits[0]?.on
  const upkeep = house?.upkeep ?? UPKEEP_RULE
  // What was cleaned since it was found tells nothing of today.
  const found = visits.findLast((v) => v.runsBefore.length > 0)
  const left = found && found.cleaned.length === 0 && found === last ? flowLeft(story, found) : null
  const noisy = visits.filter((v) => v.noise !== null)
  const [first, latest] = [noisy[0]?.noise, noisy.at(-1)?.noise]
  return {
    ...nothingKnown(d.model.kind, today),
    parts: d.parts.map((p) => {
      const look = visits.findLast((v) => v.parts[p.id])
      return {
        name: p.name,
        checklist: p.checklist,
        findings: look?.parts[p.id] ?? p.findings,
        on: look?.on ?? null,
      }
    }),
    order: fill && assessment ? orderOf(q, assessment, fill.id) : null,
    left: left && found ? { figure: left, on: found.on, dueAt: 1 - upkeep.fall } : null,
    blind: (fill?.layers ?? []).flatMap((l) => {
      const seen = visits.findLast((v) => v.dirt[l.id])
      const since = seen ? visits.slice(visits.indexOf(seen)) : []
      return seen?.dirt[l.id] === 'blind' && !since.some((v) => cleaned(v, l.id)) ? [media(l.mediumId)] : []
    }),
    opened: openedOn ? { on: openedOn, every: openEvery(d.model.kind, null, upkeep).days } : null,
    since: since ?? visits[0]?.on ?? null,
    ofLabel: assessment ? ofLabel(q, assessment) : null,
    valve: d.trials.findLast((t) => t.state !== 'empty')?.valve ?? null,
    belowRim: tank ? tank.height - tank.waterLevel : null,
    visits,
    last: last
      ? {
          on: last.on,
          seeping: last.seeping ?? [],
          hoses: last.hoses,
          holding: last.holding,
          clarity: last.clarity,
          ammonia: last.ammonia,
          nitrite: last.nitrite,
        }
      : null,
    noise: noisy.length > 1 && first != null && latest != null ? { first, last: latest } : null,
    refused: refusedAt(q),
  }
}

/** Evidence of the record for each cause, before anybody looks. */
export const faultEvidence = (q: FaultQuestion): readonly Evidence[] => evidenceOf(faultRecord(q))

function assessed({ dossier, media, stock, bias }: FaultQuestion): Assessment | null {
  try {
    return assess(modelRecord(dossier, media), { stockClasses: stock, bias })
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** Findings of the order audit in a fill; null where its path cannot be worked out. */
function orderOf(q: FaultQuestion, a: Assessment, fillId: string): readonly OrderFinding[] | null {
  const { dossier: d, media, house, stock } = q
  const fill = d.fills.find((f) => f.id === fillId)
  const [normal] = stock
  const rule = house ?? HOUSE_RULES[0]
  if (!fill?.layers.length || !normal || !rule) return null
  try {
    const record = pathRecord(d, media, a, usualHookup(d))
    const base = record && pathBase(record, fill.id)
    if (base?.kind !== 'ready') return null
    return auditOrder(outcomeOf({ ...base.base, fill }, normal, true), rule, reaches(d.parts))
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** Flow measured here as installed, as a share of the label’s. */
function ofLabel({ dossier }: FaultQuestion, { answers }: Assessment): Figure | null {
  const model = modelRecord(dossier)
  const rated = claimed(model, 'rated-flow')
  if (!answers.measured || !rated?.value) return null
  const label = labelFigure(rated, model.mainsFrequency)
  return {
    id: 'of-label',
    label: 'As installed, of the label',
    value: answers.measured.value / label.value,
    dimension: 'ratio',
    unit: '%',
    provenance: 'measured',
    formula: 'Q ÷ Q_label',
    working: [putFigure('Q', answers.measured), putFigure('Q_label', label)],
  }
}

/** Refused steps of the last set-up. */
function refusedAt({ dossier, tank, setUps, today }: FaultQuestion): FaultRecord['refused'] {
  const [own] = setUps
    .filter((s) => s.modelId === dossier.model.id && s.on <= today)
    .filter((s) => !tank || s.tankId === null || s.tankId === tank.id)
    .sort((a, b) => b.on.localeCompare(a.on) || b.createdAt.localeCompare(a.createdAt))
  const steps = Object.entries(own?.ticked ?? {}).flatMap(([id, t]) => (t.state === 'refused' ? [id] : []))
  return own && steps.length ? { on: own.on, steps } : null
}

/** Grounds of the checklist of setting a model up. */
export function setUpSubject(d: Dossier): SetUpSubject {
  const hookup = mainHookup(d)
  const trays = d.chambers.filter((c) => c.role === 'tray').length
  return {
    kind: d.model.kind,
    primedBy: d.model.primedBy,
    parts: d.parts,
    trays: trays || d.parts.filter((p) => /\btrays?\b/i.test(p.name)).length,
    heater: hookup?.fitted.heater != null,
    lamp: hookup?.fitted.lamp != null || d.parts.some((p) => p.checklist === 'quartz'),
    fullMass: d.bodies.at(-1)?.fullMass ?? null,
  }
}
