import type { Holding } from '../bench'
import type { Pump } from '../hydraulics'
import type { Outlet } from '../hydraulics/jets'
import type { Figure } from '../figures'
import type { FittingModel } from '../judging/fitting'
import type { JudgedFill } from '../judging/fills'
import type { Inlet } from '../judging/strength'
import type { VerdictLevel } from '../judging/levels'
import type { FilterKind } from '../kinds'
import type { MediumForm, MediumJob } from '../media'

/** Money in minor units of one currency. */
export interface Price {
  readonly minor: number
  readonly currency: string
  /** The day it was noted on; absent or null where nobody said. */
  readonly on?: string | null | undefined
}

/** A medium as a fill uses it: how much (m³), how it is sold, how long it lasts (days; null: for good). */
export interface MediumUse {
  readonly name: string
  readonly form: MediumForm
  readonly job: MediumJob
  /** Does it count towards capacity? */
  readonly counts: boolean
  readonly volume: number
  /** Volume of a pack (m³). */
  readonly pack: number | null
  readonly price: Price | null
  readonly lifeDays: number | null
}

/** A fill as it is offered: what it brings, its layers in the order of the water, and the media it uses. */
export interface OfferedFill extends JudgedFill {
  readonly order: readonly string[]
  readonly uses: readonly MediumUse[]
}

/** A part that wears, with its price. */
export interface Spare {
  readonly name: string
  readonly wears: 'impeller' | 'seal' | 'lamp' | 'other'
  readonly price: Price
}

/** Printed figures, as far as there are any. */
export type PrintedFigures = Readonly<
  Record<'ratedFlow' | 'maxHead' | 'mediaVolume' | 'tankMin' | 'tankMax', Figure | null>
>

/** Parts, moves and seconds to reach something, from the closed filter. */
export interface Reached {
  readonly moves: Figure
  readonly seconds: Figure
}

/** Facts that a comparison asks besides. */
export interface Facts {
  readonly printed: PrintedFigures
  /** Measured bare and empty at no lift, as labels are rated; and the head at which it stops. */
  readonly bare: Figure | null
  readonly shutOff: Figure | null
  /** Its curve, by the bench or by the label. */
  readonly pump: (Pump & { readonly from: 'fit' | 'label' }) | null
  /** Litres of biological media, as shipped and as proposed. */
  readonly media: { readonly shipped: Figure | null; readonly proposed: Figure | null }
  readonly preFilter: Reached | null
  readonly toMedia: Reached | null
  /** Items missing from the box; null while nobody has looked. */
  readonly omits: readonly string[] | null
  readonly guarantee: string | null
  /** How long cups or clips held. */
  readonly holding: readonly Holding[]
}

/** The model it is a sibling or a later generation of. */
export interface Kin {
  readonly id: string
  readonly as: 'sibling' | 'generation'
}

/** Offers besides its list price. */
export interface Offer {
  readonly kind: 'sale' | 'second-hand'
  readonly price: Price
  readonly on: string | null
}

/** All that is asked of a model where it is set against a tank or against another: made once from its dossier. */
export interface Candidate {
  readonly id: string
  readonly maker: string
  readonly name: string
  readonly kind: FilterKind
  readonly shipped: OfferedFill | null
  readonly proposed: OfferedFill | null
  /** Null while its body is not measured. */
  readonly fitting: FittingModel | null
  readonly outlets: readonly { readonly id: string; readonly name: string; readonly outlet: Outlet }[]
  readonly inlet: Inlet | null
  readonly level: VerdictLevel
  /** Largest tank its label claims (m³). */
  readonly claimedMax: number | null
  /** List price as printed. */
  readonly price: Price | null
  readonly watts: Figure | null
  readonly noise: Figure | null
  /** Seconds from the closed filter to its media and back, with the cleaning; null where nobody timed it. */
  readonly service: Figure | null
  /** Parts looked at, and those of them with a fault; null while it was not stripped. */
  readonly build: { readonly parts: number; readonly faults: readonly string[] } | null
  readonly spares: readonly Spare[]
  readonly offers: readonly Offer[]
  readonly kin: Kin | null
  readonly facts: Facts
}

/** A model with one of its fills. */
export interface Choice {
  readonly candidate: Candidate
  readonly fill: OfferedFill
  /** Its media are bought with it: they are not what it ships with. */
  readonly refilled: boolean
}
