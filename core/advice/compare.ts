import type { Figure } from '../figures'
import { capacityFigure, type StockClass } from '../tanks'
import { mediaItems } from './advise'
import { sumOf } from './prices'
import type { Candidate, Price } from './candidate'
import { hasBody, isWhole, owningCost, type CostQuestion, type OwningCost } from './cost'
import type { AdviceRule } from './rule'
import { sayPrice } from './words'

/** How a number stands to the first model’s: more or less by over its doubt, or no difference beyond it. */
type Apart = 'more' | 'less' | 'none'

/** One model’s entry in a row: a number, money, or words; null where nobody knows. */
export interface ComparedCell {
  readonly figure: Figure | null
  readonly price: Price | null
  readonly words: string | null
  /** The model it was measured on, where it is carried over from its kin. */
  readonly inherited: string | null
  /** Null for the first model, and where one of the two is not known. */
  readonly apart: Apart | null
}

/** A row of the table, in the order a buyer thinks. */
export interface CompareRow {
  readonly id: string
  readonly group: 'label and tests' | 'as installed' | 'media' | 'everyday use' | 'build' | 'money'
  readonly label: string
  readonly cells: readonly ComparedCell[]
}

/** Half-width of what a figure shares by a name, in its unit; none where it does not. */
const sharedHalf = (f: Figure, what: string): number =>
  (f.shared ?? [])
    .filter((s) => s.what === what)
    .reduce((sum, s) => sum + (s.half ?? (s.relative ?? 0) * Math.abs(f.value)), 0)

/**
 * Doubt of a difference: √(U_a² + U_b²) of what is each one’s own; what both are wrong together by counts with its own
 * difference only. Source: GUM 5.2, correlated inputs.
 */
export function doubtApart(a: Figure, b: Figure): number {
  const names = [...new Set((a.shared ?? []).map((s) => s.what))].filter((n) => sharedHalf(b, n) > 0)
  const squares = names.reduce(
    (sum, n) => {
      const [ha, hb] = [sharedHalf(a, n), sharedHalf(b, n)]
      return sum - ha ** 2 - hb ** 2 + (ha - hb) ** 2
    },
    (a.uncertainty ?? 0) ** 2 + (b.uncertainty ?? 0) ** 2,
  )
  return Math.sqrt(Math.max(0, squares))
}

/** Do two numbers differ by more than the doubt of their difference? See {@link doubtApart}. */
export function apart(a: Figure, from: Figure): Apart {
  const difference = a.value - from.value
  const doubt = doubtApart(a, from)
  if (Math.abs(difference) <= Math.max(doubt, 1e-9 * Math.abs(from.value))) return 'none'
  return difference > 0 ? 'more' : 'less'
}

const priceApart = (a: Price, from: Price): Apart | null => {
  if (a.currency !== from.currency) return null
  if (a.minor === from.minor) return 'none'
  return a.minor > from.minor ? 'more' : 'less'
}

/** Grounds of a comparison. */
export interface CompareBy {
  readonly stock: StockClass
  readonly rule: AdviceRule
  /** Better media are bought for those that have a proposal. */
  readonly refilled: boolean
  /** Models by their ids, for what is carried over from kin. */
  readonly shelf: ReadonlyMap<string, Candidate>
  /** Prices put in place of the list price, by the model’s id. */
  readonly prices?: ReadonlyMap<string, Price>
  readonly floss?: CostQuestion['floss']
}

/** A row of a comparison. */
type Entry = Figure | Price | string | null

interface RowOf {
  readonly id: string
  readonly label: string
  readonly of: (c: Candidate) => Entry
  /** Belongs to the body, so a sibling’s finding holds for it too. */
  readonly ofBody?: boolean
}

const range = (c: Candidate, show: (f: Figure) => string): string | null => {
  const { tankMin, tankMax } = c.facts.printed
  if (!tankMin && !tankMax) return null
  return `${tankMin ? show(tankMin) : '?'} to ${tankMax ? show(tankMax) : '?'}`
}

/** The fill a model is compared with: the proposed one where better media are bought. */
const fillOf = (c: Candidate, refilled: boolean): Candidate['shipped'] =>
  (refilled ? c.proposed : null) ?? c.shipped

/** Cost of owning a model in a comparison. */
export const comparedCost = (
  c: Candidate,
  { rule, refilled, prices, floss = null }: Omit<CompareBy, 'stock' | 'shelf'>,
): OwningCost =>
  owningCost({
    candidate: c,
    fill: fillOf(c, refilled),
    buysFill: refilled && c.proposed !== null,
    rule,
    price: prices?.get(c.id) ?? c.price,
    floss,
  })

/** All rows for some models, the first of them what the others are held against. `show` says a figure in words. */
export function compareRows(
  models: readonly Candidate[],
  by: CompareBy,
  show: (f: Figure) => string,
): readonly CompareRow[] {
  const { stock, rule, prices } = by
  const paid = (c: Candidate): Price | null => prices?.get(c.id) ?? c.price
  const offer = (kind: 'sale' | 'second-hand') => (c: Candidate) =>
    c.offers.findLast((o) => o.kind === kind)?.price ?? null
  const groups: readonly (readonly [CompareRow['group'], readonly RowOf[]])[] = [
    [
      'label and tests',
      [
        { id: 'rated', label: 'Rated flow', of: (c) => c.facts.printed.ratedFlow },
        { id: 'bare', label: 'Measured flow (empty, no hoses)', of: (c) => c.facts.bare },
        { id: 'max-head', label: 'Maximum head', of: (c) => c.facts.printed.maxHead },
        { id: 'shut-off', label: 'Measured maximum head', of: (c) => c.facts.shutOff },
        { id: 'claimed-media', label: 'Media volume on the label', of: (c) => c.facts.printed.mediaVolume },
        { id: 'claimed-tanks', label: 'Tank size on the label', of: (c) => range(c, show) },
        {
          id: 'carries',
          label: `Supports with supplied media (${stock.label.toLowerCase()})`,
          of: (c) => c.shipped && capacityFigure(c.shipped, stock, c.claimedMax),
        },
        {
          id: 'carries-proposed',
          label: 'Supports with recommended media',
          of: (c) => c.proposed && capacityFigure(c.proposed, stock, c.claimedMax),
        },
      ],
    ],
    [
      'as installed',
      [
        { id: 'flow', label: 'Installed flow, supplied media', of: (c) => c.shipped?.flow ?? null },
        {
          id: 'flow-proposed',
          label: 'Installed flow, recommended media',
          of: (c) => c.proposed?.flow ?? null,
        },
        { id: 'meets', label: 'Reaches the bio media', of: (c) => c.shipped?.meets ?? null },
      ],
    ],
    [
      'media',
      [
        { id: 'litres', label: 'Supplied bio media', of: (c) => c.facts.media.shipped },
        { id: 'litres-proposed', label: 'Recommended bio media', of: (c) => c.facts.media.proposed },
        {
          id: 'kilograms',
          label: 'Supplied media, as sintered-media weight',
          of: (c) => c.shipped?.mass ?? null,
        },
        {
          id: 'kilograms-proposed',
          label: 'Recommended media, as sintered-media weight',
          of: (c) => c.proposed?.mass ?? null,
        },
      ],
    ],
    [
      'everyday use',
      [
        { id: 'noise', label: 'Sound level', of: (c) => c.noise },
        { id: 'watts', label: 'Power', of: (c) => c.watts },
        {
          id: 'pre-moves',
          label: 'Hand movements to the pre-filter',
          of: (c) => c.facts.preFilter?.moves ?? null,
          ofBody: true,
        },
        {
          id: 'pre-seconds',
          label: 'Access time to the pre-filter',
          of: (c) => c.facts.preFilter?.seconds ?? null,
          ofBody: true,
        },
        {
          id: 'media-moves',
          label: 'Hand movements to the media',
          of: (c) => c.facts.toMedia?.moves ?? null,
          ofBody: true,
        },
        {
          id: 'media-seconds',
          label: 'Access time to the media',
          of: (c) => c.facts.toMedia?.seconds ?? null,
          ofBody: true,
        },
        { id: 'weight', label: 'Weight ready to run', of: (c) => c.fitting?.fullMass ?? null, ofBody: true },
      ],
    ],
    [
      'build',
      [
        {
          id: 'faults',
          label: 'Build faults',
          of: (c) => c.build && (c.build.faults.join('; ') || 'none found'),
          ofBody: true,
        },
        {
          id: 'omits',
          label: 'Missing from the box',
          of: (c) => c.facts.omits && (c.facts.omits.join(', ') || 'nothing'),
        },
        { id: 'guarantee', label: 'Warranty', of: (c) => c.facts.guarantee },
      ],
    ],
    [
      'money',
      [
        { id: 'price', label: 'List price', of: (c) => c.price },
        { id: 'sale', label: 'On sale', of: offer('sale') },
        { id: 'second-hand', label: 'Second-hand', of: offer('second-hand') },
        {
          id: 'refilled',
          label: 'With better media',
          of: (c) => {
            if (!c.proposed || !paid(c)) return null
            const { price, missing } = sumOf(
              [{ what: c.name, price: paid(c) }, ...mediaItems(c.proposed)],
              rule,
            )
            return price && missing.length ? `from ${sayPrice(price)}, without ${missing.join(', ')}` : price
          },
        },
        {
          id: 'owning',
          label: `Cost over ${rule.years} ${rule.years === 1 ? 'year' : 'years'}`,
          of: (c) => {
            const cost = comparedCost(c, by)
            if (!hasBody(cost)) return null
            const sum = { minor: cost.total, currency: cost.currency }
            return isWhole(cost) ? sum : `from ${sayPrice(sum)}`
          },
        },
      ],
    ],
  ]
  return groups.flatMap(([group, rows]) =>
    rows.flatMap((row): CompareRow[] => {
      const cells = cellsOf(models, row, by.shelf)
      const known = cells.some((c) => c.figure ?? c.price ?? c.words)
      return known ? [{ id: row.id, group, label: row.label, cells }] : []
    }),
  )
}

const isPrice = (e: Figure | Price): e is Price => 'minor' in e

function cellsOf(
  models: readonly Candidate[],
  row: RowOf,
  shelf: ReadonlyMap<string, Candidate>,
): readonly ComparedCell[] {
  const cells = models.map((c): Omit<ComparedCell, 'apart'> => {
    const own = row.of(c)
    const kin = own === null && row.ofBody && c.kin ? shelf.get(c.kin.id) : undefined
    const entry = own ?? (kin ? row.of(kin) : null)
    return {
      figure: entry !== null && typeof entry === 'object' && !isPrice(entry) ? entry : null,
      price: entry !== null && typeof entry === 'object' && isPrice(entry) ? entry : null,
      words: typeof entry === 'string' ? entry : null,
      inherited: own === null && entry !== null ? (kin?.name ?? null) : null,
    }
  })
  const [first] = cells
  return cells.map((c, i): ComparedCell => {
    if (i === 0 || !first) return { ...c, apart: null }
    if (c.figure && first.figure) return { ...c, apart: apart(c.figure, first.figure) }
    return { ...c, apart: c.price && first.price ? priceApart(c.price, first.price) : null }
  })
}
