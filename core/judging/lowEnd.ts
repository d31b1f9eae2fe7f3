import { usualTank } from '../biology'
import { lowerFirst, put, inline, type Figure, type Sentence } from '../figures'
import { capacityFigure, capacityInput, type StockClass, type SupportedRange } from '../tanks'
import { claimed } from '../trials/labels'
import { printedFigure } from '../trials/printed'
import { smallestFigure, turnoverFigure } from './rangeFigures'
import { bestOutlet, outletsAlong, waysBack, type OutletResult } from './strength'
import type { JudgedFill } from './fills'
import type { Add } from '../figures/reason'
import type { ModelRecord } from '../trials/records'

/** Measures that the low end of a claim is held against. */
interface LowEnd {
  readonly model: ModelRecord
  readonly shipped: JudgedFill | null
  readonly ranges: readonly SupportedRange[]
}

/** Length of a tank of so much water, as tanks are made. */
const lengthFigure = (volume: number): Figure => ({
  id: 'low-end-length',
  label: 'Length of a tank of so much water, as tanks are made',
  value: usualTank(volume).length,
  dimension: 'length',
  provenance: 'rule',
  formula: 'L = 2 ∛(V/2): twice as long as wide and high',
  working: [put('V', 'water in the tank', volume, 'volume', 'printed')],
  source: 'common practice, no source',
})

/** A gentler way to use an outlet in so small a tank, where there is one. */
function cure(results: readonly OutletResult[]): Sentence {
  const [first] = results
  const best = bestOutlet(results)
  if (!first || !best || best === first || best.share.value >= first.share.value) return []
  return [` Better with ${lowerFirst(best.name)}: too strong along only `, inline(best.share), '.']
}

/** Is the smallest tank claimed too small for its jet? And, where a house lets it speak, for its turnover. */
export function lowEndReasons(input: LowEnd, classes: readonly StockClass[], add: Add): void {
  const { model, shipped, ranges } = input
  const light = ranges.find((r) => r.stockClass === 'light')
  const stock = classes.find((c) => c.code === 'light')
  const flow = shipped?.flow
  if (!light || !stock || !shipped || !flow || flow.value === 0) return
  const along = (volume: number): readonly OutletResult[] =>
    outletsAlong(
      { stock, length: usualTank(volume).length },
      flow,
      waysBack(model.hookups[0]?.outlets, shipped.outlet),
    )
  const starts = inline(smallestFigure(stock, capacityInput(shipped), flow))
  if (light.lowAboveTop && light.max > 0) {
    const there = along(light.max)
    const [first] = there
    if (first)
      add(
        'low-above-top',
        'against',
        'No tank suits it with light stocking: it supports ',
        inline(capacityFigure(shipped, stock, claimed(model, 'tank-max')?.value ?? null)),
        `. In a tank of that size the current (${lowerFirst(first.name)}) is too strong along `,
        inline(first.share),
        ' of it.',
        ...cure(there),
      )
  }
  const smallest = claimed(model, 'tank-min')
  if (!smallest || !(smallest.value > 0)) return
  const there = along(smallest.value)
  const [first] = there
  const claim = inline(printedFigure(smallest))
  if (first) {
    const [low, high] = light.minInterval
    const inside = smallest.value >= low && smallest.value <= high
    const strong = smallest.value < light.min
    const in_: Sentence = ['smallest tank on the label (', claim, '). ', ...(first.share.value < 0.0005 ? [`${first.name}: gentle everywhere.`] : [`${first.name}: current too strong along `, inline(first.share), ' of it (', inline(lengthFigure(smallest.value)), ' long).'])] // prettier-ignore
    const calm: Sentence = [' Half of the tank is calm from ', starts, ' up.']
    if (inside)
      add(
        'low-end',
        'caution',
        'Borderline: may be too strong for the ',
        ...in_,
        ...calm,
        ...(strong ? cure(there) : []),
      )
    else if (strong) add('low-end', 'against', 'Too strong for the ', ...in_, ...calm, ...cure(there))
    else add('low-end', 'for', 'Not too strong for the ', ...in_)
  }
  if (!stock.rule?.mostTurnover) return
  const turns = turnoverFigure(flow, smallest.value, 'smallest tank claimed')
  const over = turns.value > stock.maxTurnover
  add(
    'low-end-turnover',
    over ? 'caution' : 'note',
    over ? 'Turnover too high for ' : 'Turnover fits ',
    claim,
    ': ',
    inline(turns),
    ` times an hour (house rule: ${stock.maxTurnover} at most in gentle tanks).`,
  )
}
