import { LOSS_UNCERTAINTY, pumpVariance } from '../duty'
import type { Pump } from '../hydraulics'
import { resistanceOf } from '../media'
import { expanded, type VariancePart } from '../statistics'
import type { PathCase, CalibrationTrial } from './case'
import { flowsOf, type Turn } from './flow'

/** The calibrated quantity, turned by a share: what the body takes, else how far the pump's curve reaches. */
const KNOB = 1e-3
const knobTurned = ({ rest, drive: { pump } }: PathCase, knob: CalibrationTrial['knob']): Turn =>
  knob === 'rest' ? { rest: rest * (1 + KNOB) } : { pump: { ...pump, maxFlow: pump.maxFlow * (1 + KNOB) } }

/** The pump of a case with its curve turned as another’s is: H0 and Q0 by factors, n outright. */
const pumpTurned = ({ drive: { pump } }: PathCase, from: Pump, to: Pump): Pump => ({
  shutOffHead: pump.shutOffHead * (to.shutOffHead / from.shutOffHead),
  maxFlow: pump.maxFlow * (to.maxFlow / from.maxFlow),
  exponent: to.exponent,
})

/** Effect of turned inputs on the flow of the calibration trial; worked out once for each trial. */
interface ToldShifts {
  readonly flow: number
  readonly flowWith: (t: Turn) => number
  readonly knob: number
  readonly turns: Map<string, number>
}
const KEPT = new WeakMap<CalibrationTrial, ToldShifts>()
function toldShifts(told: CalibrationTrial): ToldShifts {
  const kept = KEPT.get(told)
  if (kept) return kept
  const flowWith = flowsOf(told.case)
  const flow = flowWith()
  const made = {
    flow,
    flowWith,
    knob: flowWith(knobTurned(told.case, told.knob)) - flow,
    turns: new Map<string, number>(),
  }
  KEPT.set(told, made)
  return made
}
function toldShift(told: CalibrationTrial, key: string, t: Turn): number {
  const { flow, flowWith, turns } = toldShifts(told)
  const kept = turns.get(key)
  if (kept !== undefined) return kept
  const shift = flowWith(t) - flow
  turns.set(key, shift)
  return shift
}

/**
 * Share of a flow’s distance from the one that was measured, taken as the standard uncertainty of the form of the
 * losses (common practice, no source).
 */
const DISTANCE = 0.3

/** Relative half-width by which a body nobody timed loaded takes more or less than its media (common practice). */
const UNTOLD = 0.12

/**
 * Expanded uncertainty (95 %, m³/s) of a case's flow: pump, tabulated losses and permeabilities, each turned by its
 * standard uncertainty and solved again. Where a loaded trial told what the body takes, that is told anew for each
 * turn, so that at the trial itself only the trial's own uncertainty is left; away from it a share of the distance is
 * added.
 *
 * Source: law of propagation of uncertainty, GUM (JCGM 100) 5.1.3 by numerical sensitivities; k by G.4.
 */
export function expandedUncertainty(c: PathCase, flow: number): number {
  const { told } = c
  const flowWith = flowsOf(c)
  // How much of a shift at the trial comes over here once the trial's flow is kept.
  const carried = told ? (flowWith(knobTurned(c, told.knob)) - flow) / toldShifts(told).knob : 0
  const share = Number.isFinite(carried) ? carried : 0
  const shift = (key: string, turn: (of: PathCase) => Turn): number =>
    flowWith(turn(c)) - flow - (told ? share * toldShift(told, key, turn(told.case)) : 0)
  const { pump, knowledge } = c.drive
  const byPump = pumpVariance(pump, knowledge, (changed) =>
    shift(`pump ${changed.shutOffHead} ${changed.maxFlow} ${changed.exponent}`, (of) => ({
      pump: pumpTurned(of, pump, changed),
    })),
  )
  const byLosses =
    (shift('losses+', () => ({ losses: 1 + LOSS_UNCERTAINTY })) -
      shift('losses-', () => ({ losses: 1 - LOSS_UNCERTAINTY }))) /
    2
  let variance = byPump.variance + byLosses ** 2
  const parts: VariancePart[] = [...byPump.parts]
  for (const m of c.media) {
    const here = c.fill.layers.some((l) => l.mediumId === m.id)
    if (!here && !told?.case.fill.layers.some((l) => l.mediumId === m.id)) continue
    const { relative } = resistanceOf(m)
    if (!relative) continue
    const denser = { mediumId: m.id, by: 1 + relative }
    variance += shift(`medium ${m.id}`, () => ({ denser })) ** 2
  }
  // How media lie in their trays and grids is not known before a loaded trial tells it.
  if (!told && c.fill.layers.length) variance += ((UNTOLD / 2) * flow) ** 2
  if (told) {
    const own = (told.uncertainty * share * toldShare(told)) ** 2
    variance += own + (DISTANCE * (flow - told.flow)) ** 2
    parts.push({ variance: own, degreesOfFreedom: told.degreesOfFreedom })
  }
  return expanded(variance, parts)
}

/** A trial whose computed flow is not its own, because nothing could be told from it, still says how sure it is. */
const toldShare = (told: CalibrationTrial): number => told.flow / toldShifts(told).flow
