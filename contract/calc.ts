import { z } from 'zod'
import { within } from './common'
import { Segments } from './models'

const Flow = within(0, 1, 'm³/s')

/** `POST /calc/flow-runs`: timed vessel runs to a flow with its uncertainty. */
export const FlowRunsRequest = z.object({
  runs: z
    .array(z.object({ volume: within(1e-5, 10, 'm³'), seconds: within(0.5, 86400, 's') }))
    .min(1, 'at least one run')
    .max(1000, 'at most 1000 runs'),
  method: z
    .object({
      vessel: within(0, 0.5, '(share of the volume)'),
      resolution: within(0, 10, 's'),
      reaction: within(0, 10, 's'),
    })
    .optional(),
  target: within(0.001, 1, '(share of the flow)').optional(),
})

/** `POST /calc/pump-fit`: measured head–flow points to a curve with its covariance. */
export const PumpFitRequest = z.object({
  points: z
    .array(
      z.object({
        flow: Flow,
        head: within(0, 100, 'm'),
        flowUncertainty: within(1e-9, 1, 'm³/s').optional(),
        headUncertainty: within(1e-5, 10, 'm').optional(),
      }),
    )
    .max(500, 'at most 500 points'),
})

/** `POST /calc/duty-point`: a pump on a circuit to flow, budget and sensitivity. */
export const DutyPointRequest = z.object({
  pump: z.object({
    shutOffHead: within(0.001, 1000, 'm'),
    maxFlow: within(1e-8, 10, 'm³/s'),
    exponent: within(0.5, 10, '(no unit)'),
  }),
  segments: Segments,
  staticHead: within(-100, 1000, 'm').default(0),
  water: z
    .object({ temperature: within(0, 40, '°C'), salinity: within(0, 42, 'g/kg').default(0) })
    .default({ temperature: 25, salinity: 0 }),
})

/** `POST /calc/tracer`: a pulse of dye at one point to its residence-time figures. Times in s. */
export const TracerRequest = z.object({
  points: z
    .array(z.object({ time: within(0, 1e7, 's'), concentration: within(0, 1e9, '(any unit)') }))
    .max(20000, 'at most 20 000 points'),
  /** Volume over flow, where both are known. */
  nominal: within(0.001, 1e7, 's').optional(),
})

/** Answers carry the core's own result, documented there. */
export const CalcAnswer = z.record(z.string(), z.unknown())
