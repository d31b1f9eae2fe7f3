import { FILTER_KINDS, FILTERS, type FilterKind } from '../kinds/filters'
import type { Rank } from '../kinds/traits'
import type { StockClass } from '../tanks'
import { CROWDED, type AdviceRule } from './rule'

/** A rung of the ladder as it is taught: kinds, how many, and in words. */
export interface Rung {
  readonly id: Rank
  readonly words: string
  readonly kinds: readonly FilterKind[]
  readonly two: boolean
}

/** Small tanks, and those of small delicate stock, end here (m³; common practice, no source: about 80 L). */
const SMALL = 0.08

const RUNGS: Readonly<Record<Rank, Pick<Rung, 'words' | 'two'>>> = {
  still: { words: 'a small tank or delicate animals: an air-driven sponge or box filter', two: false },
  community: { words: 'a community tank: a hang-on-back, ideally two', two: false },
  crowded: { words: 'a crowded tank: two hang-on-backs, or one and a canister', two: true },
  large: { words: 'a large tank: a sump and a canister', two: true },
}

/** Is stock crowded or messy, by what a kilogram carries of it? */
export const isCrowded = (stock: StockClass): boolean => stock.litresPerKilogram <= CROWDED

/** A tank as the ladder sees it: its water (m³) and who lives there. */
interface OnLadder {
  readonly water: number
  readonly stock: StockClass
}

function rungOf({ water, stock }: OnLadder, { twoFrom }: Pick<AdviceRule, 'twoFrom'>): Rank {
  if (twoFrom !== null && water >= twoFrom) return 'large'
  if (isCrowded(stock)) return 'crowded'
  return water <= SMALL || !stock.openInlet ? 'still' : 'community'
}

/** The rung a tank stands on. Common practice, no source. */
export function ladderFor(tank: OnLadder, rule: Pick<AdviceRule, 'twoFrom'>): Rung {
  const id = rungOf(tank, rule)
  return { id, ...RUNGS[id], kinds: FILTER_KINDS.filter((k) => FILTERS[k].usualOn?.includes(id)) }
}

/** Does the house demand two filters on such a tank? */
export const twoDemanded = (
  { water, stock }: OnLadder,
  { twoFrom, twoWhenCrowded }: Pick<AdviceRule, 'twoFrom' | 'twoWhenCrowded'>,
): boolean => (twoFrom !== null && water >= twoFrom) || (twoWhenCrowded && isCrowded(stock))
