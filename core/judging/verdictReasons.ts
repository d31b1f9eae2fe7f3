import { inline, type Figure, type Reason, type Sentence, type Add } from '../figures'
import { stockKey, type StockClass, type SupportedRange } from '../tanks'
import {
  type ModelRecord,
  type FlowAgainstLabel,
  type KnownPump,
  type HookupResult,
  printedFigure,
  labelFigure,
  labelDisagreements,
  hasPump,
  claimed,
} from '../trials'
import { isFirm, type FlowBasis } from './basis'
import type { JudgedFill } from './fills'
import type { Stand } from './stands'
import type { VerdictLevel } from './levels'
import type { Gap } from './gaps'
import { suits } from '../teardown'
import { lowEndReasons } from './lowEnd'
import { OVERCLAIM_THRESHOLDS } from './thresholds'
import {
  type ClassCase,
  bindingSentence,
  besideSentence,
  leverageSentence,
  floorSentence,
  takesSentence,
} from './schoolReasons'
import { shareApart } from './rangeFigures'
import { staticHeadFigure, bodyDepthFigure } from './staticFigures'

/** What a verdict is made of. */
export interface VerdictInput {
  readonly model: ModelRecord
  readonly shipped: JudgedFill | null
  readonly proposed: JudgedFill | null
  readonly againstLabel: FlowAgainstLabel | null
  readonly known: KnownPump | null
  readonly main: HookupResult | null
  readonly stockClasses?: readonly StockClass[]
}

/** A verdict on a claim, with its reasons and what is missing for a better one. */
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

/** Something not known yet and what knowing it would change. */
export interface Missing {
  readonly id: Gap
  readonly what: string
  readonly changes: string
  readonly station: 'claims' | 'bench' | 'fill' | 'tanks'
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

/** The reasons of a verdict, each a sentence with its figures. */
export function verdictReasons(
  input: VerdictInput,
  classes: readonly StockClass[],
  d: Derived,
): readonly Reason[] {
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
