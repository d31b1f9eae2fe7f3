import { usualTank } from '../biology'
import { lowerFirst, put, sayFigure, type Figure, type Sentence } from '../figures'
import type { StockClass, SupportedRange } from '../tanks'
import { claimed } from './labels'
import { printedFigure } from './printed'
import { smallestFigure, turnoverFigure } from './rangeFigures'
import { bestOutlet, outletsAlong, waysBack } from './strength'
import type { JudgedFill } from './fills'
import type { Add } from './reason'
import type { ModelRecord } from './records'

/** What the low end of a claim is held against. */
interface LowEnd {
  readonly model: ModelRecord
  readonly shipped: JudgedFill | null
  readonly ranges: readonly SupportedRange[]
}

/** Is the smallest tank claimed too small for its flow: by the rule of turnover, and by its jet. */
export function lowEndReasons(input: LowEnd, classes: readonly StockClass[], add: Add): void {
  const light = input.ranges.find((r) => r.stockClass === 'light')
  const stock = classes.find((c) => c.code === 'light')
  const smallest = claimed(input.model, 'tank-min')
  const flow = input.shipped?.flow
  if (!light || !stock || !flow || !smallest || !(smallest.value > 0) || flow.value === 0) return
  const claim = sayFigure(printedFigure(smallest))
  const times = sayFigure(turnoverFigure(flow, smallest.value, 'smallest tank claimed'))
  jetReason(input, flow, { stock, smallest: smallest.value, turnsTooMuch: smallest.value < light.min }, add)
  const [low, high] = light.minInterval
  const starts = sayFigure(smallestFigure(stock, flow))
  const head: Sentence = ['in the smallest claimed tank, ', claim, ', the water turns over ', times]
  if (smallest.value >= low && smallest.value <= high)
    add(
      'low-end',
      'caution',
      'Borderline at the low end: ',
      ...head,
      ` times an hour, about the ${stock.maxTurnover} that gentle tanks bear at most; that starts at `,
      starts,
      '.',
    )
  else if (smallest.value < low)
    add(
      'low-end',
      'against',
      'Too strong at the low end: ',
      ...head,
      ` times an hour; gentle tanks want no more than ${stock.maxTurnover}, which starts at `,
      starts,
      '.',
    )
  else
    add(
      'low-end',
      'for',
      'Gentle enough at the low end: ',
      ...head,
      ` times an hour, and up to ${stock.maxTurnover} suits a light, planted tank.`,
    )
}

/**
 * What its jet does in the smallest tank claimed, as tanks are made; and whether the rule of turnover sees the same. A
 * jet is held against the length of a tank: turned into litres its doubt would be cubed, so the litres stay the rule's.
 */
function jetReason(
  { model, shipped }: LowEnd,
  flow: Figure,
  {
    stock,
    smallest,
    turnsTooMuch,
  }: { readonly stock: StockClass; readonly smallest: number; readonly turnsTooMuch: boolean },
  add: Add,
): void {
  const { length } = usualTank(smallest)
  const along = outletsAlong(
    { stock, length },
    flow,
    waysBack(model.hookups[0]?.outlets, shipped?.outlet ?? null),
  )
  const [first] = along
  const best = bestOutlet(along)
  if (!first || !best) return
  const strong = first.level === 'strong'
  const gentle = best.level === 'gentle'
  add(
    'low-end-jet',
    strong && !gentle ? 'against' : strong || turnsTooMuch ? 'caution' : 'for',
    'Its jet in such a tank, ',
    sayFigure({
      id: 'low-end-length',
      label: 'Length of a tank of so much water, as tanks are made',
      value: length,
      dimension: 'length',
      provenance: 'rule',
      formula: 'L = 2 ∛(V/2): twice as long as wide and high',
      working: [put('V', 'smallest tank claimed', smallest, 'volume', 'printed')],
      source: 'common practice, no source',
    }),
    ` long: ${lowerFirst(first.name)}, too fast for them over `,
    sayFigure(first.share),
    ' of the length',
    ...(best === first ? [] : [`; ${lowerFirst(best.name)}, over `, sayFigure(best.share)]),
    turnsTooMuch && gentle
      ? '. The water goes round often, but need not run fast: the rule of turnover is the stricter.'
      : strong && !turnsTooMuch
        ? '. The rule of turnover does not see it.'
        : '.',
  )
}
