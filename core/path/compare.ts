import { nameOf, lowerFirst, put, inline, type Figure, type Sentence } from '../figures'
import type { StockClass } from '../tanks'
import { auditOrder, burden, HOUSE_RULES, type HouseRule, type OrderFinding } from './audit'
import {
  fillCapacityFigure,
  pathFlowFigure,
  jobFigure,
  mediaHeadFigure,
  meetsFigure,
  unstrainedFigure,
} from './figures'
import { fitFill, type FitLimits, type FitResult } from './optimise'
import type { Outcome } from './outcome'
import type { PathCase } from './case'

/** How one number differs between two fills. */
export interface Difference {
  readonly id: string
  readonly label: string
  readonly now: Figure
  readonly before: Figure
  readonly change: Figure
  /** True when more is better, false when less is. */
  readonly more: boolean
}

const difference = (now: Figure, before: Figure, more: boolean): Difference => ({
  id: now.id,
  label: now.label,
  now,
  before,
  more,
  change: {
    ...(now.unit && { unit: now.unit }),
    id: `change-${now.id}`,
    label: `${now.label}: the difference`,
    value: now.value - before.value,
    dimension: now.dimension,
    provenance: 'computed',
    formula: 'this setup − the other',
    working: [
      { symbol: 'this', label: now.label, value: now.value, dimension: now.dimension },
      { symbol: 'other', label: 'as it was', value: before.value, dimension: before.dimension },
    ],
  },
})

/** Flow, capacity, media, and what slips past, of a fill against another. */
export const differences = (now: Outcome, before: Outcome, stock: StockClass): readonly Difference[] => [
  difference(pathFlowFigure(now), pathFlowFigure(before), true),
  difference(fillCapacityFigure(now, stock), fillCapacityFigure(before, stock), true),
  difference(jobFigure(now, 'biological'), jobFigure(before, 'biological'), true),
  difference(meetsFigure(now), meetsFigure(before), true),
  difference(unstrainedFigure(now), unstrainedFigure(before), false),
  difference(mediaHeadFigure(now), mediaHeadFigure(before), false),
]

/**
 * Changes of a fill chamber by chamber against another, and what they mend: for reading, in the order of the water.
 */
export function changesOf(
  now: Outcome,
  before: Outcome,
  findings: { readonly now: readonly OrderFinding[]; readonly before: readonly OrderFinding[] },
): readonly Sentence[] {
  const out: Sentence[] = []
  const volume = (o: Outcome, chamberId: string, mediumId: string): number =>
    o.layers
      .filter((l) => l.chamber.chamber.id === chamberId && l.placed.medium.id === mediumId)
      .reduce((sum, l) => sum + l.placed.volume, 0)
  const media = [
    ...new Map([...before.layers, ...now.layers].map((l) => [l.placed.medium.id, l.placed.medium])).values(),
  ]
  for (const { chamber } of now.topology.chambers)
    for (const m of media) {
      const [a, b] = [volume(before, chamber.id, m.id), volume(now, chamber.id, m.id)]
      if (Math.abs(a - b) < 2e-5) continue
      const f: Figure = {
        id: `moved-${chamber.id}-${m.id}`,
        label: `${m.name}, ${nameOf(chamber.name)}`,
        value: Math.abs(b - a),
        dimension: 'volume',
        provenance: 'computed',
        formula: 'this setup − the other',
        working: [put('this', 'in it now', b, 'volume'), put('other', 'as it was', a, 'volume')],
      }
      out.push([
        `${chamber.name}: `,
        inline(f, 2),
        b > a ? ` more of ${nameOf(m.name)}.` : ` less of ${nameOf(m.name)}.`,
      ])
    }
  const mended = findings.before.filter((f) => !findings.now.some((n) => n.rule.id === f.rule.id))
  for (const title of new Set(mended.map((f) => f.rule.title))) out.push([`Fixed: ${lowerFirst(title)}.`])
  const left = findings.now.filter((f) => !findings.before.some((n) => n.rule.id === f.rule.id))
  for (const title of new Set(left.map((f) => f.rule.title))) out.push([`Lost: ${lowerFirst(title)}.`])
  return out
}

/** One school’s view of a fill, and the best it would make of the body. */
export interface SchoolView {
  readonly house: HouseRule
  readonly findings: readonly OrderFinding[]
  readonly burden: number
  readonly fitted: FitResult
}

/** Findings of each of the three schools, and what its own arrangement would bring. */
export const schoolViews = (
  c: PathCase,
  outcome: Outcome,
  limits: Omit<FitLimits, 'house'>,
): readonly SchoolView[] =>
  HOUSE_RULES.map((house) => {
    const findings = auditOrder(outcome, house, limits.reaches)
    return { house, findings, burden: burden(findings), fitted: fitFill(c, { ...limits, house }) }
  })
