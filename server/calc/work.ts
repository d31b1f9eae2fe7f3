import {
  chamberRecord,
  MOST_ELEMENTS,
  NetworkFile,
  type CalcAnswer,
  type DutyPointRequest,
  type FlowRunsRequest,
  type NetworkRequest,
  type PathRequest,
  type PumpFitRequest,
  type TracerRequest,
} from '@ypsometer/contract'
import { flowFromRuns, runsNeeded } from '@ypsometer/core/bench/flowRuns'
import { tracerFigures } from '@ypsometer/core/bench/tracer'
import { dueMiddle } from '@ypsometer/core/clogging/study'
import type { ClogCase } from '@ypsometer/core/clogging/run'
import type { Seen } from '@ypsometer/core/clogging/learn'
import { CoreError, OutOfRange } from '@ypsometer/core/errors/errors'
import { sentenceText } from '@ypsometer/core/figures/figure'
import { fitPumpCurve } from '@ypsometer/core/hydraulics/pumpFit'
import { headBudget } from '@ypsometer/core/duty/circuit'
import { sensitivity } from '@ypsometer/core/duty/sensitivity'
import { uncertainDutyPoint } from '@ypsometer/core/duty/dutyUncertainty'
import type { Segment } from '@ypsometer/core/hydraulics/segments'
import { fromInp, toInp } from '@ypsometer/core/network/inp'
import { solveNetwork, type Network } from '@ypsometer/core/network/solve'
import type { Element } from '@ypsometer/core/network/elements'
import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { HOUSE_RULES } from '@ypsometer/core/path/audit'
import { studyOf, type Study } from '@ypsometer/core/path/study'
import type { Outcome } from '@ypsometer/core/path/outcome'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { waterProperties } from '@ypsometer/core/water/properties'
import type { z } from 'zod'

/** A fill on its hookup as the request has it, studied. */
function studyFrom(r: PathRequest): Study {
  const stock = STOCK_CLASSES.find((s) => s.code === r.stockClass)
  const [usual] = HOUSE_RULES
  if (!stock || !usual) throw new Error('the contract lets no other stock class in')
  const base = {
    kind: r.kind,
    body: r.body,
    chambers: [...r.chambers].sort((a, b) => a.position - b.position).map(chamberRecord),
    media: [...GENERIC_MEDIA, ...r.media],
    hookup: r.hookup && { ...r.hookup, id: 'request' },
    second: r.hookup?.fitted.second ?? null,
    drive: { pump: r.pump, knowledge: { kind: 'label' }, from: 'label' },
    rest: r.rest,
    temperature: r.temperature,
  } as const
  return studyOf(() => base)({
    fill: { id: 'request', name: 'as sent', basis: 'variant', layers: r.layers },
    house: { ...(r.houseRule ?? usual), id: 'request' },
    stock,
  })
}

/** Part of an outcome that travels: numbers, not the objects they were made from. */
const layersOf = (o: Outcome) =>
  o.layers.map((l) => ({
    id: l.placed.layer.id,
    chamberId: l.chamber.chamber.id,
    medium: l.placed.medium.name,
    thickness: l.placed.thickness,
    volume: l.placed.volume,
    mass: l.placed.mass,
    over: l.placed.over,
    through: l.through,
    past: l.past,
    bypassFraction: l.bypassFraction,
    head: l.head,
    velocity: l.velocity,
    contact: l.contact,
  }))

/** The network in a file of ours. @throws OutOfRange where its lines are not what we write. */
function networkFrom(inp: string): Network {
  const whole = NetworkFile.safeParse(fromInp(inp))
  if (whole.success) return whole.data as Network
  const [first] = whole.error.issues
  throw new OutOfRange('inp', inp.length, {
    words: `a whole file: ${first?.path.join('.') || 'a line'} cannot be read (${first?.message ?? ''})`,
  })
}

/** Calculations for the server’s own threads that no route offers: when a filter is due, with what visits taught. */
interface DueQuestion {
  readonly of: ClogCase
  readonly feed: { readonly band: number }
  readonly seen: readonly Seen[]
  readonly dueAt: number
}

/** Bodies of the calculations. */
interface Requests {
  readonly 'flow-runs': z.output<typeof FlowRunsRequest>
  readonly 'pump-fit': z.output<typeof PumpFitRequest>
  readonly 'duty-point': z.output<typeof DutyPointRequest>
  readonly network: z.output<typeof NetworkRequest>
  readonly 'path-audit': PathRequest
  readonly 'media-audit': PathRequest
  readonly tracer: z.output<typeof TracerRequest>
  readonly 'upkeep-due': DueQuestion
}
export type Calculation = keyof Requests
export type RequestOf<C extends Calculation> = Requests[C]

const CALCULATIONS: { readonly [C in Calculation]: (body: RequestOf<C>) => object } = {
  'flow-runs': (body) => {
    const target = body.target ?? 0.03
    return {
      ...flowFromRuns(body.runs, body.method),
      target,
      runsNeeded: body.runs.length > 1 ? runsNeeded(body.runs, target, body.method) : null,
    }
  },

  'pump-fit': (body) =>
    fitPumpCurve(
      body.points.map((p) => ({
        flow: p.flow,
        head: p.head,
        ...(p.flowUncertainty !== undefined && { flowUncertainty: p.flowUncertainty }),
        ...(p.headUncertainty !== undefined && { headUncertainty: p.headUncertainty }),
      })),
    ),

  'duty-point': (body) => {
    const { kinematicViscosity } = waterProperties(body.water)
    const segments: readonly Segment[] = body.segments
    const circuit = {
      pump: body.pump,
      segments,
      staticHead: body.staticHead,
      fluid: { kinematicViscosity },
    }
    const duty = uncertainDutyPoint(circuit, { kind: 'label' })
    return {
      ...duty,
      budget: headBudget(duty.flow, circuit),
      sensitivity: duty.blocked
        ? []
        : sensitivity(circuit, {
            head: body.staticHead,
            circuit: body.staticHead === 0 ? 'closed' : 'open',
            fromOutlet: body.outletAboveWater,
            fromSource: body.staticHead - body.outletAboveWater,
          }),
    }
  },

  network: (body) => {
    const { kinematicViscosity } = waterProperties(body.water)
    const network =
      body.inp !== undefined
        ? networkFrom(body.inp)
        : {
            elements: body.elements as readonly Element[],
            heads: body.heads,
            ...(body.inflows && { inflows: body.inflows }),
            fluid: { kinematicViscosity },
          }
    if (network.elements.length > MOST_ELEMENTS)
      throw new OutOfRange('inp', network.elements.length, { max: MOST_ELEMENTS, unit: 'elements' })
    const { heads, results, iterations } = solveNetwork(network)
    return {
      heads,
      flows: results.map((r) => ({ id: r.element.id, flow: r.flow, loss: r.loss })),
      iterations,
      inp: toInp(network),
    }
  },

  'path-audit': (body) => {
    const { outcome: o, findings, sensitivity: changes } = studyFrom(body)
    return {
      flow: o.flow,
      uncertainty: o.uncertainty,
      pumpHead: o.pumpHead,
      meetsMedia: o.meetsMedia,
      unstrained: o.unstrained,
      layers: layersOf(o),
      sides: o.sides,
      budget: o.budget.map(({ id, label, head }) => ({ id, label, head })),
      sensitivity: changes.map(({ label, flow, change }) => ({ label, flow, change })),
      findings: findings.map((f) => ({
        rule: f.rule.id,
        severity: f.rule.severity,
        weight: f.weight,
        layerId: f.layerId,
        chamberId: f.chamberId,
        says: sentenceText(f.sentence, 'metric'),
      })),
    }
  },

  'media-audit': (body) => {
    const { outcome: o } = studyFrom(body)
    return {
      layers: layersOf(o),
      ...o.weights,
      capacity: o.capacity,
      cost: o.cost,
      shopping: o.shopping.map(({ medium, ...line }) => ({ medium: medium.name, ...line })),
    }
  },

  tracer: (body) => tracerFigures(body.points, body.nominal ?? null),

  'upkeep-due': ({ of, feed, seen, dueAt }) => ({ day: dueMiddle(of, feed, seen, dueAt) }),
}

/** A calculation as it goes to a worker, and what comes back: the answer, or the field that the core refuses. */
export interface Job<C extends Calculation = Calculation> {
  readonly name: C
  readonly body: RequestOf<C>
}
export type Outcoming =
  | { readonly answer: z.infer<typeof CalcAnswer> }
  | { readonly refused: { readonly field: string; readonly message: string } }

/** Carries out one calculation. JSON has no infinity: an unlimited number of degrees of freedom travels as null. */
export function carryOut<C extends Calculation>({ name, body }: Job<C>): Outcoming {
  try {
    return { answer: JSON.parse(JSON.stringify(CALCULATIONS[name](body))) as z.infer<typeof CalcAnswer> }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    return { refused: { field: error.field, message: error.message } }
  }
}
