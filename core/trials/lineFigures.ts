import { put, putFigure, type Figure, type WorkingLine } from '../figures'
import {
  frictionFactor,
  LABEL_EXPONENT,
  reynolds,
  velocity,
  type Fluid,
  type Pump,
  type PumpFit,
  type Segment,
} from '../hydraulics'
import type { BudgetLine, SensitivityLine } from '../duty'

/** A line of the head budget with the number that answers for itself. */
export interface BudgetItem extends BudgetLine {
  readonly figure: Figure
}

/** A change to the hookup with its gain. */
export interface ChangeItem extends SensitivityLine {
  readonly figure: Figure
}

interface Spent {
  readonly segments: readonly Segment[]
  readonly fluid: Fluid
  readonly flow: Figure
  /** Pump head (m) at the measured flow, where a line is what is left of it. */
  readonly available?: number
  /** Expanded uncertainty (m) of what is left. */
  readonly restUncertainty?: number
}

/** Gives each line of a head budget its formula with the numbers put in. */
export const budgetFigures = (lines: readonly BudgetLine[], spent: Spent): readonly BudgetItem[] =>
  lines.map((line) => ({
    ...line,
    figure: {
      id: `budget-${line.id}`,
      label: `Head loss: ${line.label.toLowerCase()}`,
      value: line.head,
      dimension: 'head',
      provenance: line.kind === 'static' ? 'measured' : 'computed',
      ...(line.id === 'by-difference' && spent.restUncertainty && { uncertainty: spent.restUncertainty }),
      ...workingOf(line, lines, spent),
    },
  }))

function workingOf(
  line: BudgetLine,
  lines: readonly BudgetLine[],
  { segments, fluid, flow, available }: Spent,
): Pick<Figure, 'formula' | 'working' | 'source'> {
  const segment = segments.find((s) => s.id === line.id)
  if (line.kind === 'static')
    return {
      formula: 'level of the return − level of the intake',
      source: 'energy equation between the two free surfaces (Bernoulli)',
    }
  if (!segment)
    return {
      formula: 'H_pump − hoses, fittings and lift',
      working: [
        put('H_pump', 'pump head at the measured flow', available ?? 0, 'head', 'computed'),
        ...lines
          .filter((l) => l !== line)
          .map((l, i) => put(`h${i + 1}`, l.label, l.head, 'head', 'computed')),
      ],
    }
  return segmentWorking(segment, fluid, flow)
}

function segmentWorking(
  s: Segment,
  fluid: Fluid,
  flow: Figure,
): Pick<Figure, 'formula' | 'working' | 'source'> {
  const q: WorkingLine = putFigure('Q', flow)
  if (s.kind === 'hose') {
    const re = reynolds(flow.value, s.diameter, fluid.kinematicViscosity)
    return {
      formula: 'h = f (L/D) v²/2g',
      working: [
        q,
        put('L', 'length', s.length, 'head', 'measured'),
        put('D', 'inner diameter', s.diameter, 'length', 'measured'),
        put('v', 'velocity', velocity(flow.value, s.diameter), 'velocity', 'computed'),
        put('Re', 'Reynolds number', re, 'ratio', 'computed'),
        ...(re > 0
          ? [put('f', 'friction factor', frictionFactor(re, s.roughness / s.diameter), 'ratio', 'computed')]
          : []),
      ],
      source: 'Darcy–Weisbach with Colebrook–White',
    }
  }
  if (s.kind === 'fitting')
    return {
      formula: 'h = n K v²/2g',
      working: [
        q,
        put('n', 'how many', s.count, 'ratio', 'measured'),
        put('K', 'loss coefficient of one', s.lossCoefficient, 'ratio', 'computed'),
        put('v', 'velocity in its bore', velocity(flow.value, s.diameter), 'velocity', 'computed'),
      ],
      source: 'Crane TP-410 and Idelchik (from memory), or as entered',
    }
  return {
    formula: 'h = (Q / (C N a))² / 2g',
    working: [
      q,
      put('C', 'discharge coefficient', s.dischargeCoefficient, 'ratio', 'computed'),
      put('N', 'holes', s.holes, 'ratio', 'measured'),
      put('d', 'hole diameter', s.holeDiameter, 'length', 'measured'),
    ],
    source: 'orifice discharge, Idelchik (from memory)',
  }
}

/** Effect of one change: the circuit solved again with it, less the flow as it is. */
export const changeFigure = (line: SensitivityLine, now: Figure): Figure => ({
  id: `change-${line.id}`,
  label: line.label,
  value: line.change,
  dimension: 'flow',
  provenance: 'computed',
  conditions: ['without media', 'this change only'],
  formula: 'ΔQ = Q(changed) − Q(as it is)',
  working: [put('Q(changed)', 'duty point solved again', line.flow, 'flow', 'computed'), putFigure('Q', now)],
})

/** The fitted curve's three parameters with their intervals. */
export function fitFigures(known: {
  readonly pump: Pump
  readonly fit: PumpFit | null
}): { readonly shutOff: Figure; readonly maxFlow: Figure; readonly exponent: Figure } | null {
  const { fit, pump } = known
  if (!fit) return null
  const half = (i: number): number => fit.halfWidths[i] ?? NaN
  const common = {
    provenance: 'computed',
    conditions: [`${fit.points.length} measured points`],
    formula: 'H = H0 (1 − (Q/Q0)^n), weighted least squares',
    working: [
      put('points', 'in the fit', fit.points.length),
      ...(Number.isFinite(fit.degreesOfFreedom)
        ? [put('ν', 'degrees of freedom of the scatter', fit.degreesOfFreedom)]
        : []),
      put('n₀', 'usual exponent, ± 0.3', LABEL_EXPONENT.value, 'ratio', 'rule'),
      put('s', 'weighted residual, 1 is as expected', fit.residualDeviation),
    ],
    source: 'effective-variance weights, Orear 1982; U = t(0.975, ν_eff) · √C, GUM G.4',
  } as const
  const spread = (i: number): { readonly uncertainty?: number } =>
    Number.isFinite(half(i)) && half(i) > 0 ? { uncertainty: half(i) } : {}
  return {
    shutOff: {
      ...common,
      id: 'fit-h0',
      label: 'Maximum head',
      value: pump.shutOffHead,
      dimension: 'head',
      ...spread(0),
    },
    maxFlow: {
      ...common,
      id: 'fit-q0',
      label: 'Flow at zero head',
      value: pump.maxFlow,
      dimension: 'flow',
      ...spread(1),
    },
    exponent: {
      ...common,
      id: 'fit-n',
      label: 'Curve exponent',
      value: pump.exponent,
      dimension: 'ratio',
      provenance: fit.exponent === 'assumed' ? 'rule' : 'computed',
      ...spread(2),
    },
  }
}
