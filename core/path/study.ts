import { CoreError } from '../errors'
import type { Fill } from '../fills'
import type { StockClass } from '../tanks'
import type { ReachResult } from '../teardown/reach'
import { auditOrder, contradictions, type HouseRule, type OrderFinding } from './audit'
import type { PathCase } from './case'
import { differences, type Difference } from './compare'
import { pathSensitivity, type PathChange } from './helpful'
import { outcomeOf, type Outcome } from './outcome'
import type { Rule } from './rules'

/** Question about a body with a fill in it. */
export interface StudyQuestion {
  readonly fill: Fill
  /** The fill it is held against; null or absent: nothing. */
  readonly against?: Fill | null
  readonly house: HouseRule
  readonly stock: StockClass
  readonly reaches?: readonly ReachResult[]
  /** Leaves uncertainty and sensitivity out while a layer is dragged. */
  readonly quick?: boolean
}

/** Everything that is said of a fill: what it comes to, what is wrong with its order, what would help. */
export interface Study {
  readonly outcome: Outcome
  readonly findings: readonly OrderFinding[]
  readonly differences: readonly Difference[] | null
  /** Rules of the house that cannot both be kept. */
  readonly contradictions: readonly (readonly [Rule, Rule])[]
  readonly sensitivity: readonly PathChange[]
}

/**
 * Studies fills of one body on one hookup, each from its own base. The fill that others are held against is worked
 * out once, for as long as it stays the same.
 * @throws CoreError as {@link outcomeOf} does, with the layer, medium or chamber it is about.
 */
export function studyOf(baseOf: (fill: Fill) => Omit<PathCase, 'fill'>): (q: StudyQuestion) => Study {
  let kept: { readonly key: string; readonly outcome: Outcome } | null = null
  const unchanged = (fill: Fill, stock: StockClass): Outcome => {
    const key = JSON.stringify([fill, stock])
    if (kept?.key !== key) kept = { key, outcome: outcomeOf({ ...baseOf(fill), fill }, stock, true) }
    return kept.outcome
  }
  return ({ fill, against = null, house, stock, reaches = [], quick = false }) => {
    const outcome = outcomeOf({ ...baseOf(fill), fill }, stock, quick)
    return {
      outcome,
      findings: auditOrder(outcome, house, reaches),
      differences: against && differences(outcome, unchanged(against, stock), stock),
      contradictions: contradictions(house),
      sensitivity: quick ? [] : pathSensitivity(outcome),
    }
  }
}

/** A case without the layer, medium or chamber's gap that an error is about; null when it is about none of them. */
function without(c: PathCase, error: CoreError): PathCase | null {
  const { at } = error
  switch (at?.what) {
    case 'layers':
      return { ...c, fill: { ...c.fill, layers: c.fill.layers.filter((l) => l.id !== at.id) } }
    case 'media':
      return { ...c, fill: { ...c.fill, layers: c.fill.layers.filter((l) => l.mediumId !== at.id) } }
    case 'chambers':
      return { ...c, chambers: c.chambers.map((x) => (x.id === at.id ? { ...x, wallGap: null } : x)) }
    default:
      return null
  }
}

/** Things left out of one fill at most. */
const MOST_WRONG = 50

/**
 * Leaves out what an error is about, as often as there is something, and works out the rest; null when nothing helps.
 */
export function outcomeWithout(c: PathCase, stock: StockClass, first: CoreError): Outcome | null {
  let rest = without(c, first)
  for (let i = 0; rest && i < MOST_WRONG; i++) {
    try {
      return outcomeOf(rest, stock, true)
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      rest = without(rest, error)
    }
  }
  return null
}
