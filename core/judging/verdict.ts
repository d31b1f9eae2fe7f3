import { GAP_IDS, GAPS, type Gap } from './gaps'
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
import { isFirm, isMeasured, type FlowBasis } from './basis'
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
import { FILTERS, hasPump } from '../kinds'
import type { ModelRecord } from '../trials/records'

const WORDS: Readonly<Record<VerdictLevel, readonly [firm: string, looks: string]>> = {
  open: ['Not enough data for a verdict', 'Not enough data for a verdict'],
  holds: ['The claim holds', 'The claim probably holds'],
  stretched: ['The claim is optimistic', 'The claim is probably optimistic'],
  overclaimed: ['The claim is too high', 'The claim is probably too high'],
  'far-overclaimed': ['The claim is far too high', 'The claim is probably far too high'],
}
/** What else a claim could be. */
const BE: Readonly<Partial<Record<VerdictLevel, string>>> = {
  stretched: 'optimistic',
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
  if (!others.length) return words
  const be = others.flatMap((l) => BE[l] ?? []).join(' or ')
  const could = `It could ${[others.includes('holds') ? 'hold' : '', be && `be ${be}`].filter(Boolean).join(' or ')}.`
  return `${WORDS[level][1]}. ${could}`
}

/** Something not known yet and what knowing it would change. */
export interface Missing {
  readonly id: Gap
  readonly what: string
  readonly changes: string
  readonly station: 'claims' | 'bench' | 'fill' | 'tanks'
}

export interface Verdict {
  readonly level: VerdictLevel
  readonly words: string
  /** Neither its media nor a flow of its own is known: nothing is said of what it supports. */
  readonly untested: boolean
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
  // Without media and without a measured flow there is nothing to judge by.
  const level = blind && (found === 'holds' || !isMeasured(basis)) ? 'open' : found
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
  const untested = !shipped || (blind && level === 'open')
  const told = untested ? null : { overclaim, supported }
  const derived = {
    basis,
    shipped,
    proposed: could,
    ranges,
    overclaim: told?.overclaim ?? null,
    supported: told?.supported ?? null,
  }
  return {
    level,
    untested,
    words: split ? splitWords(stands) : verdictWords(level, isFirm(basis), ends),
    stands,
    split,
    borderline: ends.some((l) => l !== level),
    basis,
    flow: shipped?.flow ?? null,
    overclaim: derived.overclaim,
    supported: derived.supported,
    shipped,
    proposed: could,
    ranges: untested ? [] : ranges,
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
    ...(blind ? ['media-mass', 'fill'] : []),
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
  carried: 'measured under other conditions and converted with the pump curve',
  'computed-fit': 'calculated from the measured pump curve, the plumbing and the media',
  'computed-label':
    'calculated from the label’s curve, the plumbing and the media, allowing for usual label error',
  'supposed-run': 'for usual plumbing (assumed), at most 50 to 60 % of the label',
  'supposed-fit': 'calculated for the hoses, with a range for the unmeasured media',
  'supposed-label': 'calculated from the label’s curve, with ranges for media, filter and label',
  'measured-empty': 'measured without media; the loss through the media is a rule of thumb',
  rule: 'rule of thumb; nothing measured yet',
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
      'Label: ',
      inline(printedFigure(top)),
      '. Supported with the supplied media (normal stocking): ',
      inline(supported),
      '.',
      ...(d.overclaim ? [' The label claims ', inline(d.overclaim), ' times that.'] : []),
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
      'Air-driven: the flow depends on your air pump and the depth. ' +
        'The label’s flow holds only for the pump the maker used.',
    )
  if (shipped) flowReason(d.basis, shipped.flow, rated ? labelFigure(rated, model.mainsFrequency) : null, add)
  const apart = shipped?.calibration ? Math.abs(shipped.calibration - 1) : 0
  if (shipped?.calibration && apart > MASS_APART)
    add(
      'mass-apart',
      'caution',
      `The media weigh ${Math.round(apart * 100)} % ${shipped.calibration > 1 ? 'more' : 'less'} than their layers should. ` +
        'Weigh them again, or correct the layers.',
    )
  if (d.proposed)
    add(
      'proposed',
      'note',
      'With the recommended media it supports ',
      inline(d.proposed.supported),
      ` (normal stocking; setup “${d.proposed.fill.fill.name}”).`,
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
    return add('binding', 'against', 'No flow was measured. A blocked filter supports nothing.')
  add('binding', 'note', ...bindingSentence(c))
  const optional = (id: string, tone: Reason['tone'], sentence: Sentence | null): void => {
    if (sentence) add(id, tone, ...sentence)
  }
  optional('schools', 'note', besideSentence(c))
  optional('leverage', 'note', leverageSentence(c))
  optional('floor', 'caution', floorSentence(c))
  const could = d.proposed && { supports: d.proposed.supported }
  optional('takes', 'note', takesSentence(c, could))
}

function flowReason(basis: FlowBasis, flow: Figure, label: Figure | null, add: Add): void {
  const rest: Sentence =
    label && label.value > 0
      ? [
          ' That is ',
          inline(shareApart('off-rated', 'Flow compared with the label', flow, label)),
          ` ${flow.value < label.value ? 'below' : 'above'} the rated `,
          inline(label),
          '.',
        ]
      : []
  add(
    'flow',
    isFirm(basis) ? 'note' : 'caution',
    'Installed flow ',
    inline(flow),
    `: ${BASIS_WORDS[basis]}.`,
    ...rest,
  )
}

function labelReason(f: FlowAgainstLabel, add: Add): void {
  const met = f.grade ? `Within ISO 9906 ${f.grade.label}` : 'Outside every ISO 9906 grade'
  // What lies within a tolerance is no point against.
  const short = f.outsideUncertainty && f.difference < 0
  const tone = short ? (f.grade ? 'note' : 'against') : 'for'
  const label = labelFigure(f.claim, f.mains)
  add(
    'label',
    tone,
    'Rated flow: ',
    inline({
      ...shareApart('label-difference', 'Measured flow compared with the label', f.measured, label),
      source: 'ISO 9906:2012 acceptance grades (from memory), used as a yardstick',
    }),
    ` ${f.difference < 0 ? 'below' : 'above'} the label${f.outsideUncertainty ? '' : ', within the measurement’s uncertainty'}. Measured `,
    inline(f.measured),
    ' empty, without hoses, at zero head; label ',
    inline(label),
    f.ratio === 1 ? '' : ' (at this supply frequency)',
    `. ${met}${f.certain ? '' : ' (borderline)'}.`,
  )
}

function liftReason(main: HookupResult, add: Add): void {
  const { staticHead, hookup, duty } = main
  if (duty.blocked)
    add(
      'lift',
      'against',
      'No flow: ',
      inline(staticHeadFigure(staticHead)),
      ' of lift is above the pump’s maximum head.',
    )
  else if (staticHead.circuit === 'closed' && hookup.bodyBelowWater > 0)
    add(
      'lift',
      'note',
      'The cabinet height costs no flow. Both hoses end under water, so the ',
      inline(bodyDepthFigure(hookup)),
      ' down and up cancel out. Only friction counts.',
    )
  else if (staticHead.head > 0)
    add(
      'lift',
      'note',
      'Open return: the pump loses ',
      inline(staticHeadFigure(staticHead)),
      ' of head at every flow.',
    )
}

function missing({ model, againstLabel, known, shipped, main }: VerdictInput): readonly Missing[] {
  const has = (q: Parameters<typeof claimed>[1]): boolean => claimed(model, q) !== undefined
  const pumped = hasPump(model.kind)
  const open: Readonly<Record<Gap, boolean>> = {
    'rated-flow': !has('rated-flow'),
    'tank-max': !has('tank-max'),
    'max-head': pumped && !has('max-head'),
    hookup: pumped && !main,
    'empty-flow': pumped && !againstLabel,
    'installed-flow': shipped?.basis !== 'measured',
    'head-series': pumped && known?.from !== 'fit',
    fill: shipped?.meets.provenance === 'rule' || !shipped,
    // Foam says nothing by its weight.
    'media-mass': !FILTERS[model.kind].foamIsMedia && !model.mediaMass?.weighed,
  }
  return GAP_IDS.filter((id) => open[id]).map((id) => ({ id, ...GAPS[id] }))
}
