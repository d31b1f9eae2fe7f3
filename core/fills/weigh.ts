import { FILTERS, type FilterKind } from '../kinds'
import { countsForCapacity, packVolume, type Medium, type MediumForm, type MediumJob } from '../media'
import type { BodyRecord } from '../volumes'
import type { PlacedChamber, PlacedLayer } from './place'

/** Density of what each form is made of (kg/m³), inner pores apart. Common practice, no source. */
const MATERIAL: Readonly<Record<MediumForm, number>> = {
  foam: 1150,
  pad: 1350,
  floss: 1350,
  cartridge: 1350,
  rings: 2400,
  spheres: 2500,
  sintered: 2500,
  gravel: 2600,
  coral: 2700,
  carbon: 2000,
  resin: 1250,
  moving: 950,
  contactor: 950,
}

/** Water at 20 °C, kg/m³. */
const WATER = 998

/** Litres by job, kilograms, and the weight of the filter with them in it. */
export interface FillWeights {
  readonly byJob: Readonly<Record<MediumJob, number>>
  readonly volume: number
  readonly mass: number
  /** Dry mass that counts towards capacity (kg). */
  readonly biologicalMass: number
  /** Solid matter, which takes the place of water (m³). */
  readonly solid: number
  /** Water the body holds without media (m³). */
  readonly water: number
  /** Empty body + media + the water around them (kg); null while the empty body was not weighed. */
  readonly fullWeight: number | null
}

/** In a sponge filter the foam itself is what carries the tank. */
export const layerCounts = (kind: FilterKind, m: Medium): boolean =>
  countsForCapacity(m) || (m.form === 'foam' && FILTERS[kind].foamIsMedia === true)

const layersOf = (chambers: readonly PlacedChamber[]): readonly PlacedLayer[] =>
  chambers.flatMap((c) => c.layers)

/** Sums of a fill. W = empty + ρ_w (V − Σ m/ρ_s) + Σ m, with V the water the body holds without media. */
export function weighFill(
  kind: FilterKind,
  chambers: readonly PlacedChamber[],
  body: BodyRecord,
  gross: number,
): FillWeights {
  const byJob: Record<MediumJob, number> = { coarse: 0, medium: 0, fine: 0, biological: 0, chemical: 0 }
  let [mass, biologicalMass, solid] = [0, 0, 0]
  for (const { medium, volume, mass: m } of layersOf(chambers)) {
    byJob[medium.job] += volume
    mass += m
    solid += m / MATERIAL[medium.form]
    if (layerCounts(kind, medium)) biologicalMass += m
  }
  const water = body.waterFill ?? gross
  return {
    byJob,
    volume: Object.values(byJob).reduce((a, b) => a + b, 0),
    mass,
    biologicalMass,
    solid,
    water,
    fullWeight: body.emptyMass === null ? null : body.emptyMass + WATER * (water - solid) + mass,
  }
}

/** A line of the shopping list: whole packs of a medium, what they cost, and how much of them is left over (m³). */
export interface ShoppingLine {
  readonly medium: Medium
  readonly volume: number
  readonly packs: number | null
  readonly leftOver: number | null
  readonly costMinor: number | null
  readonly currency: string | null
}

/** Whole packs (of so many m³) that a volume takes; a rounding is not a pack. */
export const packsOf = (volume: number, pack: number): number => Math.max(0, Math.ceil(volume / pack - 1e-6))

/** Shopping list of a fill, in whole packs. Media of the same kind in several chambers come out of the same packs. */
export function shoppingList(chambers: readonly PlacedChamber[]): readonly ShoppingLine[] {
  const sums = new Map<string, { medium: Medium; volume: number }>()
  for (const { medium, volume } of layersOf(chambers)) {
    const line = sums.get(medium.id) ?? { medium, volume: 0 }
    sums.set(medium.id, { medium, volume: line.volume + volume })
  }
  return [...sums.values()].map(({ medium, volume }) => {
    const pack = packVolume(medium)
    const packs = pack === null ? null : packsOf(volume, pack)
    return {
      medium,
      volume,
      packs,
      leftOver: packs === null || pack === null ? null : Math.max(0, packs * pack - volume),
      costMinor: packs === null || medium.priceMinor === null ? null : packs * medium.priceMinor,
      currency: medium.currency,
    }
  })
}

/** Cost of a list in one currency (minor units); `unpriced` names what has no price, or one in another currency. */
export function listCost(list: readonly ShoppingLine[]): {
  readonly costMinor: number
  readonly currency: string | null
  readonly unpriced: readonly string[]
} {
  const currency = list.find((l) => l.costMinor !== null)?.currency ?? null
  const priced = list.filter((l) => l.costMinor !== null && l.currency === currency)
  return {
    costMinor: priced.reduce((sum, l) => sum + (l.costMinor ?? 0), 0),
    currency,
    unpriced: list.filter((l) => !priced.includes(l)).map((l) => l.medium.name),
  }
}
