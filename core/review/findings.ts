import { dayText } from '../days'
import { put, inline, lowerFirst, type Figure } from '../figures'
import { printedFigure } from '../trials'
import { asUsed, SCHOOLS, stockKey, type SupportedRange } from '../tanks'
import type { SheetCell, Section } from './blocks'
import type { ReviewInput } from './input'
import { figureIn, numbers, rowsOf, table, text } from './make'

/** Grounds of a verdict. */
const BASIS: Readonly<Record<string, string>> = {
  measured: 'Based on the installed flow, measured here.',
  carried: 'Based on a flow measured under other conditions and converted.',
  'computed-fit': 'Based on flow calculated from a pump curve measured here.',
  'computed-label': 'Based on flow calculated from the label. Nothing was measured.',
  'supposed-run': 'Based on flow calculated for usual plumbing (assumed). Nothing was measured.',
  'supposed-fit': 'Based on flow calculated for the hoses; media estimated.',
  'supposed-label': 'Based on the label’s own curve. Nothing was measured.',
  'measured-empty': 'Based on flow measured without media; the rest is a rule of thumb.',
  rule: 'Based on a rule of thumb. Nothing was measured.',
  none: 'No flow is known.',
}

export function verdictSection({ assessment, chances, errata }: ReviewInput): Section {
  const { verdict } = assessment
  const { overclaim, supported } = verdict
  const sure: Figure | null =
    chances?.tooHigh == null
      ? null
      : {
          id: 'chance-too-high',
          label: `Chance that the label claims too much, by ${SCHOOLS[chances.leading].words}`,
          value: Math.min(1 - EDGE, Math.max(EDGE, chances.tooHigh)),
          dimension: 'ratio',
          unit: '%',
          provenance: 'computed',
          formula: 'share of draws',
          working: [put('n', 'draws', chances.draws, 'ratio', 'computed')],
          source: 'JCGM 101:2008',
        }
  const over = chances?.overSchools.tooHigh
  const all: Figure | null =
    sure && over != null
      ? {
          ...sure,
          id: 'chance-too-high-all',
          label: 'Chance that the label claims too much, over all sizing rules',
          value: Math.min(1 - EDGE, Math.max(EDGE, over)),
        }
      : null
  const leading = verdict.ranges.find((r) => r.stockClass === 'normal')?.leading
  const origin = leading
    ? text('whole', [
        `Sizing rule ${SCHOOLS[leading].words}: used by ${SCHOOLS[leading].origin.who}. Based on ${SCHOOLS[leading].origin.rests}. Interest: ${SCHOOLS[leading].origin.interest}.`,
      ])
    : []
  const ruled = leading ? ` Sizing rule: ${SCHOOLS[leading].words}.` : ''
  return {
    id: 'verdict',
    title: 'Verdict',
    blocks: [
      ...text(
        'card',
        [
          `${verdict.words.replace(/\.$/, '')}.`,
          ...(overclaim ? [' Label ÷ supported: ', inline(overclaim), '.'] : []),
        ],
        tone(verdict.level),
      ),
      ...numbers('card', supported, verdict.flow),
      ...text('page', [`${BASIS[verdict.basis] ?? ''}${ruled}`.trim()]),
      ...(sure
        ? text('page', [
            edge(chances?.tooHigh ?? 0),
            inline(sure),
            ` sure that the label claims too much (normal stocking), if ${SCHOOLS[chances?.leading ?? 'media-mass'].words} is right`,
            ...(all && chances && chances.schools.length > 1
              ? [`; ${edge(over ?? 0).toLowerCase()}`, inline(all), ' over all sizing rules']
              : []),
            '.',
          ])
        : []),
      ...origin,
      ...errata.flatMap((e) =>
        text('card', [`Provisional: ${e.about}, found ${dayText(e.on)}: ${e.text}.`], 'caution'),
      ),
      ...verdict.reasons.flatMap((r) => text('whole', r.sentence, r.tone)),
      ...(verdict.missing.length
        ? text('whole', [`Not measured: ${verdict.missing.map((m) => lowerFirst(m.what)).join('; ')}.`])
        : []),
    ],
  }
}

/** Draws do not tell a chance from certain or from none. */
const EDGE = 0.01
const edge = (chance: number): string => {
  if (chance > 1 - EDGE) return 'Over '
  return chance < EDGE ? 'Under ' : ''
}

const tone = (level: string): 'for' | 'against' | 'note' => {
  if (level === 'holds') return 'for'
  return level === 'open' ? 'note' : 'against'
}

export function tanksSection({ assessment, stock }: ReviewInput): Section {
  const { ranges, claimedRange } = assessment.verdict
  const litres = (
    id: string,
    label: string,
    value: number,
    interval?: readonly [number, number],
  ): Figure => ({
    id,
    label,
    value,
    dimension: 'volume',
    provenance: 'rule',
    ...(interval && asUsed(value, interval)),
  })
  const row = (r: SupportedRange): readonly SheetCell[] => {
    const label = stock.find((s) => stockKey(s) === r.stockClass)?.label ?? r.stockClass
    return [
      label,
      r.min > 0
        ? litres(`smallest-${r.stockClass}`, `Smallest tank, ${label.toLowerCase()}`, r.min, r.minInterval)
        : 'any',
      litres(`largest-${r.stockClass}`, `Largest tank, ${label.toLowerCase()}`, r.max, r.maxInterval),
      r.lowAboveTop
        ? 'current too strong for so small a tank; turn the outlet to the glass or use a spray bar'
        : `limit: ${SCHOOLS[r.binding].limit}`,
    ]
  }
  const printed = [
    claimedRange.min === null
      ? null
      : { ...litres('claimed-min', 'Label, from', claimedRange.min), provenance: 'printed' as const },
    claimedRange.max === null
      ? null
      : { ...litres('claimed-max', 'Label, to', claimedRange.max), provenance: 'printed' as const },
  ]
  return {
    id: 'tanks',
    title: 'Tanks it supports',
    blocks: [
      ...numbers('page', ...printed),
      ...table('page', ['Stocking', 'From', 'To', 'Limit'], ranges.map(row)),
    ],
  }
}

export function claimsSection(input: ReviewInput): Section {
  const of = rowsOf(input)
  const { assessment } = input
  // Found here is what was measured here: no watts of a label, no flow that was computed.
  const measured = (cell: SheetCell): SheetCell => (figureIn(cell)?.provenance === 'measured' ? cell : null)
  const printed = (q: 'power' | 'noise'): Figure | null => {
    const c = input.claims.find((x) => x.quantity === q)
    return c ? printedFigure(c) : null
  }
  const rows: readonly (readonly SheetCell[])[] = [
    ['Rated flow (empty, no hoses)', of('rated'), of('bare')],
    ['Installed flow', of('rated'), measured(of('flow'))],
    ['Maximum head', of('max-head'), of('shut-off')],
    ['Bio media', of('claimed-media'), of('litres')],
    ['Power', printed('power'), measured(of('watts'))],
    ['Sound level', printed('noise'), measured(of('noise'))],
  ]
  // What was neither measured nor printed twice over says nothing.
  const told = rows.filter(([, claim, finding]) => claim !== null && finding !== null)
  return {
    id: 'claims',
    title: 'Label and tests',
    blocks: [
      ...table('page', ['', 'Label', 'Measured here'], told),
      ...table(
        'whole',
        ['', 'Label', 'Measured here'],
        rows
          .filter((r) => !told.includes(r))
          .map(([what, claim, finding]) => [
            what ?? '',
            claim ?? 'not on the label',
            finding ?? 'not measured',
          ]),
      ),
      ...assessment.disagreements.flatMap((s) => text('whole', s, 'caution')),
    ],
  }
}

export function flowSection({ assessment }: ReviewInput): Section {
  const { thumb, computed, measured } = assessment.answers
  const { flow } = assessment.verdict
  return {
    id: 'flow',
    title: 'Installed flow',
    blocks: [
      ...(flow
        ? text('page', [inline(flow), flow.conditions?.length ? `: ${flow.conditions.join('; ')}.` : '.'])
        : []),
      ...table(
        'whole',
        ['By', 'Flow'],
        [
          ['the rule of thumb', thumb],
          ['calculation from hose, lift and media', computed],
          ['measurement', measured],
        ],
      ),
      ...assessment.findings
        .filter((f) => f.trial.kind !== 'power' && f.trial.kind !== 'noise')
        .flatMap((f) => numbers('whole', ...f.figures)),
    ],
  }
}
