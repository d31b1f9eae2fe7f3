import { suits } from '../teardown/placing'
import { inline, type Figure, type Sentence } from '../figures'
import {
  capacityFigure,
  capacityInput,
  isBlind,
  STOCK_CLASSES,
  stockKey,
  supportedRange,
  type StockClass,
  type SupportedRange,
} from '../tanks'
import { isFirm, type FlowBasis } from './basis'
import type { JudgedFill } from './fills'
import type { FlowAgainstLabel } from '../trials/flows'
import type { HookupResult, KnownPump } from '../trials/modelPump'
import { claimed, labelDisagreements, labelFigure } from '../trials/labels'
import { printedFigure } from '../trials/printed'
import { OVERCLAIM_THRESHOLDS } from './thresholds'
import { levelOf, type VerdictLevel } from './levels'
import { isSplit, splitWords, standsOf, type Stand } from './stands'
import { lowEndReasons } from './lowEnd'
import type { Add, Reason } from '../figures/reason'
import { overclaimFigure, shareApart } from './rangeFigures'
import {
  besideSentence,
  bindingSentence,
  floorSentence,
  leverageSentence,
  takesSentence,
  type ClassCase,
} from './schoolReasons'
import { bodyDepthFigure, staticHeadFigure } from './staticFigures'
import { hasPump } from '../kinds'
import type { ModelRecord } from '../trials/records'

const WORDS: Readonly<Record<VerdictLevel, readonly [firm: string, looks: string]>> = {
  open: ['Not enough is known to judge the claim', 'Not enough is known to judge the claim'],
  holds: ['The claim holds', 'The claim looks as if it holds'],
  stretched: ['The claim is stretched', 'The claim looks stretched'],
  overclaimed: ['The claim is too high', 'The claim looks too high'],
  'far-overclaimed': ['The claim is far too high', 'The claim looks far too high'],
}
const SHORT: Readonly<Record<VerdictLevel, string>> = {
  open: 'unknown',
  holds: 'holding',
  stretched: 'stretched',
  overclaimed: 'too high',
  'far-overclaimed': 'far too high',
}

/**
 * The words of a verdict: by its level, hedged where its flow is not a finding, and said to be borderline where its
 * interval reaches into another level.
 */
export function verdictWords(level: VerdictLevel, firm: boolean, reaches: readonly VerdictLevel[]): string {
  const words = WORDS[level][firm ? 0 : 1]
  const others = [...new Set(reaches)].filter((l) => l !== level)
  return others.length
    ? `${words}: borderline, its interval reaches ${others.map((l) => SHORT[l]).join(' and ')}`
    : words
}

/** Something not known yet and what knowing it would change. */
export interface Missing {
  readonly id: string
  readonly what: string
  readonly changes: string
  readonly station: 'claims' | 'bench' | 'fill' | 'tanks'
}

export interface Verdict {
  readonly level: VerdictLevel
  readonly words: string
  /** How each school that judges stands to the claim, the leading one first; and do they disagree? */
  readonly stands: readonly Stand[]
  readonly split: boolean
  /** The supported maximum's interval reaches across a threshold. */
  readonly borderline: boolean
  readonly basis: FlowBasis
  readonly flow: Figure | null
  readonly overclaim: Figure | null
  /** The largest normally stocked tank it carries as shipped, with its working. */
  readonly supported: Figure | null
  /** The fill that was judged: as it ships. */
  readonly shipped: JudgedFill | null
  /** The verdict with the proposed fill, normally stocked; a claim is not held to it. */
  readonly proposed: { readonly fill: JudgedFill; readonly supported: Figure } | null
  readonly ranges: readonly SupportedRange[]
  readonly claimedRange: { readonly min: number | null; readonly max: number | null }
  readonly reasons: readonly Reason[]
  readonly missing: readonly Missing[]
}

export interface VerdictInput {
  readonly model: ModelRecord
  readonly shipped: JudgedFill | null
  readonly proposed: JudgedFill | null
  readonly againstLabel: FlowAgainstLabel | null
  readonly known: KnownPump | null
  readonly main: HookupResult | null
  readonly stockClasses?: readonly StockClass[]
}

/**
 * Judges the claimed tank range as shipped: supported range for each stock class, the overclaim ratio, reasons with
 * numbers, and what is missing. Wording follows from {@link OVERCLAIM_THRESHOLDS}, the basis of the flow and the
 * interval.
 */
export function verdict(input: VerdictInput): Verdict {
  const { model, shipped, proposed, stockClasses = STOCK_CLASSES } = input
  const claimedMax = claimed(model, 'tank-max')?.value ?? null
  const claimedMin = claimed(model, 'tank-min')?.value ?? null
  const basis = shipped?.basis ?? 'none'
  const ranges = shipped
    ? stockClasses.map((stock) => supportedRange(capacityInput(shipped, claimedMax), stock))
    : []
  const normal = ranges.find((r) => r.stockClass === 'normal')
  const normalClass = stockClasses.find((c) => c.code === 'normal')
  const supported = shipped && normalClass ? capacityFigure(shipped, normalClass, claimedMax) : null
  const comparable = claimedMax !== null && claimedMax > 0 && supported !== null
  const overclaim = comparable && supported.value > 0 ? overclaimFigure(claimedMax, supported) : null
  const nothing = comparable && supported.value === 0
  // A school that knows nothing of the media can say that a claim is too high, never that it holds.
  const blind = normal !== undefined && isBlind(normal.leading)
  const found = nothing ? 'far-overclaimed' : levelOf(overclaim?.value ?? null)
  const level = blind && found === 'holds' ? 'open' : found
  const ends =
    overclaim && normal && level !== 'open'
      ? normal.maxInterval.map((m) => (m > 0 ? levelOf((claimedMax ?? 0) / m) : 'far-overclaimed'))
      : []
  const stands = comparable && normal && shipped?.flow.value ? standsOf(normal.schools, claimedMax) : []
  const split = level !== 'open' && isSplit(stands)
  const could =
    // Of a fill nobody laid in only the flow is known: what it could carry is not.
    proposed?.mass && normalClass
      ? { fill: proposed, supported: capacityFigure(proposed, normalClass, claimedMax) }
      : null
  const derived = { basis, shipped, proposed: could, ranges, overclaim, supported }
  return {
    level,
    words: split ? splitWords(stands) : verdictWords(level, isFirm(basis), ends),
    stands,
    split,
    borderline: ends.some((l) => l !== level),
    basis,
    flow: shipped?.flow ?? null,
    overclaim,
    supported,
    shipped,
    proposed: could,
    ranges,
    claimedRange: { min: claimedMin, max: claimedMax },
    reasons: reasons(input, stockClasses, derived),
    missing: byEffect(missing(input), blind || !shipped),
  }
}

/**
 * Gaps of the record, by what they would change: where nothing is known of the media that comes first; then what the
 * claim is held to, then the flow, then the rest.
 */
function byEffect(list: readonly Missing[], blind: boolean): readonly Missing[] {
  const order = [
    ...(blind ? ['fill', 'media-mass'] : []),
    'tank-max',
    'installed-flow',
    'fill',
    'media-mass',
    'hookup',
    'rated-flow',
    'empty-flow',
    'max-head',
    'head-series',
  ]
  return [...list].sort((a, b) => order.indexOf(a.id) - order.indexOf(b.id))
}

interface Derived {
  readonly supported: Figure | null
  readonly basis: FlowBasis
  readonly shipped: JudgedFill | null
  readonly proposed: Verdict['proposed']
  readonly ranges: readonly SupportedRange[]
  readonly overclaim: Figure | null
}

/** Weighed and computed media further apart than this are a mistake in one of them (common practice, no source). */
const MASS_APART = 0.3

const BASIS_WORDS: Readonly<Record<FlowBasis, string>> = {
  measured: 'measured as installed',
  carried: 'measured under other conditions and carried to how it stands over the pump’s curve',
  'computed-fit': 'computed from the bench’s pump curve, the hookup and the fill',
  'computed-label': 'computed from the label’s curve, the hookup and the fill, with what labels are wrong by',
  'supposed-run':
    'over the usual plumbing of its kind, because none is on record; kept within the label less 40 to 50 %',
  'supposed-fit': 'computed for the hoses, with a band for media and body that nobody has measured',
  'supposed-label': 'computed from the label’s curve for the hoses, with bands for media, body and label',
  'measured-empty': 'measured without its media, with a band for what is still to come off',
  rule: 'by the rule of thumb, nothing measured yet',
  none: '',
}

function reasons(input: VerdictInput, classes: readonly StockClass[], d: Derived): readonly Reason[] {
  const out: Reason[] = []
  const add = (id: string, tone: Reason['tone'], ...sentence: Sentence): void =>
    void out.push({ id, tone, sentence })
  const { model } = input
  const rated = claimed(model, 'rated-flow')
  const top = claimed(model, 'tank-max')
  const normalClass = classes.find((c) => c.code === 'normal')
  const { supported, shipped } = d
  if (top && supported) {
    const over = d.overclaim && d.overclaim.value > OVERCLAIM_THRESHOLDS.holds
    add(
      'overclaim',
      over || !d.overclaim ? 'against' : 'for',
      'The label claims tanks up to ',
      inline(printedFigure(top)),
      '; as shipped a normally stocked one is supported up to ',
      inline(supported),
      ...(d.overclaim ? [': the claim is ', inline(d.overclaim), ' times that.'] : ['.']),
    )
  }
  const normal = d.ranges.find((r) => normalClass && r.stockClass === stockKey(normalClass))
  if (shipped && normalClass && normal) {
    const claimedMax = top?.value ?? null
    capacityReasons({ of: shipped, range: normal, stock: normalClass, claimedMax }, d, add)
  }
  if (!hasPump(model.kind))
    add(
      'air',
      'note',
      'Driven by air: what it moves belongs to the air pump, its depth and the fitting. The flow on its label holds for ' +
        'the pump it was tried with, and no grade or share of it says anything.',
    )
  if (shipped) flowReason(d.basis, shipped.flow, rated ? labelFigure(rated, model.mainsFrequency) : null, add)
  const apart = shipped?.calibration ? Math.abs(shipped.calibration - 1) : 0
  if (shipped?.calibration && apart > MASS_APART)
    add(
      'mass-apart',
      'caution',
      `The media as weighed are ${Math.round(apart * 100)} % ${shipped.calibration > 1 ? 'more' : 'less'} than the fill on record holds: ` +
        'weigh them again, or correct the layers.',
    )
  if (d.proposed)
    add(
      'proposed',
      'note',
      `With “${d.proposed.fill.fill.name}” in it, it could carry `,
      inline(d.proposed.supported),
      ' normally stocked.',
    )
  for (const { id, sentence } of labelDisagreements(model)) out.push({ id, tone: 'caution', sentence })
  if (input.againstLabel) labelReason(input.againstLabel, add)
  lowEndReasons({ model, shipped, ranges: d.ranges }, classes, add)
  if (input.main) liftReason(input.main, add)
  const hands = model.parts?.length ? suits(model.parts) : null
  if (hands && hands.level !== 'unknown') out.push(hands.reason)
  return out
}

/** The binding school, what the others say and why they differ, and what would make the claim true. */
function capacityReasons(c: ClassCase, d: Derived, add: Add): void {
  if (c.of.flow.value === 0)
    return add(
      'binding',
      'against',
      'No water comes through as it was measured: a blocked filter carries nothing.',
    )
  add('binding', 'note', ...bindingSentence(c))
  const optional = (id: string, tone: Reason['tone'], sentence: Sentence | null): void => {
    if (sentence) add(id, tone, ...sentence)
  }
  optional('schools', 'note', besideSentence(c))
  optional('leverage', 'note', leverageSentence(c))
  optional('floor', 'caution', floorSentence(c))
  const could = d.proposed && { name: d.proposed.fill.fill.name, carries: d.proposed.supported }
  optional('takes', 'note', takesSentence(c, could))
}

function flowReason(basis: FlowBasis, flow: Figure, label: Figure | null, add: Add): void {
  const rest: Sentence =
    label && label.value > 0
      ? [
          '; ',
          inline(shareApart('off-rated', 'Flow against the rated flow', flow, label)),
          ` ${flow.value < label.value ? 'below' : 'above'} the rated `,
          inline(label),
        ]
      : []
  add(
    'flow',
    isFirm(basis) ? 'note' : 'caution',
    'Flow: ',
    inline(flow),
    `, ${BASIS_WORDS[basis]}`,
    ...rest,
    '.',
  )
}

function labelReason(f: FlowAgainstLabel, add: Add): void {
  const words = f.outsideUncertainty
    ? 'more than the measurement’s uncertainty'
    : 'no more than the measurement’s uncertainty'
  const met = f.grade ? `within ISO 9906 ${f.grade.label}` : 'outside every ISO 9906 grade'
  const label = labelFigure(f.claim, f.mains)
  add(
    'label',
    f.outsideUncertainty && f.difference < 0 ? 'against' : 'for',
    'Bare and empty at no lift, as labels are rated: ',
    inline(f.measured),
    ' against ',
    inline(label),
    f.ratio === 1 ? '' : ' (label brought to this mains frequency)',
    ', ',
    inline({
      ...shareApart('label-difference', 'Bench against label', f.measured, label),
      source: 'ISO 9906:2012 acceptance grades (from memory), used as a yardstick',
    }),
    ` ${f.difference < 0 ? 'short' : 'over'}, ${words}; ${met}${f.certain ? '' : ', though the interval reaches past that limit'}.`,
  )
}

function liftReason(main: HookupResult, add: Add): void {
  const { staticHead, hookup, duty } = main
  if (duty.blocked)
    add(
      'lift',
      'against',
      'The lift of ',
      inline(staticHeadFigure(staticHead)),
      ' is more than the pump can reach: no flow.',
    )
  else if (staticHead.circuit === 'closed' && hookup.bodyBelowWater > 0)
    add(
      'lift',
      'note',
      'The ',
      inline(bodyDepthFigure(hookup)),
      ' down to the body cost nothing: both ends are under water, so the falling side pays for the rising one. Only friction counts.',
    )
  else if (staticHead.head > 0)
    add(
      'lift',
      'note',
      'The circuit is open: ',
      inline(staticHeadFigure(staticHead)),
      ' of lift comes off the pump’s head at every flow.',
    )
}

function missing({ model, againstLabel, known, shipped, main }: VerdictInput): readonly Missing[] {
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
  need(hasPump(model.kind) && !againstLabel, {
    id: 'empty-flow',
    station: 'bench',
    what: 'Flow bare, empty and at no lift',
    changes: 'It is the only fair comparison with the rated flow.',
  })
  need(shipped?.basis !== 'measured', {
    id: 'installed-flow',
    station: 'bench',
    what: 'Flow as installed, with the media it ships with',
    changes: 'The verdict then rests on a measured flow, with its own interval.',
  })
  need(hasPump(model.kind) && known?.from !== 'fit', {
    id: 'head-series',
    station: 'bench',
    what: 'Flow at three or more lifts',
    changes: 'The pump curve would be measured in place of the label’s assumed one.',
  })
  need(shipped?.meets.provenance === 'rule' || !shipped, {
    id: 'fill',
    station: 'fill',
    what: 'What it ships with, layer by layer',
    changes:
      'How much of the water meets the media, and what the media are worth, is taken on trust without it.',
  })
  need(model.mediaMass === null || !model.mediaMass.weighed, {
    id: 'media-mass',
    station: 'claims',
    what: 'Mass of biological media, weighed',
    changes: 'The rule of mass leads the verdict; weighed, they calibrate the fill.',
  })
  return out
}
