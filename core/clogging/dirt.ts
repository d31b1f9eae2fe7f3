import type { LayerElement } from '../network'
import { fouledShare } from '../path'
import { cakePermeability, filterCoefficient, type Suspension } from './capture'
import type { Values } from './constants'
import { CLASSES as CLASS_COUNT, classSize, PARTICLE_CLASSES, shareAbove } from './particles'
import type { DirtyLayer, Waterways } from './waterways'

/** Slices a layer is cut into along the water: dirt sits in front of it first. */
export const SLICES = 6
const CLASSES = CLASS_COUNT
const SLICE_COUNT = SLICES
const EACH = SLICE_COUNT * CLASSES
/** No layer is ever quite shut: it keeps so much of its permeability. */
const LEAST_KEPT = 1e-7
const SIZES = PARTICLE_CLASSES.map(classSize)

/** Dirt in the layers (kg dry): layer by layer, slice by slice, class by class; and in a cake before each layer. */
export interface Held {
  readonly inside: Float64Array
  readonly cake: Float64Array
}
export const copyHeld = (h: Held): Held => ({ inside: h.inside.slice(), cake: h.cake.slice() })

/** What does not change of a layer while dirt gathers in it. */
interface Bed {
  readonly layer: DirtyLayer
  /** Dry mass that fills a slice (kg). */
  readonly room: number
  readonly clean: number
  readonly strained: readonly number[]
}

/** Layers as beds: how full they are, how open, and what they catch. */
export interface Beds {
  readonly beds: readonly Bed[]
  readonly fouled: (h: Held, layer: number, slice: number) => number
  /** Mean share of its room that is full, and the share of its permeability it keeps. */
  readonly full: (h: Held, layer: number) => number
  readonly keeps: (h: Held) => number[]
  readonly coefficients: (layer: number, velocity: number, into: Float64Array) => void
}

/** Layers as beds that fill: rooms, openings and clean permeabilities worked out once. */
export function bedsOf(w: Waterways, v: Values, s: Suspension): Beds {
  const beds = w.layers.map((layer, i): Bed => {
    const element = w.elements[w.at[i] as number] as LayerElement
    return {
      layer,
      room: (layer.area * layer.thickness * layer.voids * v.floc) / SLICE_COUNT,
      clean: element.permeability,
      strained: PARTICLE_CLASSES.map((c) => (layer.collector ? shareAbove(c, layer.collector.opening) : 0)),
    }
  })
  const fouled = (h: Held, layer: number, slice: number): number => {
    let sum = 0
    const from = layer * EACH + slice * CLASSES
    for (let c = 0; c < CLASSES; c++) sum += h.inside[from + c] as number
    return Math.min(1, sum / (beds[layer] as Bed).room)
  }
  const full = (h: Held, layer: number): number => {
    let sum = 0
    for (let x = 0; x < SLICE_COUNT; x++) sum += fouled(h, layer, x)
    return sum / SLICE_COUNT
  }
  const keeps = (h: Held): number[] =>
    beds.map(({ layer, clean }, i) => {
      let resists = 0
      for (let x = 0; x < SLICE_COUNT; x++) resists += 1 / Math.max(LEAST_KEPT, fouledShare(fouled(h, i, x)))
      return Math.max(
        LEAST_KEPT,
        1 / (resists / SLICE_COUNT + (cakeOver(h, i, layer, v) * clean) / layer.thickness),
      )
    })
  const coefficients = (layer: number, velocity: number, into: Float64Array): void => {
    const { collector } = (beds[layer] as Bed).layer
    for (let c = 0; c < CLASSES; c++)
      into[layer * CLASSES + c] =
        collector && velocity > 0 ? filterCoefficient(collector, SIZES[c] as number, velocity, s) : 0
  }
  return { beds, fouled, full, keeps, coefficients }
}

/** Thickness over permeability (1/m) of the cake before a layer: Sauter’s mean size of what was strained. */
function cakeOver(h: Held, i: number, layer: DirtyLayer, v: Values): number {
  let mass = 0
  let perSize = 0
  for (let c = 0; c < CLASSES; c++) {
    const m = h.cake[i * CLASSES + c] as number
    mass += m
    perSize += m / (SIZES[c] as number)
  }
  if (!(mass > 0)) return 0
  const thickness = mass / (layer.area * v.floc * (1 - v.cakeVoids))
  return thickness / cakePermeability(mass / perSize, v.cakeVoids)
}

export { EACH as PER_LAYER }
