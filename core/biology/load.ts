import { requireRange } from '../errors'

/** Seconds in a day. */
export const DAY = 86400

/** Ammonia nitrogen made of a kilogram of protein eaten (kg/kg). Source: Timmons and Ebeling (from memory). */
export const NITROGEN_OF_PROTEIN = 0.092
/** Share of the feed that becomes solids. Source: Timmons and Ebeling (from memory), about a quarter. */
const SOLIDS_OF_FEED = 0.25
/**
 * Oxygen that bacteria use on a kilogram of rotting solids (kg/kg): 0.6 to 1. Source: Timmons and Ebeling (from
 * memory).
 * All of them rot in the water: what is rinsed out before it does is not taken off.
 */
export const OXYGEN_OF_SOLIDS = 0.8
/** Carbon dioxide breathed out for oxygen breathed in (kg/kg) at a respiratory quotient of 1: 44.01/32.00. */
export const CARBON_DIOXIDE_OF_OXYGEN = 44.01 / 31.998

/** Feeding: feed (kg/s), its share of protein, oxygen the animals take for it from the water (kg/kg). */
export interface Feeding {
  readonly feed: number
  readonly protein: number
  /** 0.3 to 0.5 for fish (Timmons and Ebeling, from memory); 0 for what breathes air. */
  readonly oxygenOfFeed: number
}

/** Load of the animals on the water (kg/s): ammonia as N, oxygen, carbon dioxide, solids. */
export interface Load {
  readonly ammonia: number
  readonly oxygen: number
  readonly carbonDioxide: number
  readonly solids: number
  /** Oxygen that bacteria use on the solids. */
  readonly rotting: number
}

/**
 * Load of a feeding: P_N = feed · protein · 0.092. Source: Timmons and Ebeling, Recirculating Aquaculture (from
 * memory).
 * @throws OutOfRange for `feed`, `protein` or `oxygenOfFeed`.
 */
export function loadOf({ feed, protein, oxygenOfFeed }: Feeding): Load {
  requireRange('feed', feed, { min: 0, unit: 'kg/s' })
  requireRange('protein', protein, { min: 0, max: 1, unit: '(share)' })
  const oxygen = feed * requireRange('oxygenOfFeed', oxygenOfFeed, { min: 0, max: 5, unit: 'kg per kg' })
  return {
    ammonia: feed * protein * NITROGEN_OF_PROTEIN,
    oxygen,
    carbonDioxide: oxygen * CARBON_DIOXIDE_OF_OXYGEN,
    solids: feed * SOLIDS_OF_FEED,
    rotting: feed * SOLIDS_OF_FEED * OXYGEN_OF_SOLIDS,
  }
}
