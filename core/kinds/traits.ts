import type { FittingId } from '../hydraulics/tables'
import type { PartKind } from '../parts/partKind'
import type { ChamberRole, LitreName, Way } from '../volumes/interior'

/** A usual chamber, as shares of the body's inside. */
export interface UsualChamber {
  readonly name: string
  readonly role: ChamberRole
  /** Its lower left corner: x and y. */
  readonly at: readonly [x: number, y: number]
  readonly size: readonly [width: number, height: number]
  /** Share of its height that holds media. */
  readonly usable?: number
  /** The name its litres go by, where the role says another. */
  readonly use?: LitreName
}

/** A piece of a usual run: a fitting of the catalogue, or a hose by its name; bore and length in m. */
export type UsualPiece =
  | { readonly fitting: FittingId; readonly bore: number; readonly count?: number }
  | { readonly hose: string; readonly bore: number; readonly length: number }

/** The classes of tank that the ladder of the trade knows. */
export type Rank = 'still' | 'community' | 'crowded' | 'large'

/**
 * Traits of a kind of filter: everything that depends on the kind asks here. Sizes are common practice, no source.
 */
export interface FilterTraits {
  readonly name: string
  /** Air-driven ones have no pump curve, and their flow belongs to the air pump. */
  readonly drivenBy: 'pump' | 'air'
  readonly stands: 'outside' | 'rim' | 'inside' | 'beneath'
  /** Stands apart from the tank, on hoses; without them a filter with media in it is as installed. */
  readonly hoses: boolean
  /** Closed: both ends of the run under water, so that the fall pays for the rise. */
  readonly circuit: 'closed' | 'open'
  /** Holds on to the glass by cups or clips. */
  readonly cups: boolean
  /** Has a body round its media; a sponge on a pipe has none. */
  readonly boxed: boolean
  /** Which way water runs through its chambers unless it is said otherwise. */
  readonly way: Way
  /** Draws through an intake that animals can reach and a sponge can guard. */
  readonly intake: boolean
  /** Largest rated flow that such filters print (m³/s); null: the general limit. */
  readonly largestFlow: number | null
  /** Maximum heads (m) that pumps of this kind usually have, for labels that print none; absent where air drives it. */
  readonly usualHead?: readonly [low: number, high: number]
  /** The foam itself is what carries the tank. */
  readonly foamIsMedia?: true
  /** Its two sponges stand side by side on one riser. */
  readonly pairedSponges?: true
  /** Its media are kept turning, and shed what settles on them. */
  readonly mediaMove?: true
  /** Water falls through it from the tank, and a pump returns it from below. */
  readonly byGravity?: true
  /** A lift tube stands between the intake and the body, so all but the outlet is ahead of it. */
  readonly tubeAhead?: true
  /** Days between two openings, or squeezings of the sponge (common practice, no source). */
  readonly openedEvery: number
  /** Tanks on which the trade puts it, as it is taught (common practice, no source). */
  readonly usualOn?: readonly Rank[]
  /** Further checks of a second-hand one (common practice, no source). */
  readonly secondHand?: readonly string[]
  /** Usual outside sizes (m): width, depth, height. */
  readonly body: readonly [number, number, number]
  /** Its usual chambers, in flow order. */
  readonly chambers: readonly UsualChamber[]
  /** Its parts, in the order they usually come off. */
  readonly parts: readonly PartKind[]
  /** A sensible run to start from. */
  readonly hookup: {
    readonly name: string
    readonly outletAboveWater: number
    readonly sourceBelowWater: number
    readonly bodyBelowWater: number
    readonly pieces: readonly UsualPiece[]
  }
}
