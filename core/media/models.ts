import { OutOfRange, requirePositive, requireRange } from '../errors'

/** How a medium resists water: permeability k (m²) and inertial coefficient C (1/m) of Δp/L = (μ/k) v + ρ C v². */
export interface Resistance {
  readonly permeability: number
  readonly inertia: number
}

/**
 * Loose grains, rings or spheres: k = ε³d²/150(1−ε)², C = 1.75(1−ε)/(ε³d), with voidage ε between the grains and the
 * diameter d (m) of a sphere of the same volume-to-surface ratio.
 * Source: Ergun, Chem. Eng. Prog. 48 (1952) 89. Holds for beds many grains deep and wide.
 * @throws OutOfRange for `voidage` outside 0.2 to 0.95 or `diameter` not above zero.
 */
export function ergun({
  voidage,
  diameter,
}: {
  readonly voidage: number
  readonly diameter: number
}): Resistance {
  requireRange('voidage', voidage, { min: 0.2, max: 0.95 })
  requirePositive('diameter', diameter, 'm')
  const solid = 1 - voidage
  return {
    permeability: (voidage ** 3 * diameter ** 2) / (150 * solid ** 2),
    inertia: (1.75 * solid) / (voidage ** 3 * diameter),
  }
}

/**
 * Pads and floss as a mat of fibres: Davies' k = d² / (64 s^1.5 (1 + 56 s³)) with fibre diameter d and solidity s; the
 * inertial part as Ergun's with the grain of equal surface, 1.5 d. Pads vary: calibrate where it matters.
 * Source: Davies, Proc. Inst. Mech. Eng. 1B (1952) 185 (from memory); measured on mats of s 0.006 to 0.3.
 * @throws OutOfRange for `solidity` outside 0.005 to 0.4 or `fibre` not above zero.
 */
export function fibrePad({
  solidity,
  fibre,
}: {
  readonly solidity: number
  readonly fibre: number
}): Resistance {
  requireRange('solidity', solidity, { min: 0.005, max: 0.4 })
  requirePositive('fibre', fibre, 'm')
  const voidage = 1 - solidity
  return {
    permeability: fibre ** 2 / (64 * solidity ** 1.5 * (1 + 56 * solidity ** 3)),
    inertia: (1.75 * solidity) / (voidage ** 3 * 1.5 * fibre),
  }
}

/**
 * Open-cell foam by pores per inch, as measured on metal foams of the same structure: a proxy, so calibrate where it
 * matters. Permeability in m², inertia C = c_F/√k in 1/m.
 * Source: table in the manner of Bhattacharya, Calmidi and Mahajan, Int. J. Heat Mass Transfer 45 (2002) 1017 (from
 * memory).
 */
export const FOAM_TABLE = [
  { poresPerInch: 5, permeability: 2.4e-7, inertia: 194 },
  { poresPerInch: 10, permeability: 1.5e-7, inertia: 245 },
  { poresPerInch: 20, permeability: 1.0e-7, inertia: 290 },
  { poresPerInch: 30, permeability: 6.5e-8, inertia: 350 },
  { poresPerInch: 40, permeability: 5.0e-8, inertia: 400 },
  { poresPerInch: 60, permeability: 2.6e-8, inertia: 560 },
] as const

/** Foam between the rows of {@link FOAM_TABLE}, by logarithms. @throws OutOfRange outside 5 to 60 pores per inch. */
export function foam(poresPerInch: number): Resistance {
  const [first, last] = [FOAM_TABLE[0], FOAM_TABLE[FOAM_TABLE.length - 1]]
  if (!first || !last) throw new Error('an empty table')
  requireRange('poresPerInch', poresPerInch, { min: first.poresPerInch, max: last.poresPerInch })
  const i = Math.max(
    1,
    FOAM_TABLE.findIndex((r) => r.poresPerInch >= poresPerInch),
  )
  const [a, b] = [FOAM_TABLE[i - 1] ?? first, FOAM_TABLE[i] ?? last]
  const t = Math.log(poresPerInch / a.poresPerInch) / Math.log(b.poresPerInch / a.poresPerInch)
  return {
    permeability: a.permeability * (b.permeability / a.permeability) ** t,
    inertia: a.inertia * (b.inertia / a.inertia) ** t,
  }
}

/** A layer's size: thickness L (m) along the flow and area A (m²) across it. */
export interface LayerSize {
  readonly thickness: number
  readonly area: number
}

/** Water as the losses need it: density (kg/m³) and dynamic viscosity (Pa·s). */
export interface Water {
  readonly density: number
  readonly viscosity: number
}

/** Pressure (Pa) a layer takes at flow q (m³/s): Darcy–Forchheimer. */
export function layerPressure(q: number, layer: LayerSize & Resistance, water: Water): number {
  const v = q / layer.area
  return (
    layer.thickness *
    ((water.viscosity / layer.permeability) * v + water.density * layer.inertia * v * Math.abs(v))
  )
}

/** A gap beside a layer: width g, perimeter W along the wall (m), entry and exit ΣK; as long as the layer is thick. */
export interface Gap {
  readonly gap: number
  readonly perimeter: number
  readonly lossCoefficient?: number
}

/** Entry and exit of a narrow slot (common practice, no source). */
export const SLOT_ENTRY_EXIT = 1.5

/** Flow (m³/s) of a form Δp = a q + b q² at pressure Δp (Pa). */
const flowAt = (pressure: number, a: number, b: number): number =>
  pressure <= 0 ? 0 : (2 * pressure) / (a + Math.sqrt(a * a + 4 * b * pressure))

/** Water through a layer and past it, at the pressure both share. */
export interface Bypass {
  readonly pressure: number
  readonly through: number
  readonly past: number
  readonly share: number
}

/**
 * How flow Q (m³/s) parts between a layer and the gap beside it: a plane Poiseuille slot with entry and exit,
 * Δp = 12 μ L v/g² + ΣK ρ v²/2, under the layer's own pressure.
 * @throws OutOfRange naming `flow`, `layer.…` or `gap.…`.
 */
export function bypass(flow: number, layer: LayerSize & Resistance, gap: Gap, water: Water): Bypass {
  requirePositive('flow', flow, 'm³/s')
  requirePositive('layer.thickness', layer.thickness, 'm')
  requirePositive('layer.area', layer.area, 'm²')
  requirePositive('layer.permeability', layer.permeability, 'm²')
  if (!(gap.gap >= 0)) throw new OutOfRange('gap.gap', gap.gap, { min: 0, unit: 'm' })
  requirePositive('gap.perimeter', gap.perimeter, 'm')
  const la = (layer.thickness * water.viscosity) / (layer.permeability * layer.area)
  const lb = (layer.thickness * water.density * layer.inertia) / layer.area ** 2
  if (gap.gap === 0) return { pressure: la * flow + lb * flow * flow, through: flow, past: 0, share: 0 }
  const section = gap.gap * gap.perimeter
  const sa = (12 * water.viscosity * layer.thickness) / (gap.gap ** 2 * section)
  const sb = ((gap.lossCoefficient ?? SLOT_ENTRY_EXIT) * water.density) / (2 * section ** 2)
  let [low, high] = [0, la * flow + lb * flow * flow]
  for (let i = 0; i < 200 && high - low > 1e-13 * high; i++) {
    const mid = (low + high) / 2
    if (flowAt(mid, la, lb) + flowAt(mid, sa, sb) < flow) low = mid
    else high = mid
  }
  const pressure = (low + high) / 2
  const past = flowAt(pressure, sa, sb)
  return { pressure, through: flow - past, past, share: past / flow }
}
