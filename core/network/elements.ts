import { OutOfRange, type Allowed } from '../errors'
import type { Pump } from '../hydraulics/pump'
import { boreArea, STANDARD_GRAVITY, type Fluid, type Segment } from '../hydraulics/segments'

/** Elements between two nodes. Heads in m, flows in m³/s, lengths in m; positive flow runs from `from` to `to`. */
interface Between {
  readonly id: string
  readonly label: string
  readonly from: string
  readonly to: string
}

/** A pump: lifts the head by H0 (1 − (Q/Q0)^n) and lets nothing back. */
export interface PumpElement extends Between {
  readonly kind: 'pump'
  readonly pump: Pump
}
/** Hose or tube: Darcy–Weisbach. */
export interface HoseElement extends Between {
  readonly kind: 'hose'
  readonly length: number
  readonly diameter: number
  readonly roughness: number
}
/** Anything that costs `count` times K velocity heads in a bore: strainer, tap, bend, exit. */
export interface FittingElement extends Between {
  readonly kind: 'fitting'
  readonly lossCoefficient: number
  readonly diameter: number
  readonly count: number
}
/** N equal orifices that let out together: spray bar, perforated plate. */
export interface OrificesElement extends Between {
  readonly kind: 'orifices'
  readonly holes: number
  readonly holeDiameter: number
  readonly dischargeCoefficient: number
}
/** A layer of media: thickness L, area A, permeability k (m²), inertial coefficient C (1/m). */
export interface LayerElement extends Between {
  readonly kind: 'layer'
  readonly thickness: number
  readonly area: number
  readonly permeability: number
  readonly inertia: number
}
/** A gap beside a layer: width g, length along the wall (its perimeter) W, way through it L, entry and exit ΣK. */
export interface SlotElement extends Between {
  readonly kind: 'slot'
  readonly gap: number
  readonly perimeter: number
  readonly length: number
  readonly lossCoefficient: number
}
/**
 * A way that opens only above a head difference, its sill: overflow weir, relief flap. Nothing comes back through it.
 */
export interface WeirElement extends Between {
  readonly kind: 'weir'
  readonly sill: number
  /** Loss once open, m per (m³/s)². */
  readonly resistance: number
}

export type Element =
  | PumpElement
  | HoseElement
  | FittingElement
  | OrificesElement
  | LayerElement
  | SlotElement
  | WeirElement

/**
 * Coefficients of a layer's loss h = a q + b q|q|, from Darcy–Forchheimer Δp/L = (μ/k) v + ρ C v², v = q/A.
 * Source: e.g. Bear, Dynamics of Fluids in Porous Media, ch. 5.
 */
export function layerCoefficients(
  e: Pick<LayerElement, 'thickness' | 'area' | 'permeability' | 'inertia'>,
  fluid: Fluid,
): { readonly linear: number; readonly quadratic: number } {
  const g = fluid.gravity ?? STANDARD_GRAVITY
  return {
    linear: (fluid.kinematicViscosity * e.thickness) / (g * e.permeability * e.area),
    quadratic: (e.inertia * e.thickness) / (g * e.area * e.area),
  }
}

/**
 * Coefficients of a slot's loss: plane Poiseuille Δp = 12 μ L v/g² and entry and exit ΣK ρ v²/2, v = q/(g W).
 * Source: plane Poiseuille flow, any handbook.
 */
export function slotCoefficients(
  e: Pick<SlotElement, 'gap' | 'perimeter' | 'length' | 'lossCoefficient'>,
  fluid: Fluid,
): { readonly linear: number; readonly quadratic: number } {
  const g = fluid.gravity ?? STANDARD_GRAVITY
  const a = e.gap * e.perimeter
  return {
    linear: (12 * fluid.kinematicViscosity * e.length) / (g * e.gap * e.gap * a),
    quadratic: e.lossCoefficient / (2 * g * a * a),
  }
}

/** Quadratic coefficient of fittings and holes (m per (m³/s)²); null for elements of another form. */
export function quadraticCoefficient(e: Element, gravity: number): number | null {
  if (e.kind === 'fitting') return (e.count * e.lossCoefficient) / (2 * gravity * boreArea(e.diameter) ** 2)
  if (e.kind === 'orifices')
    return 1 / (2 * gravity * (e.dischargeCoefficient * e.holes * boreArea(e.holeDiameter)) ** 2)
  return null
}

/** Throws unless a number lies within its limits; the field’s name is only made up when it does not. */
function must(
  e: Element,
  field: string,
  value: number,
  allowed: Allowed & { readonly above?: number },
): void {
  if (
    value >= (allowed.min ?? -Infinity) &&
    value <= (allowed.max ?? 1e300) &&
    value > (allowed.above ?? -Infinity)
  )
    return
  throw new OutOfRange(`elements[${e.id}].${field}`, value, allowed)
}

/** Throws OutOfRange naming the element and field, as `elements[id].field`, if an element cannot be computed. */
export function checkElement(e: Element): void {
  switch (e.kind) {
    case 'pump':
      must(e, 'pump.shutOffHead', e.pump.shutOffHead, { above: 0, words: 'greater than zero m' })
      must(e, 'pump.maxFlow', e.pump.maxFlow, { above: 0, words: 'greater than zero m³/s' })
      must(e, 'pump.exponent', e.pump.exponent, { min: 0.5, max: 10 })
      return
    case 'hose':
      must(e, 'length', e.length, { min: 1e-6, max: 1000, unit: 'm' })
      must(e, 'diameter', e.diameter, { min: 0.001, max: 1, unit: 'm' })
      must(e, 'roughness', e.roughness, { min: 0, max: e.diameter / 5, unit: 'm' })
      return
    case 'fitting':
      must(e, 'lossCoefficient', e.lossCoefficient, { min: 0, max: 1e9 })
      must(e, 'diameter', e.diameter, { min: 0.001, max: 1, unit: 'm' })
      must(e, 'count', e.count, { min: 0, max: 1000 })
      return
    case 'orifices':
      must(e, 'holes', e.holes, { min: 1, max: 10000 })
      must(e, 'holeDiameter', e.holeDiameter, { min: 1e-4, max: 0.2, unit: 'm' })
      must(e, 'dischargeCoefficient', e.dischargeCoefficient, { min: 0.05, max: 2 })
      return
    case 'layer':
      must(e, 'thickness', e.thickness, { min: 1e-5, max: 10, unit: 'm' })
      must(e, 'area', e.area, { min: 1e-6, max: 100, unit: 'm²' })
      if (!(e.permeability > 0) || !Number.isFinite(e.permeability))
        throw new OutOfRange(`elements[${e.id}].permeability`, e.permeability, {
          words: 'above zero: nothing flows through a layer of no permeability',
        })
      must(e, 'inertia', e.inertia, { min: 0, max: 1e7, unit: '1/m' })
      return
    case 'slot':
      must(e, 'gap', e.gap, { min: 1e-5, max: 0.5, unit: 'm' })
      must(e, 'perimeter', e.perimeter, { min: 1e-4, max: 100, unit: 'm' })
      must(e, 'length', e.length, { min: 1e-5, max: 10, unit: 'm' })
      must(e, 'lossCoefficient', e.lossCoefficient, { min: 0, max: 1000 })
      return
    case 'weir':
      must(e, 'sill', e.sill, { min: 0, max: 100, unit: 'm' })
      must(e, 'resistance', e.resistance, { min: 0, max: 1e15 })
  }
}

/** Does a piece of a run take any head? A hose of no length and none of a fitting do not. */
export const takesHead = (s: Segment): boolean =>
  s.kind === 'hose' ? s.length > 1e-6 : s.kind !== 'fitting' || s.count > 0

/** A piece of a run as an element between two nodes. */
export function segmentElement(s: Segment, at: Pick<Between, 'id' | 'from' | 'to'>): Element {
  // Written out: a spread costs more here than solving the whole run.
  const { id, from, to } = at
  switch (s.kind) {
    case 'hose':
      return {
        id,
        from,
        to,
        kind: 'hose',
        label: s.label,
        length: s.length,
        diameter: s.diameter,
        roughness: s.roughness,
      }
    case 'fitting':
      return {
        id,
        from,
        to,
        kind: 'fitting',
        label: s.label,
        lossCoefficient: s.lossCoefficient,
        diameter: s.diameter,
        count: s.count,
      }
    case 'spray-bar':
      return {
        id,
        from,
        to,
        kind: 'orifices',
        label: s.label,
        holes: s.holes,
        holeDiameter: s.holeDiameter,
        dischargeCoefficient: s.dischargeCoefficient,
      }
  }
}
