import { OutOfRange, requirePositive } from '../errors'
import { boreArea, STANDARD_GRAVITY } from './segments'

/** An air pump: pressure with nothing open p0 (Pa), flow against none q0 (m³/s), exponent of its curve. */
export interface AirPump {
  readonly shutOffPressure: number
  readonly maxFlow: number
  readonly exponent?: number
}

/** An outlet of the air line: depth (m) of its release, resistance of its stone as p = a q + b q² (Pa, m³/s). */
export interface AirOutlet {
  readonly id: string
  readonly label: string
  readonly depth: number
  readonly linear: number
  readonly quadratic: number
  /** Share of its bore the valve before it leaves open; absent for no valve. A closed one passes nothing. */
  readonly open?: number
}

/** Air through one outlet (m³/s) and its share of the whole. */
export interface AirShare {
  readonly id: string
  readonly label: string
  readonly flow: number
  readonly share: number
}

/** Pressure of the line (Pa), the pump's flow, and where it goes. */
export interface AirNetworkResult {
  readonly pressure: number
  readonly flow: number
  readonly outlets: readonly AirShare[]
}

const WATER = 997
/** Density of indoor air, kg/m³ (OIML D 28, as elsewhere on the bench). */
const AIR = 1.2

/** A needle valve of 4 mm air line, fully open: bore (m) and velocity heads it costs (common practice, no source). */
const VALVE = { bore: 0.004, lossCoefficient: 10 } as const

/**
 * Resistance b of a valve, p = b q² (Pa, m³/s), of a bore left open by a share: K ρ/(2 A²) ÷ share². It stands in
 * the line whatever the stone behind it is like. Source: minor loss K ρ v²/2 on the open area.
 */
const valveResistance = (open: number): number =>
  (VALVE.lossCoefficient * AIR) / (2 * (boreArea(VALVE.bore) * open) ** 2)

/**
 * Air an outlet passes at line pressure p (Pa): nothing until p passes the water above it, then stone and valve in a
 * row take the rest, a q + (b + b_valve) q².
 */
export function outletFlow(pressure: number, o: AirOutlet): number {
  const drive = pressure - WATER * STANDARD_GRAVITY * o.depth
  if (drive <= 0 || (o.open ?? 1) <= 0) return 0
  const b = o.quadratic + (o.open === undefined ? 0 : valveResistance(o.open))
  const a = o.linear
  if (b === 0) return drive / a
  return (2 * drive) / (a + Math.sqrt(a * a + 4 * b * drive))
}

/**
 * One air pump over many outlets: the line pressure at which the outlets together take what the pump gives.
 * p = p0 (1 − (q/q0)^n) falls with flow and what the outlets take rises with pressure, so the root is unique.
 * A leak is one more outlet at depth 0. Source: steady network of resistances (Kirchhoff).
 * @throws OutOfRange naming the pump's field or `outlets[i].field`.
 */
export function airNetwork(pump: AirPump, outlets: readonly AirOutlet[]): AirNetworkResult {
  requirePositive('pump.shutOffPressure', pump.shutOffPressure, 'Pa')
  requirePositive('pump.maxFlow', pump.maxFlow, 'm³/s')
  outlets.forEach((o, i) => {
    if (!(o.depth >= 0)) throw new OutOfRange(`outlets[${i}].depth`, o.depth, { min: 0, unit: 'm' })
    if (!(o.linear >= 0 && o.quadratic >= 0 && o.linear + o.quadratic > 0))
      throw new OutOfRange(`outlets[${i}].resistance`, o.linear, { words: 'some resistance, not below zero' })
  })
  const n = pump.exponent ?? 1
  const given = (p: number): number => pump.maxFlow * Math.max(0, 1 - p / pump.shutOffPressure) ** (1 / n)
  const taken = (p: number): number => outlets.reduce((s, o) => s + outletFlow(p, o), 0)
  let [low, high] = [0, pump.shutOffPressure]
  for (let i = 0; i < 100; i++) {
    const mid = (low + high) / 2
    if (taken(mid) < given(mid)) low = mid
    else high = mid
  }
  const pressure = (low + high) / 2
  const flows = outlets.map((o) => outletFlow(pressure, o))
  const flow = flows.reduce((a, b) => a + b, 0)
  return {
    pressure,
    flow,
    outlets: outlets.map((o, i) => ({
      id: o.id,
      label: o.label,
      flow: flows[i] ?? 0,
      share: flow > 0 ? (flows[i] ?? 0) / flow : 0,
    })),
  }
}
