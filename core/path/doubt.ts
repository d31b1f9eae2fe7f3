import { LOSS_UNCERTAINTY, pumpVariance, type Pump } from '../hydraulics'
import { resistanceOf, type Medium } from '../media'
import { expanded, type VariancePart } from '../statistics'
import type { PathCase, Telling } from './case'
import { flowOfCase } from './flow'

/** One thing of a case turned a little: its pump (as factors of H0 and Q0, and n), its losses, a medium. */
interface Turn {
  readonly key: string
  readonly pump?: { readonly head: number; readonly flow: number; readonly exponent: number }
  readonly losses?: number
  readonly medium?: Medium
}

const turned = (c: PathCase, { pump, medium }: Turn): PathCase => ({
  ...c,
  ...(pump && { drive: { ...c.drive, pump: turnedPump(c.drive.pump, pump) } }),
  ...(medium && { media: c.media.map((m) => (m.id === medium.id ? medium : m)) }),
})
const turnedPump = (p: Pump, by: NonNullable<Turn['pump']>): Pump => ({
  shutOffHead: p.shutOffHead * by.head,
  maxFlow: p.maxFlow * by.flow,
  exponent: by.exponent,
})
const flowWith = (c: PathCase, t: Turn): number => flowOfCase(turned(c, t), t.losses ?? 1)

/** What was set by the telling trial, turned by a share: what the body takes, else how far the pump's curve reaches. */
const KNOB = 1e-3
const knobTurned = (c: PathCase, knob: Telling['knob']): PathCase =>
  knob === 'rest'
    ? { ...c, rest: c.rest * (1 + KNOB) }
    : { ...c, drive: { ...c.drive, pump: { ...c.drive.pump, maxFlow: c.drive.pump.maxFlow * (1 + KNOB) } } }

/** What turning things does to the flow of the telling trial; worked out once for each trial. */
interface ToldShifts {
  readonly flow: number
  readonly knob: number
  readonly turns: Map<string, number>
}
const KEPT = new WeakMap<Telling, ToldShifts>()
function toldShifts(told: Telling): ToldShifts {
  const kept = KEPT.get(told)
  if (kept) return kept
  const flow = flowOfCase(told.case)
  const made = {
    flow,
    knob: flowOfCase(knobTurned(told.case, told.knob)) - flow,
    turns: new Map<string, number>(),
  }
  KEPT.set(told, made)
  return made
}
function toldShift(told: Telling, t: Turn): number {
  const { flow, turns } = toldShifts(told)
  const kept = turns.get(t.key)
  if (kept !== undefined) return kept
  const shift = flowWith(told.case, t) - flow
  turns.set(t.key, shift)
  return shift
}

/**
 * Share of a flow’s distance from the one that was measured, taken as the standard uncertainty of the form of the
 * losses (common practice, no source).
 */
const DISTANCE = 0.3

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
  // How much of a shift at the trial comes over here once the trial's flow is kept.
  const carried = told ? (flowOfCase(knobTurned(c, told.knob)) - flow) / toldShifts(told).knob : 0
  const share = Number.isFinite(carried) ? carried : 0
  const shift = (t: Turn): number => flowWith(c, t) - flow - (told ? share * toldShift(told, t) : 0)
  const { pump, knowledge } = c.drive
  const byPump = pumpVariance(pump, knowledge, (changed) => {
    const [head, reach] = [changed.shutOffHead / pump.shutOffHead, changed.maxFlow / pump.maxFlow]
    return shift({
      key: `pump ${head} ${reach} ${changed.exponent}`,
      pump: { head, flow: reach, exponent: changed.exponent },
    })
  })
  const byLosses =
    (shift({ key: 'losses+', losses: 1 + LOSS_UNCERTAINTY }) -
      shift({ key: 'losses-', losses: 1 - LOSS_UNCERTAINTY })) /
    2
  let variance = byPump.variance + byLosses ** 2
  const parts: VariancePart[] = [...byPump.parts]
  for (const m of c.media) {
    const here = c.fill.layers.some((l) => l.mediumId === m.id)
    if (!here && !told?.case.fill.layers.some((l) => l.mediumId === m.id)) continue
    const { permeability, inertia, relative } = resistanceOf(m)
    if (!relative) continue
    const denser = { ...m, permeability: permeability / (1 + relative), inertia, permeabilityLow: null }
    variance += shift({ key: `medium ${m.id}`, medium: denser }) ** 2
  }
  if (told) {
    const own = (told.uncertainty * share * toldShare(told)) ** 2
    variance += own + (DISTANCE * (flow - told.flow)) ** 2
    parts.push({ variance: own, degreesOfFreedom: told.degreesOfFreedom })
  }
  return expanded(variance, parts)
}

/** A trial whose computed flow is not its own, because nothing could be told from it, still says how sure it is. */
const toldShare = (told: Telling): number => told.flow / toldShifts(told).flow
