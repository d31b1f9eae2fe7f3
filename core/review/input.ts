import type { AdviceRule, Candidate } from '../advice'
import type { Day } from '../days'
import type { FilterKind } from '../kinds'
import type { PlacedPart } from '../teardown/placing'
import type { Assessment } from '../judging'
import type { ClaimRecord } from '../trials'
import type { Chances } from '../judging/chances'
import type { OrderFinding, Outcome } from '../path'
import type { StockClass } from '../tanks'
import type { Caution } from '../teardown'
import type { Chore } from '../upkeep'
import type { UnitHistory, VisitRecord } from '../visits'
import type { VolumeAudit } from '../volumes'
import type { Disclosing } from './disclosure'
import type { ReviewPhoto } from './blocks'

/** Everything a sheet is made from, as it stands on one day. */
export interface ReviewInput extends Disclosing {
  readonly on: Day
  readonly maker: string
  readonly name: string
  readonly kind: FilterKind
  readonly house: { readonly name: string; readonly advice: AdviceRule }
  readonly stock: readonly StockClass[]
  readonly assessment: Assessment
  readonly candidate: Candidate
  readonly chances: Chances | null
  readonly claims: readonly ClaimRecord[]
  readonly errata: readonly { readonly on: Day; readonly about: string; readonly text: string }[]
  /** The inside; null while no body is on record. */
  readonly audit: VolumeAudit | null
  /** Water through the fill as shipped and what is wrong with its order; null where it cannot be worked out. */
  readonly path: { readonly outcome: Outcome; readonly findings: readonly OrderFinding[] } | null
  readonly parts: readonly PlacedPart[]
  readonly photos: readonly ReviewPhoto[]
  readonly chores: readonly Chore[]
  readonly cautions: readonly Caution[]
  readonly history: UnitHistory & {
    readonly all: readonly (VisitRecord & { readonly minutes: number | null })[]
  }
  /** The next visit that the house wants; null: none, or it was never set up. */
  readonly next: Day | null
}
