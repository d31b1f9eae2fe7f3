import { compareWithLabel, flowFromRuns, type FlowResult, type LabelFinding } from '../bench'
import type { Figure } from '../figures'
import { claimed, type FillState, type FilterKind, type FlowTrialRecord, type ModelRecord } from './records'

/** A trial with its arithmetic done; trials without runs are left out before this. */
export interface TrialResult {
  readonly trial: FlowTrialRecord
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
  trial: FlowTrialRecord,
  model: Pick<ModelRecord, 'hookups'>,
): readonly string[] {
  const hookup = model.hookups.find((h) => h.id === trial.hookupId)
  return [
    STATE_WORDS[trial.state],
    hookup ? hookup.name : 'nothing attached',
    trial.lift > 0 ? `${trial.lift} m lift` : 'no lift',
    `${trial.waterTemperature} °C`,
    `${trial.mainsFrequency} Hz`,
  ]
}

/** Does the arithmetic of every trial that has runs. */
export const trialResults = (model: ModelRecord): readonly TrialResult[] =>
  model.trials
    .filter((t) => t.runs.length > 0)
    .map((trial) => {
      const result = flowFromRuns(trial.runs, trial.method)
      return { trial, result, figure: flowFigure(trial, result, trialConditions(trial, model)) }
    })

function flowFigure(trial: FlowTrialRecord, r: FlowResult, conditions: readonly string[]): Figure {
  return {
    id: `trial-${trial.id}`,
    label: 'Measured flow',
    value: r.mean,
    dimension: 'flow',
    provenance: 'measured',
    uncertainty: r.expandedUncertainty,
    conditions,
    formula: 'Q = mean(V/t);  U = k · √(u_A² + u_vessel² + u_clock² + u_reaction²)',
    working: [
      { symbol: 'n', label: 'runs', value: r.n, dimension: 'ratio' },
      { symbol: 'u_A', label: 'scatter of the mean', value: r.typeA, dimension: 'flow' },
      { symbol: 'u_vessel', label: 'vessel', value: r.typeB.vessel, dimension: 'flow' },
      { symbol: 'u_clock', label: 'clock resolution', value: r.typeB.timing, dimension: 'flow' },
      {
        symbol: 'u_reaction',
        label: 'reaction at start and stop',
        value: r.typeB.reaction,
        dimension: 'flow',
      },
      { symbol: 'k', label: 'coverage factor, 95 %', value: r.coverageFactor, dimension: 'ratio' },
    ],
    source: 'GUM, JCGM 100:2008',
    ...(trial.when && { when: trial.when }),
  }
}

/** Is the trial the one a label speaks of: nothing inside, nothing attached, no lift? */
export const isLabelCondition = (t: FlowTrialRecord): boolean =>
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

/** Kinds that stand in or on the tank: with media in they are installed, hose or no hose. */
const HOSELESS: readonly FilterKind[] = [
  'hang-on-back',
  'internal',
  'motor-sponge',
  'air-sponge',
  'air-box',
  'fluidised',
]

/** The trial that best shows the filter as installed: loaded, on its hoses; proposed before shipped; newest first. */
export function installedTrial(results: readonly TrialResult[], kind: FilterKind): TrialResult | null {
  const pick = (state: FillState): TrialResult | undefined =>
    results.findLast(
      (r) =>
        r.trial.state === state &&
        (r.trial.hookupId !== null || (state !== 'empty' && HOSELESS.includes(kind))),
    )
  return pick('proposed') ?? pick('as-shipped') ?? pick('empty') ?? null
}

/** The largest flow measured at no lift in any clean state: what it does at best. */
export const bestTrial = (results: readonly TrialResult[]): TrialResult | null =>
  results
    .filter((r) => r.trial.state !== 'dirty' && r.trial.lift <= 0)
    .reduce<TrialResult | null>((best, r) => (best && best.result.mean >= r.result.mean ? best : r), null)
