import type { LayerElement } from '../network'
import { fouledShare } from '../path'
import { cakePermeability, filterCoefficient, THROAT, type Suspension } from './capture'
import type { Values } from './constants'
import { CLASSES as CLASS_COUNT, classSize, PARTICLE_CLASSES, classShareAbove } from './particles'
import type { DirtyLayer, Waterways } from './waterways'

/**
 * Slices a layer is cut into along the water, each thicker than the one before: dirt sits in front of it first. So many
 * that a pad’s day moves by less than 1 % with twice as many (measured: 0.02 %).
 */
export const SLICES = 10
const GROWS = 1.4
/** Share of a layer’s depth that each slice takes; they add up to 1. */
export const DEPTHS: readonly number[] = Array.from(
  { length: SLICES },
  (_, s) => (GROWS ** s * (GROWS - 1)) / (GROWS ** SLICES - 1),
)
const CLASSES = CLASS_COUNT
const SLICE_COUNT = SLICES
const EACH = SLICE_COUNT * CLASSES
/** No layer is ever quite shut: it keeps so much of its permeability. */
const LEAST_KEPT = 1e-7
const SIZES = PARTICLE_CLASSES.map(classSize)
/**
 * A cake is pressed by the head it takes: α = α₀ (1 + h/h₀)^s, h₀ = 1 cm. Source: Tiller, Chem. Eng. Prog. 49 (1953)
 * 467 (from memory): α = α₀ Δp^s, s 0.4 to 0.9 for flocs and sludges.
 */
const PRESSED_FROM = 0.01
const MICROMETRE = 1e-6

/** Dirt in the layers (kg dry): layer by layer, slice by slice, class by class; and in a cake before each layer. */
export interface Held {
  readonly inside: Float64Array
  readonly cake: Float64Array
}
export const copyHeld = (h: Held): Held => ({ inside: h.inside.slice(), cake: h.cake.slice() })

/** Constants of a layer while dirt gathers in it. */
interface Bed {
  readonly layer: DirtyLayer
  /** Dry mass that fills each slice (kg). */
  readonly rooms: readonly number[]
  readonly clean: number
  readonly strained: readonly number[]
}

/** Resistance of each layer, and of the cake before it unpressed, as multiples of the clean layer’s. */
interface Loads {
  readonly inside: Float64Array
  readonly cake: Float64Array
}

/** Layers as beds: how full they are, how open, and what they catch. */
export interface Beds {
  readonly beds: readonly Bed[]
  readonly fouled: (h: Held, layer: number, slice: number) => number
  /** Mean share of its room that is full. */
  readonly full: (h: Held, layer: number) => number
  readonly loads: (h: Held) => Loads
  /** Share of its permeability each layer keeps; `heads` presses the cakes (m). */
  readonly keeps: (l: Loads, heads: Float64Array) => number[]
  /** Share of each class that is held before a layer: by its openings, and by the cake that lies there. */
  readonly strained: (h: Held, layer: number, into: Float64Array) => void
  readonly coefficients: (layer: number, velocity: number, into: Float64Array) => void
}

/** Layers as beds that fill: rooms, openings and clean permeabilities worked out once. */
export function bedsOf(w: Waterways, v: Values, s: Suspension): Beds {
  const beds = w.layers.map((layer, i): Bed => {
    const element = w.elements[w.at[i] as number] as LayerElement
    return {
      layer,
      rooms: DEPTHS.map((d) => layer.area * layer.thickness * layer.voids * v.floc * d),
      clean: element.permeability,
      strained: PARTICLE_CLASSES.map((c) =>
        layer.collector ? classShareAbove(c, layer.collector.opening * v.heldFrom) : 0,
      ),
    }
  })
  const fouled = (h: Held, layer: number, slice: number): number => {
    let sum = 0
    const from = layer * EACH + slice * CLASSES
    for (let c = 0; c < CLASSES; c++) sum += h.inside[from + c] as number
    return Math.min(1, sum / ((beds[layer] as Bed).rooms[slice] as number))
  }
  const full = (h: Held, layer: number): number => {
    let sum = 0
    for (let x = 0; x < SLICE_COUNT; x++) sum += fouled(h, layer, x) * (DEPTHS[x] as number)
    return sum
  }
  const lies = cakesOf(v)
  const loads = (h: Held): Loads => {
    const inside = new Float64Array(beds.length)
    const cake = new Float64Array(beds.length)
    for (let i = 0; i < beds.length; i++) {
      let sum = 0
      for (let x = 0; x < SLICE_COUNT; x++)
        sum += (DEPTHS[x] as number) / Math.max(LEAST_KEPT, fouledShare(fouled(h, i, x)))
      inside[i] = sum
      const { clean, layer } = beds[i] as Bed
      let over = 0
      for (let c = 0; c < CLASSES; c++) over += (h.cake[i * CLASSES + c] as number) * (lies[c] as number)
      cake[i] = (over * clean) / (layer.area * layer.thickness)
    }
    return { inside, cake }
  }
  const keeps = ({ inside, cake }: Loads, heads: Float64Array): number[] =>
    beds.map((_, i) => {
      const body = inside[i] as number
      const over = cake[i] as number
      if (!(over > 0)) return Math.max(LEAST_KEPT, 1 / body)
      // A cake is pressed by its own share of the loss.
      const own = (Math.max(0, heads[i] as number) * over) / (body + over)
      return Math.max(LEAST_KEPT, 1 / (body + over * (1 + own / PRESSED_FROM) ** v.compresses))
    })
  // What lies there has flocced: none of it is finer than a floc, for water to go round or dirt to come through.
  const lying = SIZES.map((size) => Math.max(size, v.flocSize * MICROMETRE))
  /** Share of each class that is larger than the throats between flocs of another: what a cake of those holds back. */
  const holds = lying.map((size) => PARTICLE_CLASSES.map((c) => classShareAbove(c, THROAT * size)))
  const strained = (h: Held, i: number, into: Float64Array): void => {
    const { layer, strained: open } = beds[i] as Bed
    const per = layer.area * v.floc * (1 - v.cakeVoids)
    // A cake has to bridge what is open beneath it.
    const opening = layer.collector?.opening ?? 0
    for (let k = 0; k < CLASSES; k++) {
      let passes = 1 - (open[k] as number)
      // Each class that lies there holds back what is finer than the throats between its flocs, as far as it covers.
      for (let j = 0; j < k && passes > 0; j++) {
        const held = h.cake[i * CLASSES + j] as number
        if (!(held > 0)) continue
        const covers = -Math.expm1(-held / (per * v.bridges * ((lying[j] as number) + opening)))
        passes *= 1 - covers * ((holds[j] as readonly number[])[k] as number)
      }
      into[i * CLASSES + k] = 1 - passes
    }
  }
  const coefficients = (layer: number, velocity: number, into: Float64Array): void => {
    const { collector } = (beds[layer] as Bed).layer
    for (let c = 0; c < CLASSES; c++)
      into[layer * CLASSES + c] =
        collector && velocity > 0 ? filterCoefficient(collector, SIZES[c] as number, velocity, s) : 0
  }
  return { beds, fouled, full, loads, keeps, strained, coefficients }
}

/**
 * Thickness over permeability (1/m) of a kilogram of each class as a cake on a square metre, unpressed: they add, so
 * that more of any never lessens it. Source: Ruth, Ind. Eng. Chem. 27 (1935) 708; Carman for each class.
 */
const cakesOf = (v: Values): readonly number[] =>
  SIZES.map((size) => {
    const permeability = cakePermeability(Math.max(size, v.flocSize * MICROMETRE), v.cakeVoids)
    return 1 / (permeability * v.floc * (1 - v.cakeVoids))
  })

export { EACH as PER_LAYER }
