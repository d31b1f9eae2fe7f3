import {
  CalcAnswer,
  DutyPointRequest,
  FlowRunsRequest,
  NetworkRequest,
  PathRequest,
  PumpFitRequest,
  TracerRequest,
} from '@ypsometer/contract'
import type { FastifyInstance } from 'fastify'
import type { z } from 'zod'
import { answerOf, CalcPool } from './pool'
import { carryOut, type Calculation, type RequestOf } from './work'

/** Largest request (bytes): a file of a network of every element there may be. */
const LARGEST = 12 * 1024 * 1024

/** Stateless arithmetic: the same functions the screens use, for other programs, in threads of their own. */
export function registerCalc(app: FastifyInstance, inThread: boolean): void {
  const pool = inThread ? null : new CalcPool()
  app.addHook('onClose', () => pool?.close())
  const offer = <C extends Calculation>(name: C, body: z.ZodType<RequestOf<C>>): void =>
    void app.post(
      `/calc/${name}`,
      {
        config: { access: 'reader', heavy: 'short' },
        bodyLimit: LARGEST,
        schema: { tags: ['calc'], body, response: { 200: CalcAnswer } },
      },
      async (request) => {
        const body = request.body as RequestOf<C>
        return pool ? pool.run(name, body) : answerOf(carryOut({ name, body }))
      },
    )
  offer('flow-runs', FlowRunsRequest)
  offer('pump-fit', PumpFitRequest)
  offer('duty-point', DutyPointRequest)
  offer('network', NetworkRequest)
  offer('path-audit', PathRequest)
  offer('media-audit', PathRequest)
  offer('tracer', TracerRequest)
}
