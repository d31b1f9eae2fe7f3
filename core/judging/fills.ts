import { INSTALLED_SHARES, installedHalf } from '../bench'
import { CoreError } from '../errors'
import type { Fill } from '../fills'
import { put, putFigure, type Figure } from '../figures'
import { pathBase, type PathRecord } from '../path/fromModel'
import { pathFlowFigure, capacityFiguresOf } from '../path/figures'
import { filmsAt, filmsOfMass } from '../path/films'
import { outcomeOf, type Outcome } from '../path/outcome'
import { outletOf } from '../path/outlet'
import type { CapacityFigures, StockClass } from '../tanks'
import { FILTERS, hasPump } from '../kinds'
import { packVolume } from '../media'
import { UNMEASURED_BODY } from '../volumes'
import type { FlowBasis } from './basis'
import { bestTrial, installedTrial, type TrialResult } from '../trials/flows'
import type { HookupResult, KnownPump } from '../trials/modelPump'
import type { ModelRecord } from '../trials/records'

/** A fill by its name, with what its flow rests on and what it brings. */
export interface JudgedFill extends CapacityFigures {
  readonly basis: FlowBasis
  /** Weighed ÷ computed mass of its media, where they were weighed. */
  readonly calibration: number | null
  /** How its media that count are sold: a pack’s name and mass (kg); null where nobody knows. */
  readonly pack: { readonly name: string; readonly mass: number } | null
}

/** Sources of a judged fill. */
export interface FillInput {
  readonly model: ModelRecord
  readonly trials: readonly TrialResult[]
  readonly pump: KnownPump | null
  readonly main: HookupResult | null
  readonly thumb: Figure | null
}

/** Share of a flow computed for hoses alone that media and filter leave (common practice, no source). */
export const BODY_LEAVES = { low: 0.6, high: 0.85 } as const
/** Share of a flow poured bare that hoses, lift and media leave (common practice, no source). */
export const INSTALLED_LEAVES = { low: 0.55, high: 0.8 } as const

const percent = (v: number): string => String(Math.round(v * 100))

/** The record of a model as its path is worked out from; null while nothing is known of the inside. */
export function pathRecordOf(input: Pick<FillInput, 'model' | 'trials' | 'pump'>): PathRecord | null {
  const { model, trials, pump } = input
  if (!model.inside) return null
  return { model, assessment: { pump, trials }, ...model.inside, hookupId: null }
}

/** The fill of a basis that has something in it, as its path comes out; null where it cannot be worked out. */
function outcomes(
  input: FillInput,
  stock: StockClass,
): (basis: 'as-shipped' | 'proposed', quick: boolean) => Outcome | null {
  const record = pathRecordOf(input)
  return (basis, quick) => {
    const fill = record?.fills.findLast((f) => f.basis === basis && f.layers.length > 0)
    if (!record || !fill) return null
    try {
      const base = pathBase(record, fill.id)
      if (base.kind !== 'ready') return null
      return outcomeOf({ ...base.base, fill }, stock, quick)
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      return null
    }
  }
}

const meetsUnknown: Figure = {
  id: 'meets-unknown',
  label: 'Reaches the bio media',
  value: 1,
  dimension: 'ratio',
  unit: '%',
  provenance: 'rule',
  assumed: 'all water reaches the bio media',
  conditions: ['no media setup recorded'],
}

/** How well a mass stands for effective area where no fill says what it is (relative, 95 %; common practice). */
const MASS_BANDS = { weighed: 0.3, noted: 0.4 } as const

/** Media of the unit as noted or weighed, where no fill says what they are; foam alone says nothing by its mass. */
const mediaOf = ({ kind, mediaMass: m }: ModelRecord): Figure | null =>
  m && !FILTERS[kind].foamIsMedia
    ? {
        id: 'media-mass',
        label: 'Bio media',
        value: m.mass,
        uncertainty: m.mass * MASS_BANDS[m.weighed ? 'weighed' : 'noted'],
        dimension: 'mass',
        provenance: m.weighed ? 'measured' : 'rule',
        conditions: [
          m.weighed ? 'weighed dry' : 'noted, not weighed',
          'assumed to be good sintered media (no media setup recorded)',
        ],
      }
    : null

/** A flow of which a band is left: the middle of it, and half of it as its uncertainty. */
function leftOf(
  from: Figure,
  label: string,
  bands: readonly { readonly label: string; readonly low: number; readonly high: number }[],
): Figure {
  const middle = bands.reduce((p, b) => (p * (b.low + b.high)) / 2, 1)
  const relative = Math.hypot(
    from.value > 0 ? (from.uncertainty ?? 0) / from.value : 0,
    ...bands.map((b) => (b.high - b.low) / (b.high + b.low)),
  )
  return {
    id: `left-of-${from.id}`,
    label,
    value: from.value * middle,
    uncertainty: from.value * middle * relative,
    dimension: 'flow',
    provenance: 'rule',
    conditions: [...(from.conditions ?? []), ...bands.map((b) => b.label)],
    formula: ['Q', ...bands.map((_, i) => `s${i + 1}`)].join(' · '),
    working: [
      putFigure('Q', from),
      ...bands.map((b, i) => put(`s${i + 1}`, b.label, (b.low + b.high) / 2, 'ratio', 'rule')),
    ],
    source: 'common practice, no source',
  }
}

/**
 * A trial of a fill under other conditions carried to how the filter stands: what the body took there, it takes here.
 * Without an inside on record body and media are one loss, by difference.
 */
function carried(input: FillInput, state: 'as-shipped' | 'proposed', stock: StockClass): Figure | null {
  const { model, trials, pump } = input
  if (!pump && hasPump(model.kind)) return null
  const fill: Fill = { id: state, name: FILL_NAMES[state], basis: state, layers: [] }
  const record: PathRecord = {
    model,
    assessment: { pump, trials },
    body: UNMEASURED_BODY,
    chambers: [],
    media: [],
    fills: [fill],
    fillOfTrial: {},
    hookupId: null,
  }
  const base = pathBase(record, fill.id)
  if (base.kind !== 'ready' || base.base.told?.case.fill.id !== fill.id) return null
  const o = outcomeOf({ ...base.base, fill }, stock)
  return o.flow > 0 ? pathFlowFigure(o) : null
}
const FILL_NAMES = { 'as-shipped': 'Supplied', proposed: 'Recommended' } as const

const BODY_BAND = {
  label: `media and filter leave ${percent(BODY_LEAVES.low)} to ${percent(BODY_LEAVES.high)} % (rule of thumb)`,
  ...BODY_LEAVES,
}
const INSTALLED_BAND = {
  label: `hoses, lift and media leave ${percent(INSTALLED_LEAVES.low)} to ${percent(INSTALLED_LEAVES.high)} % (rule of thumb)`,
  ...INSTALLED_LEAVES,
}

interface RestingFlow {
  readonly basis: FlowBasis
  readonly flow: Figure | null
}

/** The flow of a fill as it is installed, and what it rests on. */
function flowOf(
  input: FillInput,
  state: 'as-shipped' | 'proposed',
  outcome: Outcome | null,
  stock: StockClass,
): RestingFlow {
  const { model, trials } = input
  const measured = installedTrial(trials, model, state)
  if (measured) return { basis: 'measured', flow: measured.figure }
  if (outcome && outcome.flow > 0) {
    const flow = pathFlowFigure(outcome)
    const { told, fill, drive, supposed } = outcome.case
    if (told) return { basis: told.case.fill.id === fill.id ? 'carried' : 'computed-fit', flow }
    if (supposed) return { basis: 'supposed-run', flow }
    return { basis: drive.from === 'label' ? 'computed-label' : 'computed-fit', flow }
  }
  const brought = model.inside ? null : carried(input, state, stock)
  if (brought) return { basis: 'carried', flow: brought }
  return emptyOnHoses(input) ?? supposed(input)
}

/** Measured on its hoses but empty: media will take some of it. */
function emptyOnHoses({ model, trials }: FillInput): RestingFlow | null {
  const empty = installedTrial(trials, model, 'empty')
  if (!empty || !FILTERS[model.kind].hoses) return null
  return {
    basis: 'measured-empty',
    flow: leftOf(empty.figure, 'Flow with media', [BODY_BAND]),
  }
}

/** Fills judged without a measurement of theirs: from the hoses, from a bare run, from the label's rule of thumb. */
function supposed(input: FillInput): RestingFlow {
  const { model, trials, pump, main, thumb } = input
  if (main && !main.duty.blocked && pump) {
    const flow = leftOf(main.computed, 'Flow with media', [BODY_BAND])
    return pump.from === 'fit'
      ? { basis: 'supposed-fit', flow }
      : { basis: 'supposed-label', flow: biased(flow, pump) }
  }
  const bare = bestTrial(trials)
  if (bare) {
    const loaded = bare.trial.state !== 'empty' && !FILTERS[model.kind].hoses
    if (loaded || !hasPump(model.kind)) return { basis: 'measured', flow: bare.figure }
    return {
      basis: 'measured-empty',
      flow: withinThumb(leftOf(bare.figure, 'Installed flow', [INSTALLED_BAND]), thumb),
    }
  }
  return thumb ? { basis: 'rule', flow: installedByRule(thumb) } : { basis: 'none', flow: null }
}

/** The rule of thumb as a flow that is judged by: its middle, with the spread of filters once they stand. */
function installedByRule(thumb: Figure): Figure {
  const label = thumb.working?.[0]?.value ?? 0
  return {
    ...thumb,
    id: 'installed-by-rule',
    label: 'Flow by rule of thumb',
    uncertainty: installedHalf(thumb.value, label),
    conditions: [
      ...(thumb.conditions ?? []),
      `the rule says 50 to 60 % of the label; one filter in twenty is outside ${percent(INSTALLED_SHARES.low)} to ${percent(INSTALLED_SHARES.high)} % of its label`,
    ],
  }
}

/** A flow without a run on record: no more than the rule of thumb leaves of the label. */
function withinThumb(flow: Figure, thumb: Figure | null): Figure {
  const most = thumb && thumb.value + (thumb.uncertainty ?? 0)
  if (most === null || flow.value <= most) return flow
  return {
    ...flow,
    value: most,
    uncertainty: Math.max(flow.uncertainty ?? 0, flow.value - most),
    conditions: [...(flow.conditions ?? []), 'at most 60 % of the label until the plumbing is entered'],
  }
}

/** A flow that stands on a label's curve, with what labels are wrong by. */
function biased(flow: Figure, { bias: b }: KnownPump): Figure {
  return leftOf(flow, flow.label, [{ label: b.words, low: b.low, high: b.high }])
}

/** A pack of the first of its media that counts. */
function packOf(o: Outcome): JudgedFill['pack'] {
  const medium = o.layers.find((l) => l.counts)?.placed.medium
  const volume = medium && packVolume(medium)
  return medium && volume ? { name: medium.name, mass: volume * medium.bulkDensity } : null
}

/** The fill as shipped, and the proposed one where it is on record: what each brings, by one flow and one mass. */
export function judgedFills(
  input: FillInput,
  stock: StockClass,
): { readonly shipped: JudgedFill | null; readonly proposed: JudgedFill | null } {
  const outcome = outcomes(input, stock)
  const outlets = input.model.hookups[0]?.outlets ?? []
  const judge = (state: 'as-shipped' | 'proposed'): JudgedFill | null => {
    // A measured flow has its own uncertainty, and the computed one need not be worked out.
    const o = outcome(state, installedTrial(input.trials, input.model, state) !== null)
    const { basis, flow } = flowOf(input, state, o, stock)
    if (!flow) return null
    if (o) {
      const figures = capacityFiguresOf(o)
      const films = figures.films && filmsAt(figures.films, flow.value)
      return { ...figures, films, outlets, basis, flow, calibration: o.worth.calibration, pack: packOf(o) }
    }
    if (state === 'proposed' && basis !== 'measured') return null
    const mass = state === 'as-shipped' ? mediaOf(input.model) : null
    return {
      fill: { id: state, name: FILL_NAMES[state] },
      basis,
      flow,
      meets: meetsUnknown,
      mass,
      foam: 0,
      films: mass && filmsOfMass(mass.value, flow.value, meetsUnknown.value),
      outlet: outletOf(input.model.kind, input.model.hookups[0] ?? null),
      outlets,
      calibration: null,
      pack: null,
    }
  }
  return { shipped: judge('as-shipped'), proposed: judge('proposed') }
}
