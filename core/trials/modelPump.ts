import { mean, sum } from 'simple-statistics'
import { thumbFlow } from '../bench'
import { putFigure, type Figure } from '../figures'
import { budgetFigures, changeFigure, fitFigures, type BudgetItem, type ChangeItem } from './lineFigures'
import {
  affinity,
  fitPumpCurve,
  pumpFromLabel,
  pumpHead,
  throttledRun,
  type CommonUncertainty,
  type Fluid,
  type HeadFlowPoint,
  type Pump,
  type PumpFit,
} from '../hydraulics'
import { bareOutlet, velocityHead } from '../kinds'
import {
  circuitLoss,
  LOSS_UNCERTAINTY,
  headBudget,
  netStaticHead,
  pumpVariance,
  sensitivity,
  uncertainDutyPoint,
  type BudgetLine,
  type PumpKnowledge,
  type StaticHead,
  type UncertainDutyPoint,
} from '../duty'
import { expanded } from '../statistics'
import { waterProperties } from '../water'
import { pooledScatter } from '../bench'
import type { TrialResult } from './flows'
import { wholeReadings } from './readings'
import { atMains, claimed, labelFigure } from './labels'
import type { HookupRecord, ModelRecord, TrialRecord } from './records'
import { FILTERS, hasPump } from '../kinds'
import { labelBias, type LabelBias } from './bias'

/** The pump as it is known: from the label alone, or fitted to what the bench measured. */
export interface KnownPump {
  readonly pump: Pump
  readonly from: 'label' | 'fit'
  readonly fit: PumpFit | null
  /** Why there is no fit yet, as the fit said it. */
  readonly fitProblem: string | null
  readonly labelPump: Pump | null
  /** What the label prints, as points of its curve: its flow leaves the outlet with a velocity head; m³/s and m. */
  readonly labelPoints: readonly { readonly flow: number; readonly head: number }[]
  /** Heads (m) taken as usual for its kind, because the label prints none; null where it does, or a fit knows. */
  readonly supposedHead: readonly [low: number, high: number] | null
  /** Label bias, where the pump is known from its label. */
  readonly bias: LabelBias
  /** Measured points, in the fit and out of it. */
  readonly curve: CurvePoints
  /** Shut-off head, flow at no head and exponent with their intervals, when fitted. */
  readonly fitFigures: ReturnType<typeof fitFigures>
}

/** Points of the pump's curve, those taken out of it, and what all of them share. */
export interface CurvePoints {
  readonly points: readonly (HeadFlowPoint & { readonly trialId: string })[]
  readonly out: readonly (HeadFlowPoint & { readonly trialId: string; readonly reason: string })[]
  readonly common: CommonUncertainty
}

/** Height at which the flow just stops, seen by eye, m (common practice, no source). */
const EYE = 0.01
/** A tape read at the outlet, m, and what is doubted of the velocity head in it: by how its bore is known. */
const TAPE = 0.005
const OUTLET = { known: 0.1, assumed: 0.5 } as const
/** Datum of a tape held at the water, m (common practice, no source). */
const DATUM = 0.003

/**
 * Trials that show the pump itself: empty body, and heads at which the flow just stops. The head a pump gives is the
 * lift, what hoses take, and the velocity head the water leaves with: at the end of the hoses as their exit, from a
 * bare body at its outlet. Scatter is pooled over the trials as a share of flow, because a trial of three runs knows
 * its own poorly.
 */
export function curvePoints(model: ModelRecord, results: readonly TrialResult[]): CurvePoints {
  const empty = results.filter((r) => r.trial.state === 'empty' && r.result.mean > 0)
  const outlet = bareOutlet(model.kind, model.hookups[0]?.segments)
  const pooled = pooledScatter(empty.map((r) => r.result))
  const flows = empty.map(({ trial, result }) => {
    const hookup = model.hookups.find((h) => h.id === trial.hookupId)
    const run = throttledRun(hookup?.segments ?? [], trial.valve, outlet.bore)
    const loss =
      circuitLoss(result.mean, run, fluidOf(trial)) + (hookup ? 0 : velocityHead(result.mean, outlet.bore))
    const ratio = model.mainsFrequency / trial.mainsFrequency
    const own = pooled ? (pooled.relative * result.mean) / Math.sqrt(result.n) : result.standardUncertainty
    return {
      trialId: trial.id,
      reason: trial.outReason ?? null,
      flow: result.mean * ratio,
      head: (Math.max(0, trial.lift) + loss) * ratio ** 2,
      flowUncertainty: Math.max(own, 1e-4 * result.mean) * ratio,
      headUncertainty: Math.hypot(TAPE, LOSS_UNCERTAINTY * (hookup ? loss : 0)),
    }
  })
  const stops = model.trials
    .filter((t) => t.kind === 'shut-off')
    .map((t) => ({ ...t, heads: wholeReadings('shut-off', t.runs).map((r) => r.value) }))
    .filter((t) => t.heads.length > 0)
    .map(({ heads, ...t }) => {
      const ratio = model.mainsFrequency / t.mainsFrequency
      const head = mean(heads) * ratio ** 2
      return {
        trialId: t.id,
        reason: t.outReason ?? null,
        flow: 0,
        head,
        flowUncertainty: 1e-9,
        headUncertainty: EYE / Math.sqrt(heads.length),
      }
    })
  const shares = empty.map((r) => Math.hypot(r.result.typeB.vessel, r.result.typeB.reaction) / r.result.mean)
  const all = [...flows, ...stops]
  const top = Math.max(0, ...flows.map((f) => f.flow))
  return {
    points: all.filter((p) => p.reason === null),
    out: all.flatMap((p) => (p.reason === null ? [] : [{ ...p, reason: p.reason }])),
    common: {
      flow: shares.length ? Math.sqrt(sum(shares.map((v) => v * v)) / shares.length) : 0,
      head: DATUM,
      outletHead: OUTLET[outlet.known ? 'known' : 'assumed'] * velocityHead(top, outlet.bore),
      ...(pooled && { degreesOfFreedom: pooled.degreesOfFreedom }),
    },
  }
}

/** The water of a trial as the losses need it; at 25 °C and fresh without one. */
const fluidOf = (trial?: Pick<TrialRecord, 'waterTemperature' | 'salinity'>): Fluid => ({
  kinematicViscosity: waterProperties({
    temperature: trial?.waterTemperature ?? 25,
    salinity: trial?.salinity ?? 0,
  }).kinematicViscosity,
})

/**
 * The pump from the bench where it will fit, else from the label (brought to the model's mains frequency; with the
 * usual head of its kind where none is printed), else null.
 */
export function knownPump(
  model: ModelRecord,
  results: readonly TrialResult[],
  bias: LabelBias = labelBias([]),
): KnownPump | null {
  if (!hasPump(model.kind)) return null
  const flow = claimed(model, 'rated-flow')
  const head = claimed(model, 'max-head')
  const { bore } = bareOutlet(model.kind, model.hookups[0]?.segments)
  const mains = model.mainsFrequency
  const rated = flow && flow.value > 0 ? atMains(flow, mains).value : null
  const pumpOf = (maxHead: number): Pump | null =>
    rated === null
      ? null
      : pumpFromLabel({ ratedFlow: rated, maxHead, outletHead: velocityHead(rated, bore) })
  const labelPump = head && head.value > 0 ? pumpOf(atMains(head, mains).value) : null
  const labelPoints = [
    ...(rated === null ? [] : [{ flow: rated, head: velocityHead(rated, bore) }]),
    ...(labelPump && head ? [{ flow: 0, head: atMains(head, mains).value }] : []),
  ]
  const usual = FILTERS[model.kind].usualHead
  const supposedHead = labelPump || !usual ? null : usual
  const curve = curvePoints(model, results)
  let fitProblem: string | null
  try {
    const fit = fitPumpCurve(curve.points, curve.common)
    return {
      pump: fit.pump,
      from: 'fit',
      fit,
      fitProblem: null,
      labelPump,
      labelPoints,
      supposedHead: null,
      bias,
      curve,
      fitFigures: fitFigures({ pump: fit.pump, fit }),
    }
  } catch (error) {
    fitProblem = error instanceof Error ? error.message : String(error)
  }
  const pump = labelPump ?? (supposedHead && pumpOf(Math.sqrt(supposedHead[0] * supposedHead[1])))
  return (
    pump && {
      pump,
      from: 'label',
      fit: null,
      fitProblem,
      labelPump,
      labelPoints,
      supposedHead,
      bias,
      curve,
      fitFigures: null,
    }
  )
}

/** How well a known pump is known, for the sums of uncertainty. */
export const knowledgeOf = ({ fit, supposedHead }: KnownPump): PumpKnowledge =>
  fit ? { kind: 'fit', fit } : { kind: 'label', ...(supposedHead && { heads: supposedHead }) }

/** One hookup worked through: static head, duty point, where the head goes, what a change would give. */
export interface HookupResult {
  /** The water it was worked out in; the circuit's line is drawn in the same. */
  readonly fluid: Fluid
  readonly hookup: HookupRecord
  readonly staticHead: StaticHead
  readonly duty: UncertainDutyPoint
  readonly budget: readonly BudgetItem[]
  readonly sensitivity: readonly ChangeItem[]
  readonly computed: Figure
  /** The loaded trial on this hookup, and the head its media and body take by difference. */
  readonly measured: {
    readonly figure: Figure
    readonly pumpHead: number
    readonly budget: readonly BudgetItem[]
  } | null
}

/** Works a hookup through at 25 °C (or the temperature of its own trial). */
export function hookupResult(
  hookup: HookupRecord,
  known: KnownPump,
  loaded: TrialResult | undefined,
  mainsFrequency: number,
): HookupResult {
  const staticHead = netStaticHead(hookup)
  const temperature = loaded?.trial.waterTemperature ?? 25
  const fluid = fluidOf(loaded?.trial)
  const circuit = {
    pump: known.pump,
    segments: hookup.segments,
    staticHead: staticHead.head,
    fluid,
  }
  const knowledge = knowledgeOf(known)
  const duty = uncertainDutyPoint(circuit, knowledge)
  const computed = computedFigure(hookup, known, duty, staticHead, temperature)
  return {
    hookup,
    fluid: circuit.fluid,
    staticHead,
    duty,
    budget: budgetFigures(headBudget(duty.flow, circuit), { ...circuit, flow: computed }),
    sensitivity: duty.blocked
      ? []
      : sensitivity(circuit, staticHead).map((line) => ({ ...line, figure: changeFigure(line, computed) })),
    computed,
    measured: loaded ? measuredBudget(loaded, circuit, { knowledge, mainsFrequency }) : null,
  }
}

/**
 * Where the head went at a loaded trial: the pump turned with that trial's mains, in its water, with its tap as it was.
 * Head of media and body: what hoses and lift leave of the pump's; its uncertainty carries the curve, the flow
 * and the tabulated losses.
 */
function measuredBudget(
  loaded: TrialResult,
  circuit: Parameters<typeof headBudget>[1] & { pump: Pump },
  known: { readonly knowledge: PumpKnowledge; readonly mainsFrequency: number },
): HookupResult['measured'] {
  const { trial, result } = loaded
  const flow = result.mean
  const ratio = trial.mainsFrequency / known.mainsFrequency
  const pump = affinity(circuit.pump, ratio)
  const lifted = {
    ...circuit,
    segments: throttledRun(circuit.segments, trial.valve),
    staticHead: Math.max(0, trial.lift),
  }
  const available = pumpHead(flow, pump)
  const lines = headBudget(flow, lifted)
  const spent = sum(lines.map((l) => l.head))
  const rest = available - spent
  const all: BudgetLine[] = [...lines]
  // A negative rest means the curve is pessimistic or a loss is overstated; it is left to the residual, not hidden
  // here.
  if (rest > 0)
    all.splice(lines.length - (lifted.staticHead > 0 ? 1 : 0), 0, {
      id: 'by-difference',
      label: 'Media and body (by difference)',
      kind: 'fitting',
      head: rest,
      share: 0,
    })
  const total = sum(all.map((l) => l.head))
  const slope = (pumpHead(flow * 1.001, pump) - pumpHead(flow * 0.999, pump)) / (0.002 * flow)
  const losses = spent - lifted.staticHead
  // dH/dQ of the curve and of the losses pull the same way: less flow is more head left over.
  const byFlow = (slope - (2 * losses) / flow) * result.standardUncertainty
  const byCurve = pumpVariance(pump, known.knowledge, (p) => pumpHead(flow, p) - available)
  const variance = byFlow ** 2 + byCurve.variance + (LOSS_UNCERTAINTY * losses) ** 2
  return {
    figure: loaded.figure,
    pumpHead: available,
    budget: budgetFigures(
      all.map((l) => ({ ...l, share: total > 0 ? l.head / total : 0 })),
      {
        ...lifted,
        flow: loaded.figure,
        available,
        restUncertainty: expanded(variance, [
          ...byCurve.parts,
          { variance: byFlow ** 2, degreesOfFreedom: result.effectiveDegreesOfFreedom },
        ]),
      },
    ),
  }
}

function computedFigure(
  hookup: HookupRecord,
  known: KnownPump,
  duty: UncertainDutyPoint,
  lift: StaticHead,
  temperature: number,
): Figure {
  return {
    id: `duty-${hookup.id}`,
    label: 'Calculated flow',
    value: duty.flow,
    dimension: 'flow',
    provenance: 'computed',
    uncertainty: duty.expandedUncertainty,
    conditions: [
      hookup.name,
      known.from === 'fit' ? 'pump curve from measurements' : 'pump curve from the label, n assumed 1.75',
      ...(known.supposedHead
        ? [
            `maximum head not on the label: ${known.supposedHead.join(' to ')} m assumed (usual for this kind)`,
          ]
        : []),
      'without media',
      `${temperature} °C`,
    ],
    formula: 'H0 (1 − (Q/Q0)^n) = H_static + Σ f (L/D) v²/2g + Σ K v²/2g',
    working: [
      {
        symbol: 'H0',
        label: 'maximum head',
        value: known.pump.shutOffHead,
        dimension: 'head',
        provenance: known.from === 'fit' ? 'computed' : known.supposedHead ? 'rule' : 'printed',
      },
      {
        symbol: 'Q0',
        label: 'flow at zero head',
        value: known.pump.maxFlow,
        dimension: 'flow',
        provenance: known.from === 'fit' ? 'computed' : 'printed',
      },
      {
        symbol: 'n',
        label: 'curve exponent',
        value: known.pump.exponent,
        dimension: 'ratio',
        provenance: known.fit?.exponent === 'fitted' ? 'computed' : 'rule',
      },
      {
        symbol: 'H_static',
        label: 'net static head',
        value: lift.head,
        dimension: 'head',
        provenance: 'measured',
      },
      {
        symbol: 'H',
        label: 'head at the duty point',
        value: duty.head,
        dimension: 'head',
        provenance: 'computed',
      },
    ],
    source: 'Darcy–Weisbach with Colebrook; fittings after Crane TP-410 and Idelchik (from memory)',
  }
}

/** The label's flow, brought to the bench's mains, less 40 to 50 %, as the trade's rule has it. */
export function thumbFigure(model: ModelRecord): Figure | null {
  const claim = claimed(model, 'rated-flow')
  // What air lifts belongs to the air pump; no rule takes anything off its label.
  if (!claim || !hasPump(model.kind)) return null
  const label = labelFigure(claim, model.mainsFrequency)
  const t = thumbFlow(label.value)
  return {
    id: 'thumb-flow',
    label: 'Rule of thumb',
    value: t.mid,
    dimension: 'flow',
    provenance: 'rule',
    uncertainty: (t.high - t.low) / 2,
    conditions: ['any plumbing', 'any media setup'],
    formula: 'Q = label × (0.5 to 0.6)',
    working: [putFigure('label', label)],
    source: 'common practice, no source',
  }
}
