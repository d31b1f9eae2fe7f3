import { put, sayFigure, type Figure, type Sentence } from '../figures'
import { STOCK_CLASSES, supportedRange, type StockClass, type SupportedRange } from '../tanks'
import type { FlowAgainstLabel, TrialResult } from './flows'
import type { HookupResult, KnownPump } from './hydraulics'
import {
  limitFigure,
  overclaimFigure,
  printedFigure,
  shareApart,
  smallestFigure,
  turnoverFigure,
} from './rangeFigures'
import { bodyDepthFigure, staticHeadFigure } from './staticFigures'
import { hasPump } from '../kinds'
import { claimed, type ModelRecord } from './records'

/** Fixed thresholds of the overclaim ratio (claimed maximum / supported maximum for a normal tank). */
export const OVERCLAIM_THRESHOLDS = { holds: 1.1, stretched: 1.5, overclaimed: 2.5 } as const

export type VerdictLevel = 'open' | 'holds' | 'stretched' | 'overclaimed' | 'far-overclaimed'

export const VERDICT_WORDS: Readonly<Record<VerdictLevel, string>> = {
  open: 'Not enough is known to judge the claim',
  holds: 'The claim holds',
  stretched: 'The claim is stretched',
  overclaimed: 'The claim is too high',
  'far-overclaimed': 'The claim is far too high',
}

/** One reason of a verdict: a sentence with its numbers, and whether it speaks for, against or warns. */
export interface Reason {
  readonly id: string
  readonly tone: 'for' | 'against' | 'caution' | 'note'
  readonly sentence: Sentence
}

/** Something not known yet and what knowing it would change. */
export interface Missing {
  readonly id: string
  readonly what: string
  readonly changes: string
  readonly station: 'claims' | 'bench' | 'tanks'
}

/** What the flow under the verdict rests on. */
export type FlowBasis = 'measured' | 'measured-bare' | 'computed-fit' | 'computed-label' | 'rule' | 'none'

export interface Verdict {
  readonly level: VerdictLevel
  readonly words: string
  /** The supported maximum's interval reaches across a threshold. */
  readonly borderline: boolean
  readonly basis: FlowBasis
  readonly flow: Figure | null
  readonly overclaim: number | null
  /** The largest normally stocked tank it carries, with its working. */
  readonly supported: Figure | null
  readonly ranges: readonly SupportedRange[]
  readonly claimedRange: { readonly min: number | null; readonly max: number | null }
  readonly reasons: readonly Reason[]
  readonly missing: readonly Missing[]
}

export function levelOf(ratio: number | null): VerdictLevel {
  if (ratio === null) return 'open'
  if (ratio <= OVERCLAIM_THRESHOLDS.holds) return 'holds'
  if (ratio <= OVERCLAIM_THRESHOLDS.stretched) return 'stretched'
  return ratio <= OVERCLAIM_THRESHOLDS.overclaimed ? 'overclaimed' : 'far-overclaimed'
}

export interface VerdictInput {
  readonly model: ModelRecord
  readonly installed: TrialResult | null
  /** The largest flow measured at no lift, for when none was measured as installed. */
  readonly best: TrialResult | null
  readonly againstLabel: FlowAgainstLabel | null
  readonly known: KnownPump | null
  readonly main: HookupResult | null
  readonly thumb: Figure | null
  readonly stockClasses?: readonly StockClass[]
}

/** The flow a verdict may rest on, best first: measured as installed, computed, measured bare, the rule of thumb. */
function basisOf({ installed, best, main, known, thumb }: VerdictInput): {
  basis: FlowBasis
  flow: Figure | null
} {
  if (installed) return { basis: 'measured', flow: installed.figure }
  if (main && !main.duty.blocked)
    return { basis: known?.from === 'fit' ? 'computed-fit' : 'computed-label', flow: main.computed }
  if (best) return { basis: 'measured-bare', flow: best.figure }
  return thumb ? { basis: 'rule', flow: thumb } : { basis: 'none', flow: null }
}

/**
 * Judges the claimed tank range: supported range for each stock class at the flow the bench supports, the overclaim
 * ratio, reasons with numbers, and what is missing. Wording follows from {@link OVERCLAIM_THRESHOLDS} alone.
 */
export function verdict(input: VerdictInput): Verdict {
  const { model, stockClasses = STOCK_CLASSES } = input
  const { basis, flow } = basisOf(input)
  const claimedMax = claimed(model, 'tank-max')?.value ?? null
  const claimedMin = claimed(model, 'tank-min')?.value ?? null
  const ranges =
    flow && flow.value > 0
      ? stockClasses.map((stock) =>
          supportedRange(
            {
              flow: flow.value,
              ...(flow.uncertainty !== undefined && { flowUncertainty: flow.uncertainty }),
              ...(model.mediaMass !== null && { mediaMass: model.mediaMass }),
              ...(claimedMax !== null && { claimedMax }),
            },
            stock,
          ),
        )
      : []
  const normal = ranges.find((r) => r.stockClass === 'normal')
  const overclaim = claimedMax !== null && normal ? claimedMax / normal.max : null
  const normalClass = stockClasses.find((c) => c.id === 'normal')
  const binding = normal?.limits.find((l) => l.binding)
  const supported =
    binding && normalClass && flow
      ? limitFigure(binding, normalClass, { flow, mediaMass: model.mediaMass, claimedMax })
      : null
  const level = levelOf(overclaim)
  const ends =
    claimedMax !== null && normal?.maxInterval ? normal.maxInterval.map((m) => levelOf(claimedMax / m)) : []
  return {
    level,
    words: VERDICT_WORDS[level],
    borderline: ends.some((l) => l !== level),
    basis,
    flow,
    overclaim,
    supported,
    ranges,
    claimedRange: { min: claimedMin, max: claimedMax },
    reasons: reasons(input, stockClasses, { basis, flow, ranges, overclaim, supported }),
    missing: missing(input),
  }
}

interface Derived {
  readonly supported: Figure | null
  readonly basis: FlowBasis
  readonly flow: Figure | null
  readonly ranges: readonly SupportedRange[]
  readonly overclaim: number | null
}

const BASIS_WORDS: Readonly<Record<FlowBasis, string>> = {
  measured: 'measured as installed',
  'measured-bare': 'measured bare: the most it can do, less once loaded and on its hoses',
  'computed-fit': 'computed from the bench’s pump curve and the hookup',
  'computed-label': 'computed from the label’s curve and the hookup, nothing measured yet',
  rule: 'by the rule of thumb, nothing measured yet',
  none: '',
}

function reasons(input: VerdictInput, classes: readonly StockClass[], d: Derived): readonly Reason[] {
  const out: Reason[] = []
  const add = (id: string, tone: Reason['tone'], ...sentence: Sentence): void =>
    void out.push({ id, tone, sentence })
  const rated = claimed(input.model, 'rated-flow')
  const top = claimed(input.model, 'tank-max')
  const normal = d.ranges.find((r) => r.stockClass === 'normal')
  const normalClass = classes.find((c) => c.id === 'normal')
  const { supported } = d
  if (top && supported && d.overclaim !== null)
    add(
      'overclaim',
      d.overclaim > OVERCLAIM_THRESHOLDS.holds ? 'against' : 'for',
      'The label claims tanks up to ',
      sayFigure(printedFigure(top)),
      '; a normally stocked one is supported up to ',
      sayFigure(supported),
      ': the claim is ',
      sayFigure(overclaimFigure(top.value, supported.value)),
      ' times that.',
    )
  if (supported && normalClass && d.flow && normal?.binding === 'turnover')
    add(
      'binding',
      'note',
      'What binds at the top is turnover: ',
      sayFigure(d.flow),
      ` gives the ${normalClass.minTurnover} turnovers an hour of a normal tank up to `,
      sayFigure(supported),
      '.',
    )
  if (supported && normal?.binding === 'media-mass' && normalClass)
    add(
      'binding',
      'note',
      'What binds at the top is media: ',
      sayFigure(mediaFigure(input.model.mediaMass ?? 0)),
      ' carry ',
      sayFigure(supported),
      ` normally stocked, at ${normalClass.litresPerKilogram} L per kg.`,
    )
  if (d.flow) {
    const empty = d.basis === 'measured' && input.installed?.trial.state === 'empty'
    const words = empty
      ? 'measured on its hoses but empty, so media will take some of it'
      : BASIS_WORDS[d.basis]
    const label = rated && printedFigure(rated)
    const rest: Sentence = label
      ? [
          '; ',
          sayFigure(shareApart('off-rated', 'Flow against the rated flow', d.flow, label)),
          ` ${d.flow.value < label.value ? 'below' : 'above'} the rated `,
          sayFigure(label),
        ]
      : []
    add(
      'flow',
      d.basis === 'measured' && !empty ? 'note' : 'caution',
      'Flow: ',
      sayFigure(d.flow),
      `, ${words}`,
      ...rest,
      '.',
    )
  }
  if (input.againstLabel) labelReason(input.againstLabel, add)
  lowEnd(input, d, classes, add)
  if (input.main) liftReason(input.main, add)
  return out
}

type Add = (id: string, tone: Reason['tone'], ...sentence: Sentence) => void

const mediaFigure = (mass: number): Figure => ({
  id: 'media-mass',
  label: 'Biological media',
  value: mass,
  dimension: 'mass',
  provenance: 'measured',
  conditions: ['weighed in the fill'],
})

/** The rated flow brought to the bench's mains frequency: a small pump turns in step with the mains. */
export const labelAtMains = (f: FlowAgainstLabel): Figure => ({
  id: 'label-at-mains',
  label: f.ratio === 1 ? 'Rated flow' : 'Rated flow at this mains frequency',
  value: f.labelAtMains,
  dimension: 'flow',
  provenance: f.ratio === 1 ? 'printed' : 'computed',
  ...(f.ratio !== 1 && {
    formula: 'Q₂ = Q₁ · f₂/f₁',
    working: [
      put('Q₁', 'rated flow', f.label, 'flow', 'printed'),
      put('f₂/f₁', 'mains here ÷ mains on the label', f.ratio),
    ],
    source: 'affinity laws of centrifugal pumps',
  }),
})

function labelReason(f: FlowAgainstLabel, add: Add): void {
  const words = f.outsideUncertainty
    ? 'more than the measurement’s uncertainty'
    : 'no more than the measurement’s uncertainty'
  const met = f.grade ? `within ISO 9906 ${f.grade.label}` : 'outside every ISO 9906 grade'
  const label = labelAtMains(f)
  add(
    'label',
    f.outsideUncertainty && f.difference < 0 ? 'against' : 'for',
    'Bare and empty at no lift, as labels are rated: ',
    sayFigure(f.measured),
    ' against ',
    sayFigure(label),
    f.ratio === 1 ? '' : ' (label brought to this mains frequency)',
    ', ',
    sayFigure({
      ...shareApart('label-difference', 'Bench against label', f.measured, label),
      source: 'ISO 9906:2012 acceptance grades (from memory), used as a yardstick',
    }),
    ` ${f.difference < 0 ? 'short' : 'over'}, ${words}; ${met}${f.certain ? '' : ', though the interval reaches past that limit'}.`,
  )
}

function lowEnd(input: VerdictInput, d: Derived, classes: readonly StockClass[], add: Add): void {
  const light = d.ranges.find((r) => r.stockClass === 'light')
  const stock = classes.find((c) => c.id === 'light')
  const smallest = claimed(input.model, 'tank-min')
  if (!light || !stock || !d.flow || !smallest) return
  const claim = sayFigure(printedFigure(smallest))
  const times = sayFigure(turnoverFigure(d.flow, smallest.value, 'smallest tank claimed'))
  if (smallest.value < light.min * 0.95)
    add(
      'low-end',
      'against',
      'Too strong at the low end: in the smallest claimed tank, ',
      claim,
      ', the water turns over ',
      times,
      ` times an hour; gentle tanks want no more than ${stock.maxTurnover}, which starts at `,
      sayFigure(smallestFigure(stock, d.flow)),
      '.',
    )
  else
    add(
      'low-end',
      'for',
      'Gentle enough at the low end: ',
      claim,
      ' turns over ',
      times,
      ` times an hour, and up to ${stock.maxTurnover} suits a light, planted tank.`,
    )
}

function liftReason(main: HookupResult, add: Add): void {
  const { staticHead, hookup, duty } = main
  if (duty.blocked)
    add(
      'lift',
      'against',
      'The lift of ',
      sayFigure(staticHeadFigure(staticHead)),
      ' is more than the pump can reach: no flow.',
    )
  else if (staticHead.circuit === 'closed' && hookup.bodyBelowWater > 0)
    add(
      'lift',
      'note',
      'The ',
      sayFigure(bodyDepthFigure(hookup)),
      ' down to the body cost nothing: both ends are under water, so the falling side pays for the rising one. Only friction counts.',
    )
  else if (staticHead.head > 0)
    add(
      'lift',
      'note',
      'The circuit is open: ',
      sayFigure(staticHeadFigure(staticHead)),
      ' of lift comes off the pump’s head at every flow.',
    )
}

function missing({ model, againstLabel, known, installed, main }: VerdictInput): readonly Missing[] {
  const out: Missing[] = []
  const need = (test: boolean, m: Missing): void => void (test && out.push(m))
  const has = (q: Parameters<typeof claimed>[1]): boolean => claimed(model, q) !== undefined
  need(!has('rated-flow'), {
    id: 'rated-flow',
    station: 'claims',
    what: 'Rated flow',
    changes: 'Nothing can be held against the label without it.',
  })
  need(!has('tank-max'), {
    id: 'tank-max',
    station: 'claims',
    what: 'Claimed largest tank',
    changes: 'The claim itself cannot be judged.',
  })
  need(hasPump(model.kind) && !has('max-head'), {
    id: 'max-head',
    station: 'claims',
    what: 'Maximum head',
    changes: 'Without it there is no label curve, so no computed flow.',
  })
  need(hasPump(model.kind) && !main, {
    id: 'hookup',
    station: 'bench',
    what: 'A hookup (hoses, fittings, heights)',
    changes: 'Flow cannot be computed, and a measured one belongs to no circuit.',
  })
  need(!againstLabel, {
    id: 'empty-flow',
    station: 'bench',
    what: 'Flow bare, empty and at no lift',
    changes: 'It is the only fair comparison with the rated flow.',
  })
  need(!installed, {
    id: 'installed-flow',
    station: 'bench',
    what: 'Flow as installed',
    changes: 'The verdict then rests on a measured flow, with its own interval.',
  })
  need(installed !== null && installed.trial.state === 'empty', {
    id: 'loaded-flow',
    station: 'bench',
    what: 'Flow with media in',
    changes: 'Media take head: the installed flow will be lower than this empty one.',
  })
  need(hasPump(model.kind) && known?.from !== 'fit', {
    id: 'head-series',
    station: 'bench',
    what: 'Flow at three or more lifts',
    changes: 'The pump curve would be measured in place of the label’s assumed one.',
  })
  need(model.mediaMass === null, {
    id: 'media-mass',
    station: 'bench',
    what: 'Mass of biological media',
    changes: 'Media may bind before turnover does and lower the supported maximum.',
  })
  return out
}
