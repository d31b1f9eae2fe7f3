import { dayText } from '../days'
import { comparedCost, sayPrice, serviceMinutes } from '../advice'
import type { Every } from '../upkeep/recurrence'
import { flowLeft } from '../visits'
import type { SheetCell, Section } from './blocks'
import type { ReviewInput } from './input'
import { figureIn, numbers, rowsOf, table, text } from './make'

export function livingSection(input: ReviewInput): Section {
  const of = rowsOf(input)
  return {
    id: 'living',
    title: 'Noise, watts, minutes',
    blocks: numbers(
      'page',
      figureIn(of('noise')),
      figureIn(of('watts')),
      serviceMinutes(input.candidate, input.house.advice.opens),
    ),
  }
}

export function costSection(input: ReviewInput): Section {
  const of = rowsOf(input)
  const { candidate, house } = input
  const cost = comparedCost(candidate, { rule: house.advice, refilled: false })
  const years = house.advice.years === 1 ? 'a year' : `${house.advice.years} years`
  return {
    id: 'cost',
    title: 'Cost',
    blocks: [
      ...table(
        'page',
        ['', ''],
        [
          ['List price', of('price')],
          ['On sale', of('sale')],
          ['Second-hand', of('second-hand')],
          [`Owning it for ${years}`, of('owning')],
          ['With better media', of('refilled')],
          ['Warranty', of('guarantee')],
        ],
      ),
      ...table(
        'whole',
        ['Cost breakdown', 'Year', 'Money'],
        cost.lines.map((l): readonly SheetCell[] => [
          l.what,
          String(l.year),
          `${sayPrice(l)}${l.on ? `, as of ${l.on}` : ', undated'}`,
        ]),
      ),
      ...(cost.missing.length ? text('whole', [`Not in it: ${cost.missing.join('; ')}.`], 'caution') : []),
    ],
  }
}

/** How often, in words. */
const often = (every: Every): string => {
  if ('months' in every) return every.months === 1 ? 'each month' : `every ${every.months} months`
  return every.days === 1 ? 'each day' : `every ${every.days} days`
}

export const upkeepSection = ({ chores, house }: ReviewInput): Section => ({
  id: 'upkeep',
  title: 'Maintenance',
  blocks: [
    ...(chores.length
      ? text('page', [`${chores.map((c) => `${c.label}: ${often(c.every)}`).join('; ')}.`])
      : []),
    ...table(
      'whole',
      ['What', 'How often', 'How'],
      chores.map((c): readonly SheetCell[] => [c.label, often(c.every), c.how]),
    ),
    ...(chores.length
      ? text('whole', [`As “${house.name}” has it; intervals are common practice, no source.`])
      : []),
  ],
})

export const cautionsSection = ({ cautions }: ReviewInput): Section => ({
  id: 'cautions',
  title: 'Safety',
  blocks: [
    ...cautions.flatMap((c) => text('page', [c.text], 'caution')),
    ...text('page', ['Follow local electrical codes. Fixed wiring is for a licensed electrician.']),
  ],
})

export function visitsSection({ history, next }: ReviewInput): Section {
  const rows = history.all.map((v): readonly SheetCell[] => [
    v.on,
    flowLeft(history, v),
    v.cleaned.length ? 'cleaned' : 'left as it was',
    v.failed.map((f) => `${f.part}: ${f.how || 'failed'}`).join('; '),
  ])
  return {
    id: 'visits',
    title: 'Long-term',
    blocks: [
      ...(rows.length
        ? [
            ...text('page', [
              `Visited ${rows.length} ${rows.length === 1 ? 'time' : 'times'}, last on ${history.all.at(-1)?.on ?? ''}.`,
            ]),
            ...numbers(
              'page',
              history.all.map((v) => flowLeft(history, v)).findLast((f) => f !== null),
            ),
            ...table('whole', ['Day', 'Flow left', 'Then', 'Failed'], rows),
          ]
        : text('page', ['No check-up yet.'])),
      ...(next ? text('page', [`The next check-up is due on ${dayText(next)}.`]) : []),
    ],
  }
}
