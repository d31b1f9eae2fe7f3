import { OutOfRange } from '../errors'
import { ergun, fibrePad, foam, type Resistance } from './models'

/** Forms of media; each has a texture of its own in the cutaway. */
export const MEDIUM_FORMS = [
  'foam',
  'pad',
  'floss',
  'rings',
  'spheres',
  'gravel',
  'sintered',
  'moving',
  'cartridge',
  'carbon',
  'resin',
  'coral',
  'contactor',
] as const
export type MediumForm = (typeof MEDIUM_FORMS)[number]

/** Jobs of media. Straining comes in three finenesses. */
export const MEDIUM_JOBS = ['coarse', 'medium', 'fine', 'biological', 'chemical'] as const
export type MediumJob = (typeof MEDIUM_JOBS)[number]

/** A medium as the bench knows it. SI throughout; null for what is not known. Money in minor units. */
export interface Medium {
  readonly id: string
  readonly name: string
  readonly form: MediumForm
  readonly job: MediumJob
  readonly poresPerInch: number | null
  /** Diameter of the sphere of equal volume to surface (m). */
  readonly grain: number | null
  readonly fibre: number | null
  /** Share of a mat that is fibre. */
  readonly solidity: number | null
  /** Share of a bed that is water between the grains. */
  readonly voidage: number | null
  /** Dry mass of a litre of bed (kg/m³), and the mass of the same bed drained but wet. */
  readonly bulkDensity: number
  readonly wetDensity: number | null
  /**
   * Permeability (m²) calibrated on the bench with its 95 % interval, and the inertial coefficient (1/m) that went with
   * it.
   */
  readonly permeability: number | null
  readonly permeabilityLow: number | null
  readonly permeabilityHigh: number | null
  readonly inertia: number | null
  /** Surfaces per volume of bed (1/m): from size and shape; what water and biofilm can use; what the label claims. */
  readonly geometricSurface: number | null
  readonly effectiveSurface: number | null
  readonly claimedSurface: number | null
  /** Relative half-width (95 %) within which the effective surface is believed; null: as its form usually is. */
  readonly surfaceBand: number | null
  /**
   * Share of its surface that works on the average of its time between rinses, as dirt lies on it, with its relative
   * half-width (95 %); null: as media of its job usually are.
   */
  readonly workingShare: number | null
  readonly workingBand: number | null
  readonly packVolume: number | null
  readonly packMass: number | null
  /** Thickness a pad comes in (m). */
  readonly sheetThickness: number | null
  readonly priceMinor: number | null
  readonly currency: string | null
  readonly pricedOn: string | null
  readonly lifeDays: number | null
  readonly source: string
}

/** How a medium’s resistance is known, with the relative standard uncertainty of its permeability. */
export interface KnownResistance extends Resistance {
  readonly from: 'calibrated' | 'ergun' | 'fibres' | 'foam-table' | 'open'
  readonly relative: number
}

/** Relative standard uncertainty of a permeability that was not calibrated (common practice, no source). */
export const MODEL_UNCERTAINTY = { ergun: 0.3, fibres: 0.5, 'foam-table': 0.4, open: 0 } as const

/** Resistance of a medium by the models, whatever the bench found; null when it has none of their sizes. */
export function modelResistance(m: Medium): KnownResistance | null {
  const known = (from: keyof typeof MODEL_UNCERTAINTY, r: Resistance): KnownResistance => ({
    ...r,
    from,
    relative: MODEL_UNCERTAINTY[from],
  })
  if (m.form === 'moving' || m.form === 'contactor') return known('open', { permeability: 1e-4, inertia: 0 })
  if (m.form === 'foam' && m.poresPerInch !== null) return known('foam-table', foam(m.poresPerInch))
  if (m.fibre !== null && m.solidity !== null)
    return known('fibres', fibrePad({ fibre: m.fibre, solidity: m.solidity }))
  if (m.grain !== null && m.voidage !== null)
    return known('ergun', ergun({ diameter: m.grain, voidage: m.voidage }))
  return null
}

/**
 * A medium’s permeability and inertia: calibrated on the bench where it was, else from the model of its form.
 * @throws OutOfRange naming `permeability` when it is not above zero, or when nothing is known of the medium.
 */
export function resistanceOf(m: Medium): KnownResistance {
  if (m.permeability !== null) {
    if (!(m.permeability > 0))
      throw new OutOfRange('permeability', m.permeability, {
        words: `above zero: nothing flows through ${m.name} as it stands`,
      })
    const half =
      m.permeabilityLow && m.permeabilityHigh
        ? (m.permeabilityHigh - m.permeabilityLow) / 2 / m.permeability
        : 0.2
    return {
      permeability: m.permeability,
      inertia: m.inertia ?? modelResistance(m)?.inertia ?? 0,
      from: 'calibrated',
      relative: Math.min(1, half / 2),
    }
  }
  const model = modelResistance(m)
  if (!model)
    throw new OutOfRange('permeability', 0, {
      words: `a permeability, or the sizes it follows from, for ${m.name}`,
    })
  return model
}

/**
 * Outer surface per volume of bed (1/m): 6(1 − ε)/d for grains, 4 s/d for fibres of solidity s; as entered where it
 * was.
 * Source: geometry. Null where neither is known.
 */
export function geometricSurface(m: Medium): number | null {
  if (m.geometricSurface !== null) return m.geometricSurface
  if (m.fibre !== null && m.solidity !== null) return (4 * m.solidity) / m.fibre
  if (m.grain !== null && m.voidage !== null) return (6 * (1 - m.voidage)) / m.grain
  return null
}

/** Does it strain? */
export const isStraining = (m: Pick<Medium, 'job'>): boolean =>
  m.job === 'coarse' || m.job === 'medium' || m.job === 'fine'

/** Does its mass count towards capacity? A turning contactor will stop one day: a bonus, never capacity. */
export const countsForCapacity = (m: Pick<Medium, 'job' | 'form'>): boolean =>
  m.job === 'biological' && m.form !== 'contactor' && m.form !== 'foam'

/** Volume of one pack (m³): as printed, or from its mass; null when neither is known. */
export const packVolume = (m: Medium): number | null =>
  m.packVolume ?? (m.packMass !== null ? m.packMass / m.bulkDensity : null)
