import { put, type Figure } from '../figures'
import type { HookupRecord } from '../trials/records'

interface Levels {
  readonly head: number
  readonly fromOutlet: number
  readonly fromSource: number
}

/** The net static head (m) of a hookup with the two levels it is the difference of. */
export const staticHeadFigure = (s: Levels): Figure => ({
  id: 'static-head',
  label: 'Net static head',
  value: s.head,
  dimension: 'head',
  provenance: 'computed',
  formula: 'H_static = level of the return − level of the intake',
  working: [
    put('outlet', 'return ends above the water', s.fromOutlet, 'head', 'measured'),
    put('source', 'intake below the tank’s surface', s.fromSource, 'head', 'measured'),
  ],
  source: 'energy equation between the two free surfaces (Bernoulli)',
})

const level = (id: string, label: string, value: number): Figure => ({
  id,
  label,
  value,
  dimension: 'head',
  provenance: 'measured',
  conditions: ['by tape, from the tank’s water surface'],
})

/** How high the outlet was held above the water in a trial. */
export const liftFigure = (lift: number): Figure => level('lift', 'Lift', lift)

/** The two levels as numbers of their own. */
export const staticPartFigures = (s: Levels): { readonly outlet: Figure; readonly source: Figure } => ({
  outlet: level('outlet-level', 'Return above the water', s.fromOutlet),
  source: level('source-level', 'Intake below the water', s.fromSource),
})

/** How far the body stands below the water: it costs nothing in a closed loop. */
export const bodyDepthFigure = (h: Pick<HookupRecord, 'bodyBelowWater'>): Figure =>
  level('body-depth', 'Filter below the water', h.bodyBelowWater)
