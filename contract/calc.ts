import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { SHORTEST_RUN } from '@ypsometer/core/bench/shape'
import { z } from 'zod'
import { name, within } from './common'
import { houseRules, Layers, media } from './fills'
import { FilterKind, hookups, Segments } from './models'
import { bodies, chambers } from './teardown'

const STOCK_CODES = STOCK_CLASSES.flatMap((c) => c.code ?? []) as [string, ...string[]]
const Flow = within(0, 1, 'm³/s')
const Pump = z.object({
  shutOffHead: within(0.001, 1000, 'm'),
  maxFlow: within(1e-8, 10, 'm³/s'),
  exponent: within(0.5, 10, '(no unit)'),
})
const Water = z
  .object({ temperature: within(0, 40, '°C'), salinity: within(0, 42, 'g/kg').default(0) })
  .default({ temperature: 25, salinity: 0 })

/** `POST /calc/flow-runs`: timed vessel runs to a flow with its uncertainty. */
export const FlowRunsRequest = z.object({
  runs: z
    .array(z.object({ volume: within(1e-5, 10, 'm³'), seconds: within(SHORTEST_RUN, 86400, 's') }))
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
  pump: Pump,
  segments: Segments,
  staticHead: within(-100, 1000, 'm').default(0),
  /** How much of it is the return let go above the water: what letting it down would give back. */
  outletAboveWater: within(0, 100, 'm').default(0),
  water: Water,
})

/** `POST /calc/tracer`: a pulse of dye at one point to its residence-time figures. Times in s. */
export const TracerRequest = z.object({
  points: z
    .array(z.object({ time: within(0, 1e7, 's'), concentration: within(0, 1e9, '(any unit)') }))
    .max(20000, 'at most 20 000 points'),
  /** Volume over flow, where both are known. */
  nominal: within(0.001, 1e7, 's').optional(),
})

const between = {
  id: name('An id', 60),
  label: z.string().max(120).default(''),
  from: name('A node', 60),
  to: name('A node', 60),
}
const number = z.number({ error: 'a number in SI' })
/** An element of a network; see `core/network/elements.ts`. The core checks the ranges and names the element. */
export const NetworkElement = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('pump'), ...between, pump: Pump }),
  z.object({ kind: z.literal('hose'), ...between, length: number, diameter: number, roughness: number }),
  z.object({
    kind: z.literal('fitting'),
    ...between,
    lossCoefficient: number,
    diameter: number,
    count: number,
  }),
  z.object({
    kind: z.literal('orifices'),
    ...between,
    holes: number,
    holeDiameter: number,
    dischargeCoefficient: number,
  }),
  z.object({
    kind: z.literal('layer'),
    ...between,
    thickness: number,
    area: number,
    permeability: number,
    inertia: number,
  }),
  z.object({
    kind: z.literal('slot'),
    ...between,
    gap: number,
    perimeter: number,
    length: number,
    lossCoefficient: number,
  }),
  z.object({ kind: z.literal('weir'), ...between, sill: number, resistance: number }),
])

/** Most elements of a network, whichever way they come. */
export const MOST_ELEMENTS = 400

/** `POST /calc/network`: any circuit to heads and flows; or an EPANET file exported from here, in `inp`. */
export const NetworkRequest = z.object({
  elements: z.array(NetworkElement).max(MOST_ELEMENTS, `at most ${MOST_ELEMENTS} elements`).default([]),
  heads: z.record(z.string().max(60), number).default({}),
  inflows: z.record(z.string().max(60), number).optional(),
  water: Water,
  inp: z.string().max(8_000_000, 'at most 8 MB').optional(),
})

/** A network as a file of ours carries it. */
export const NetworkFile = z.object({
  elements: z.array(NetworkElement),
  heads: z.record(z.string().max(60), number),
  inflows: z.record(z.string().max(60), number).optional(),
  fluid: z.object({
    kinematicViscosity: within(1e-8, 1e-3, 'm²/s'),
    gravity: within(0.1, 100, 'm/s²').optional(),
    correlation: z.enum(['colebrook', 'swamee-jain']).optional(),
  }),
})

/** `POST /calc/path-audit` and `/calc/media-audit`: a body, its fill and its hookup, as the dossier has them. */
export const PathRequest = z.object({
  kind: FilterKind,
  body: bodies.Create.omit({ modelId: true, id: true }),
  chambers: z.array(chambers.Create.omit({ modelId: true })).max(60, 'at most 60 chambers'),
  /** Media beside the generic ones. */
  media: z.array(media.Create).max(200, 'at most 200 media').default([]),
  layers: Layers,
  hookup: hookups.Create.omit({ modelId: true, id: true }).nullable().default(null),
  pump: Pump,
  /** Loss of trays and grids, m per (m³/s)². */
  rest: within(0, 1e12, 'm per (m³/s)²').default(0),
  temperature: within(0, 40, '°C').default(25),
  houseRule: houseRules.Create.omit({ id: true }).optional(),
  stockClass: z.enum(STOCK_CODES).default('normal'),
})
export type PathRequest = z.infer<typeof PathRequest>

/** Answers carry the core's own result, documented there. */
export const CalcAnswer = z.record(z.string(), z.unknown())
