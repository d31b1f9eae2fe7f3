import { FILTERS } from '../kinds'
import { compareWithLabel, type FlowResult, type LabelFinding } from '../bench'
import { FLOWS, trialFlow } from '../trials/flow'
import { isFlowKind, type TrialKind } from '../trials/readings'
import type { BenchReading } from '../trials/shape'
import { put, type Figure } from '../figures'
import { netStaticHead } from '../hydraulics'
import { claimed, type FillState, type TrialRecord, type ModelRecord } from './records'

/** A trial with its arithmetic done; trials without runs are left out before this. */
export interface TrialResult {
  readonly trial: TrialRecord
  readonly result: FlowResult
  readonly figure: Figure
}

const STATE_WORDS: Readonly<Record<FillState, string>> = {
  empty: 'empty body',
  'as-shipped': 'media as shipped',
  proposed: 'media as proposed',
  dirty: 'dirty',
}

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
    hookup ? hookup.name : 'nothing attached',
    trial.lift > 0 ? `${trial.lift} m lift` : 'no lift',
    `${trial.waterTemperature} °C`,
    `${trial.mainsFrequency} Hz`,
  ]
}

/** Does the arithmetic of every trial that has runs. */
export const trialResults = (model: ModelRecord): readonly TrialResult[] =>
  model.trials
    .filter((t) => isFlowKind(t.kind ?? 'vessel'))
    .flatMap((trial) => {
      const result = trialFlow(trial)
      return result
        ? [{ trial, result, figure: flowFigure(trial, result, trialConditions(trial, model)) }]
        : []
    })

/** How a kind's flow comes of its reading, in symbols. */
function formulaOf(kind: TrialKind, of = ''): string {
  const symbols = FLOWS[kind]?.formula
  return symbols ? `Q = ${of}${symbols}` : 'as read'
}

/** One timed run as a flow of its own. */
export const runFigure = (run: BenchReading, flow: number, index: number, kind: TrialKind): Figure => ({
  id: `run-${index}`,
  label: `Run ${index + 1}`,
  value: flow,
  dimension: 'flow',
  provenance: 'measured',
  formula: formulaOf(kind),
  working: [
    ...(run.volume ? [put('V', 'vessel to the mark', run.volume, 'volume', 'measured')] : []),
    ...(kind === 'weighed' ? [put('m', 'scale gained', run.value ?? 0, 'mass', 'measured')] : []),
    ...(kind === 'meter' ? [put('N', 'pulses', run.value ?? 0, 'ratio', 'measured')] : []),
    ...(run.seconds ? [put('t', 'seconds', run.seconds, 'time', 'measured')] : []),
  ],
})

/** The mean of a trial's timed runs with every part of its uncertainty. */
export function flowFigure(
  trial: Pick<TrialRecord, 'id' | 'when' | 'kind'>,
  r: FlowResult,
  conditions: readonly string[],
): Figure {
  return {
    id: `trial-${trial.id}`,
    label: 'Measured flow',
    value: r.mean,
    dimension: 'flow',
    provenance: 'measured',
    uncertainty: r.expandedUncertainty,
    conditions,
    formula: `${formulaOf(trial.kind ?? 'vessel', 'mean of ')};  U = k · √(u_A² + u_B² + u_clock² + u_reaction²)`,
    working: [
      { symbol: 'n', label: 'runs', value: r.n, dimension: 'ratio' },
      { symbol: 'u_A', label: 'scatter of the mean', value: r.typeA, dimension: 'flow' },
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

/** Is the trial the one a label speaks of: nothing inside, nothing attached, no lift? */
export const isLabelCondition = (t: TrialRecord): boolean =>
  t.state === 'empty' && t.lift <= 0 && t.hookupId === null

/** The rated flow held against the bench at the same conditions, or null while either is missing. */
export interface FlowAgainstLabel extends LabelFinding {
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
  const claim = claimed(model, 'rated-flow')
  const match = results.filter((r) => isLabelCondition(r.trial)).at(-1)
  if (!claim || !match) return null
  const ratio = claim.mainsFrequency ? match.trial.mainsFrequency / claim.mainsFrequency : 1
  const labelAtMains = claim.value * ratio
  return {
    ...compareWithLabel(labelAtMains, match.result.mean, match.result.expandedUncertainty),
    label: claim.value,
    labelAtMains,
    ratio,
    measured: match.figure,
  }
}

/** A lift this near to the hookup's own is as installed, m (common practice, no source). */
const AS_INSTALLED = 0.02

/**
 * The trial that best shows the filter as installed: loaded, on its hoses, at the lift they have; proposed before
 * shipped; newest first.
 */
export function installedTrial(
  results: readonly TrialResult[],
  { kind, hookups }: Pick<ModelRecord, 'kind' | 'hookups'>,
): TrialResult | null {
  const asItStands = ({ trial }: TrialResult): boolean => {
    const hookup = hookups.find((h) => h.id === trial.hookupId)
    return !hookup || Math.abs(Math.max(0, trial.lift) - netStaticHead(hookup).head) <= AS_INSTALLED
  }
  const pick = (state: FillState): TrialResult | undefined => {
    const fits = results.filter(
      (r) =>
        r.trial.state === state && (r.trial.hookupId !== null || (state !== 'empty' && !FILTERS[kind].hoses)),
    )
    return fits.findLast(asItStands) ?? fits.at(-1)
  }
  return pick('proposed') ?? pick('as-shipped') ?? pick('empty') ?? null
}

/** The largest flow measured at no lift in any clean state: what it does at best. */
export const bestTrial = (results: readonly TrialResult[]): TrialResult | null =>
  results
    .filter((r) => r.trial.state !== 'dirty' && r.trial.lift <= 0)
    .reduce<TrialResult | null>((best, r) => (best && best.result.mean >= r.result.mean ? best : r), null)
