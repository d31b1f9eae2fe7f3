import { FILTERS, hasPump } from '../kinds'
import {
  compareWithLabel,
  pooledScatter,
  type FlowResult,
  type LabelFinding,
  type TimingMethod,
} from '../bench'
import { FLOWS, trialFlow, type FlowReadings } from './flow'
import { isFlowKind, type TrialKind } from './readings'
import type { BenchReading } from '../bench/shape'
import { put, type Figure } from '../figures'
import { netStaticHead } from '../duty'
import { atMains, claimed } from './labels'
import type { ClaimRecord, FillState, ModelRecord, TrialRecord } from './records'

/** A trial with its arithmetic done; trials without runs are left out before this. */
export interface TrialResult {
  readonly trial: TrialRecord
  readonly result: FlowResult
  readonly figure: Figure
}

const STATE_WORDS: Readonly<Record<FillState, string>> = {
  empty: 'empty',
  'as-shipped': 'supplied media',
  proposed: 'recommended media',
  dirty: 'dirty',
}

/** Was a tap turned down? */
export const throttled = (t: Pick<TrialRecord, 'valve'>): boolean => (t.valve ?? 1) < 1

/** The conditions of a trial in words; part of every number that came from it. */
export function trialConditions(
  trial: Omit<TrialRecord, 'method' | 'runs'>,
  model: { readonly hookups: readonly { readonly id: string; readonly name: string }[] },
): readonly string[] {
  const hookup = model.hookups.find((h) => h.id === trial.hookupId)
  return [
    trial.state === 'dirty' && trial.daysInUse
      ? `dirty, ${trial.daysInUse} days in use`
      : STATE_WORDS[trial.state],
    hookup ? hookup.name : 'no plumbing',
    trial.lift > 0 ? `${trial.lift} m lift` : 'no lift',
    `${trial.waterTemperature} °C`,
    ...(trial.salinity ? [`salinity ${trial.salinity}`] : []),
    `${trial.mainsFrequency} Hz`,
    ...(throttled(trial) ? [`tap ${Math.round((trial.valve ?? 1) * 100)} % open`] : []),
  ]
}

/** Does the arithmetic of every trial that has runs, each beside the scatter that the others have shown. */
export function trialResults(model: ModelRecord): readonly TrialResult[] {
  const flows = model.trials.filter((t) => isFlowKind(t.kind ?? 'vessel'))
  return flows.flatMap((trial) => {
    const result = trialFlow({ ...trial, method: methodBeside(trial, flows) })
    return result
      ? [
          {
            trial,
            result,
            figure: trialFlowFigure(
              trial,
              result,
              trialConditions(trial, model),
              result.mean > 0 ? vesselOf(trial) : null,
            ),
          },
        ]
      : []
  })
}

/** Kinds that a hand times: how they scatter is known before the first run. */
const BY_HAND: ReadonlySet<TrialKind> = new Set(['vessel', 'weighed', 'air'])

/**
 * How a trial was timed, with the scatter of one run as others of its kind have shown it here, pooled with the usual of
 * a hand. One function for every screen: a run counts alike wherever it is looked at.
 */
export function methodBeside(
  trial: FlowReadings & { readonly id: string },
  all: readonly (FlowReadings & { readonly id: string })[],
): TimingMethod {
  const kind = trial.kind ?? 'vessel'
  const others = all
    .filter((t) => t.id !== trial.id && (t.kind ?? 'vessel') === kind && t.runs.length > 1)
    .flatMap((t) => trialFlow(t) ?? [])
  const scatter = pooledScatter(others, BY_HAND.has(kind))
  return scatter
    ? { ...trial.method, repeatability: scatter.relative, freedom: scatter.degreesOfFreedom }
    : trial.method
}

/** How a kind's flow comes of its reading, in symbols. */
function formulaOf(kind: TrialKind, of = ''): string {
  const symbols = FLOWS[kind]?.formula
  return symbols ? `Q = ${of}${symbols}` : 'as read'
}

/** One timed run as a flow of its own. */
export function runFigure(run: BenchReading, flow: number, index: number, kind: TrialKind): Figure {
  const reads = FLOWS[kind]?.reads
  return {
    id: `run-${index}`,
    label: `Run ${index + 1}`,
    value: flow,
    dimension: 'flow',
    provenance: 'measured',
    formula: formulaOf(kind),
    working: [
      ...(run.volume ? [put('V', 'vessel to the mark', run.volume, 'volume', 'measured')] : []),
      ...(reads && run.value ? [put(reads.symbol, reads.label, run.value, reads.dimension, 'measured')] : []),
      ...(run.seconds ? [put('t', 'seconds', run.seconds, 'time', 'measured')] : []),
    ],
  }
}

/**
 * The vessel that all runs of a trial were timed into, by which other trials are wrong alike; null for other kinds, and
 * for several vessels.
 */
export function vesselOf(trial: Pick<TrialRecord, 'kind' | 'runs'>): string | null {
  const [first, ...others] = trial.runs.map((r) => r.volume)
  return (trial.kind ?? 'vessel') === 'vessel' && first && others.every((v) => v === first)
    ? `vessel of ${first * 1000} L`
    : null
}

/** The mean of a trial's timed runs with every part of its uncertainty; `vessel` by {@link vesselOf}. */
export function trialFlowFigure(
  trial: Pick<TrialRecord, 'id' | 'when' | 'kind'>,
  r: FlowResult,
  conditions: readonly string[],
  vessel: string | null = null,
): Figure {
  return {
    id: `trial-${trial.id}`,
    label: 'Measured flow',
    value: r.mean,
    dimension: 'flow',
    provenance: 'measured',
    uncertainty: r.expandedUncertainty,
    ...(vessel && {
      shared: [{ what: vessel, relative: (r.coverageFactor * r.typeB.vessel) / r.mean }],
    }),
    conditions,
    formula: `${formulaOf(trial.kind ?? 'vessel', 'mean of ')};  U = k · √(u_A² + u_B² + u_clock² + u_reaction²)`,
    working: [
      { symbol: 'n', label: 'runs', value: r.n, dimension: 'ratio' },
      {
        symbol: 'u_A',
        label: 'scatter of the mean, pooled with that of similar runs',
        value: r.typeA,
        dimension: 'flow',
      },
      put('u_B', FLOWS[trial.kind ?? 'vessel']?.systematic ?? '', r.typeB.vessel, 'flow'),
      { symbol: 'u_clock', label: 'clock resolution', value: r.typeB.timing, dimension: 'flow' },
      {
        symbol: 'u_reaction',
        label: 'reaction at start and stop',
        value: r.typeB.reaction,
        dimension: 'flow',
      },
      ...(Number.isFinite(r.effectiveDegreesOfFreedom)
        ? [put('ν', 'effective degrees of freedom', r.effectiveDegreesOfFreedom)]
        : []),
      { symbol: 'k', label: 'coverage factor, 95 %', value: r.coverageFactor, dimension: 'ratio' },
    ],
    source: [FLOWS[trial.kind ?? 'vessel']?.standard, 'GUM, JCGM 100:2008'].filter(Boolean).join('; '),
    ...(trial.when && { when: trial.when }),
  }
}

/** Is the trial the one a label speaks of: nothing inside, no plumbing, no lift? */
export const isLabelCondition = (t: TrialRecord): boolean =>
  t.state === 'empty' && t.lift <= 0 && t.hookupId === null && !throttled(t)

/** The rated flow held against the bench at the same conditions, or null while either is missing. */
export interface FlowAgainstLabel extends LabelFinding {
  readonly claim: ClaimRecord
  /** Mains frequency of the bench (Hz). */
  readonly mains: number
  readonly label: number
  /** The label brought to the bench's mains frequency (m³/s). */
  readonly labelAtMains: number
  readonly ratio: number
  readonly measured: Figure
}

/** Compares the label's flow with the trial at label conditions; a 60 Hz label on 50 Hz mains is scaled by affinity. */
export function flowAgainstLabel(
  model: ModelRecord,
  results: readonly TrialResult[],
): FlowAgainstLabel | null {
  const match = results.filter((r) => isLabelCondition(r.trial) && r.result.mean > 0).at(-1)
  const claim = match && claimed(model, 'rated-flow', match.trial.mainsFrequency)
  if (!claim || !match || claim.value <= 0 || !hasPump(model.kind)) return null
  const { value: labelAtMains, ratio } = atMains(claim, match.trial.mainsFrequency)
  return {
    ...compareWithLabel(labelAtMains, match.result.mean, match.result.expandedUncertainty),
    claim,
    mains: match.trial.mainsFrequency,
    label: claim.value,
    labelAtMains,
    ratio,
    measured: match.figure,
  }
}

/** A lift this near to the hookup's own is as installed, m (common practice, no source). */
const AS_INSTALLED = 0.02

/**
 * The newest trial of a state as it is installed: on its hoses, or in the tank where it has none; at the lift, mains
 * and open taps that it stands with. Null while there is none.
 */
export function installedTrial(
  results: readonly TrialResult[],
  { kind, hookups, mainsFrequency }: Pick<ModelRecord, 'kind' | 'hookups' | 'mainsFrequency'>,
  state: FillState,
): TrialResult | null {
  const asItStands = ({ trial }: TrialResult): boolean => {
    const own = hookups.find((h) => h.id === trial.hookupId) ?? (FILTERS[kind].hoses ? undefined : hookups[0])
    const lift = own ? netStaticHead(own).head : 0
    return (
      (trial.hookupId !== null || !FILTERS[kind].hoses) &&
      Math.abs(Math.max(0, trial.lift) - lift) <= AS_INSTALLED &&
      trial.mainsFrequency === mainsFrequency &&
      !throttled(trial)
    )
  }
  return results.findLast((r) => r.trial.state === state && asItStands(r)) ?? null
}

/** The largest flow measured at no lift in any clean state: what it does at best. */
export const bestTrial = (results: readonly TrialResult[]): TrialResult | null =>
  results
    .filter((r) => r.trial.state !== 'dirty' && r.trial.lift <= 0 && r.result.mean > 0)
    .reduce<TrialResult | null>((best, r) => (best && best.result.mean >= r.result.mean ? best : r), null)
