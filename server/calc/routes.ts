import {
  CalcAnswer,
  chamberRecord,
  DutyPointRequest,
  FlowRunsRequest,
  NetworkRequest,
  PathRequest,
  PumpFitRequest,
  TracerRequest,
} from '@ypsometer/contract'
import { flowFromRuns, runsNeeded, tracerFigures } from '@ypsometer/core/bench'
import { sentenceText } from '@ypsometer/core/figures'
import {
  fitPumpCurve,
  headBudget,
  sensitivity,
  uncertainDutyPoint,
  type Segment,
} from '@ypsometer/core/hydraulics'
import { fromInp, solveNetwork, toInp, type Element } from '@ypsometer/core/network'
import { GENERIC_MEDIA } from '@ypsometer/core/media'
import { HOUSE_RULES, studyOf, type Outcome, type Study } from '@ypsometer/core/path'
import { STOCK_CLASSES } from '@ypsometer/core/tanks'
import { waterProperties } from '@ypsometer/core/water'
import type { FastifyInstance } from 'fastify'
import { fieldProblem } from '../http/problems'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { z } from 'zod'

/** JSON has no infinity: an unlimited number of degrees of freedom travels as null. */
const finite = (result: object): z.infer<typeof CalcAnswer> =>
  CalcAnswer.parse(JSON.parse(JSON.stringify(result)))

/** A fill on its hookup as the request has it, studied. */
function studyFrom(r: PathRequest): Study {
  const stock = STOCK_CLASSES.find((s) => s.id === r.stockClass)
  const [usual] = HOUSE_RULES
  if (!stock || !usual) throw fieldProblem('stockClass', 'one of the stock classes')
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

/** What of an outcome travels: numbers, not the objects they were made from. */
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

/** Stateless arithmetic: the same functions the screens use, for other programs. */
export function registerCalc(app: FastifyInstance): void {
  const typed = app.withTypeProvider<ZodTypeProvider>()
  const answer = { 200: CalcAnswer }
  const tags = ['calc']

  typed.post('/calc/flow-runs', { schema: { tags, body: FlowRunsRequest, response: answer } }, ({ body }) => {
    const target = body.target ?? 0.03
    return finite({
      ...flowFromRuns(body.runs, body.method),
      target,
      runsNeeded: body.runs.length > 1 ? runsNeeded(body.runs, target, body.method) : null,
    })
  })

  typed.post('/calc/pump-fit', { schema: { tags, body: PumpFitRequest, response: answer } }, ({ body }) =>
    finite(
      fitPumpCurve(
        body.points.map((p) => ({
          flow: p.flow,
          head: p.head,
          ...(p.flowUncertainty !== undefined && { flowUncertainty: p.flowUncertainty }),
          ...(p.headUncertainty !== undefined && { headUncertainty: p.headUncertainty }),
        })),
      ),
    ),
  )

  typed.post(
    '/calc/duty-point',
    { schema: { tags, body: DutyPointRequest, response: answer } },
    ({ body }) => {
      const { kinematicViscosity } = waterProperties(body.water)
      const segments: readonly Segment[] = body.segments
      const circuit = {
        pump: body.pump,
        segments,
        staticHead: body.staticHead,
        fluid: { kinematicViscosity },
      }
      const duty = uncertainDutyPoint(circuit, { kind: 'label' })
      return finite({
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
      })
    },
  )

  typed.post('/calc/network', { schema: { tags, body: NetworkRequest, response: answer } }, ({ body }) => {
    const { kinematicViscosity } = waterProperties(body.water)
    const network =
      body.inp !== undefined
        ? fromInp(body.inp)
        : {
            elements: body.elements as readonly Element[],
            heads: body.heads,
            ...(body.inflows && { inflows: body.inflows }),
            fluid: { kinematicViscosity },
          }
    const { heads, results, iterations } = solveNetwork(network)
    return finite({
      heads,
      flows: results.map((r) => ({ id: r.element.id, flow: r.flow, loss: r.loss })),
      iterations,
      inp: toInp(network),
    })
  })

  typed.post('/calc/path-audit', { schema: { tags, body: PathRequest, response: answer } }, ({ body }) => {
    const { outcome: o, findings, sensitivity: changes } = studyFrom(body)
    return finite({
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
    })
  })

  typed.post('/calc/media-audit', { schema: { tags, body: PathRequest, response: answer } }, ({ body }) => {
    const { outcome: o } = studyFrom(body)
    return finite({
      layers: layersOf(o),
      ...o.weights,
      capacity: o.capacity,
      cost: o.cost,
      shopping: o.shopping.map(({ medium, ...line }) => ({ medium: medium.name, ...line })),
    })
  })

  typed.post('/calc/tracer', { schema: { tags, body: TracerRequest, response: answer } }, ({ body }) =>
    finite(tracerFigures(body.points, body.nominal ?? null)),
  )
}
