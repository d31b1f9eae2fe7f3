import {
  CalcAnswer,
  DutyPointRequest,
  FlowRunsRequest,
  PumpFitRequest,
  TracerRequest,
} from '@ypsometer/contract'
import { flowFromRuns, runsNeeded, tracerFigures } from '@ypsometer/core/bench'
import {
  fitPumpCurve,
  headBudget,
  sensitivity,
  uncertainDutyPoint,
  type Segment,
} from '@ypsometer/core/hydraulics'
import { waterProperties } from '@ypsometer/core/water'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'

/** JSON has no infinity: an unlimited number of degrees of freedom travels as null. */
const finite = (result: object): Record<string, unknown> =>
  JSON.parse(JSON.stringify(result)) as Record<string, unknown>

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
        sensitivity: duty.blocked ? [] : sensitivity(circuit),
      })
    },
  )

  typed.post('/calc/tracer', { schema: { tags, body: TracerRequest, response: answer } }, ({ body }) =>
    finite(tracerFigures(body.points, body.nominal ?? null)),
  )
}
