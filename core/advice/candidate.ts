import type { Outlet } from '../hydraulics/jets'
import type { Figure } from '../figures'
import type { FittingModel } from '../judging/fitting'
import type { JudgedFill } from '../judging/fills'
import type { Inlet } from '../judging/strength'
import type { VerdictLevel } from '../judging/verdict'
import type { FilterKind } from '../kinds'

/** Money in minor units of one currency. */
export interface Price {
  readonly minor: number
  readonly currency: string
}

/** A fill as it is offered: what it brings, its layers in the order of the water, and what its media cost to buy. */
export interface OfferedFill extends JudgedFill {
  readonly order: readonly string[]
  /** In whole packs; null where nothing has a price. */
  readonly media: Price | null
  /** Media without a price, or with one in another currency. */
  readonly unpriced: readonly string[]
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
}
