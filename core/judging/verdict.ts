import { GAP_IDS, GAPS, type Gap } from './gaps'
import { capacityFigure, capacityInput, isBlind, STOCK_CLASSES, supportedRange } from '../tanks'
import { isFirm, isMeasured } from './basis'
import { claimed } from '../trials/labels'
import { levelOf, type VerdictLevel } from './levels'
import { isSplit, splitWords, standsOf } from './stands'
import { overclaimFigure } from './rangeFigures'
import { FILTERS, hasPump } from '../kinds'
import { type Missing, type Verdict, type VerdictInput, verdictReasons } from './verdictReasons'

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
    reasons: verdictReasons(input, stockClasses, derived),
    missing: byEffect(missing(input), blind || !shipped),
  }
}

/**
 * Gaps of the record, by what they would change: where nothing is known of the media, the label and the media come
 * first, in the order of the next step (`progress.ts`); then what the
 * claim is held to, then the flow, then the rest.
 */
function byEffect(list: readonly Missing[], blind: boolean): readonly Missing[] {
  const order = [
    ...(blind ? ['rated-flow', 'tank-max', 'media-mass', 'fill'] : []),
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
