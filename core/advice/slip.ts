import { feedDoubt, priorOfPace } from '../clogging'
import { inline, sentenceText, upperFirst, type Sentence } from '../figures'
import type { TankRecord } from '../tanks'
import { NINETY_FIVE } from '../statistics'
import { stripCautions } from '../teardown/cautions'
import type { UnitSystem } from '../units'
import { standingOf, type Advice } from './advise'
import type { StockAnswers } from './quickTank'
import { openEvery, type OpeningInterval } from '../upkeep'
import type { AdviceRule } from './rule'
import { explain, priceLine, unknownWords } from './words'
import type { Weights } from './score'

/** A part of a slip: its heading and what stands under it. */
export interface SlipPart {
  readonly id: 'tank' | 'advice' | 'needs' | 'order' | 'start' | 'dates' | 'cautions'
  readonly heading: string
  readonly lines: readonly Sentence[]
}

/** Renewals and services that are put on a slip: those within a year. */
const AHEAD = 365
interface SlipAsks {
  readonly weights: Weights
  readonly dayAfter: (days: number) => string
  readonly due: readonly (number | null)[]
  readonly opens: AdviceRule['opens']
}

/** Services that are put on a slip. */
const SERVICES = 3

/**
 * The slip to take home: tank, advice, media in their order, how to start, next dates, cautions. `dayAfter` gives
 * the date (2026-11-26) so many days from now; `due` the days each choice runs on this tank until it is due, by its
 * forecast, null where there is none.
 */
export function slipOf(tank: TankRecord, told: StockAnswers, a: Advice, asks: SlipAsks): readonly SlipPart[] {
  const { reasons, needs } = explain(tank, a, asks.weights)
  const many = told.many === 'usual' ? '' : `, ${told.many} for its size`
  const planted = told.planted ? ', planted' : ''
  const weak = told.weak ? ', some swim weakly' : ''
  const models = [...new Set(a.choices.map((c) => c.candidate))]
  const orders = a.choices.filter(
    (c, i) => c.fill.order.length && a.choices.findIndex((x) => x.fill === c.fill) === i,
  )
  const parts: readonly SlipPart[] = [
    {
      id: 'tank',
      heading: 'The tank',
      lines: [
        [
          `${tank.name}: `,
          inline(tank.water),
          `; ${tank.stock.label.toLowerCase()}${many}${planted}${weak}.`,
        ],
      ],
    },
    {
      id: 'advice',
      heading: a.name,
      lines: [
        [priceLine(a) ?? 'Price not known.'],
        ...(unknownWords(a) ? [[`${upperFirst(unknownWords(a) ?? '')}.`]] : []),
        ...reasons,
        ...a.stops.map((s): Sentence => (standingOf(a) === 'alone' ? s.sentence : ['But: ', ...s.sentence])),
      ],
    },
    { id: 'needs', heading: 'Also needed', lines: needs },
    {
      id: 'order',
      heading: 'Media, in flow order',
      lines: orders.map((c) => [
        orders.length > 1 ? `${c.candidate.name}: ` : '',
        c.fill.order.filter((name, i, all) => name !== all[i - 1]).join(', then '),
        '.',
      ]),
    },
    {
      id: 'start',
      heading: 'First weeks',
      lines: [
        [
          'Run it beside the old filter for some weeks, or move mature media over. Otherwise feed lightly, and test ammonia and nitrite every two days for six weeks (common practice).',
        ],
      ],
    },
    { id: 'dates', heading: 'Next dates', lines: datesOf(tank, a, asks) },
    {
      id: 'cautions',
      heading: 'Safety',
      lines: [
        ...[
          ...new Set(
            models
              .flatMap((m) => stripCautions(m.kind, [], m.fitting?.fullMass?.value ?? null))
              .map((c) => c.text),
          ),
        ].map((text): Sentence => [text]),
        ['Follow local electrical codes. Fixed wiring is for a licensed electrician.'],
      ],
    },
  ]
  return parts.filter((p) => p.lines.length)
}

function datesOf(
  tank: TankRecord,
  a: Advice,
  { dayAfter, due, opens }: Pick<SlipAsks, 'dayAfter' | 'due' | 'opens'>,
): readonly Sentence[] {
  const out = new Map<string, Set<string>>()
  const add = (day: string, what: string): void => {
    const on = out.get(day) ?? new Set<string>()
    out.set(day, on.add(what))
  }
  const intervals = a.choices.map(({ candidate }, i) => openEvery(candidate.kind, due[i] ?? null, opens))
  a.choices.forEach(({ candidate, fill }, i) => {
    const days = intervals[i]?.days ?? Infinity
    for (let n = 1; n <= SERVICES && n * days <= AHEAD; n++)
      add(dayAfter(Math.round(n * days)), `open and rinse ${candidate.name}`)
    for (const u of fill.uses)
      if (u.lifeDays && u.lifeDays <= AHEAD)
        add(dayAfter(Math.round(u.lifeDays)), `replace ${u.name.toLowerCase()} in ${candidate.name}`)
  })
  const dates = [...out]
    .sort(([x], [y]) => x.localeCompare(y))
    .map(([day, what]): Sentence => [`${day}: ${[...what].join('; ')}.`])
  return dates.length ? [...dates, [becauseOf(tank, intervals, due.slice(0, a.choices.length))]] : []
}

const WHENCE = {
  forecast: 'by the flow forecast',
  house: 'by the house rules',
  usual: 'at the usual interval for its kind (common practice, no source)',
} as const

/** Where the days between services come from, what the forecast says, and how far it is to be believed. */
function becauseOf(tank: TankRecord, intervals: readonly OpeningInterval[], due: SlipAsks['due']): string {
  const rule = `Maintenance dates ${[...new Set(intervals.map((i) => WHENCE[i.from]))].join(', or ')}.`
  const known = due.filter((d) => d !== null)
  if (!known.length) return rule
  // How fast it fouls is known to a factor, and what is due goes about as that.
  const factor = Math.exp(NINETY_FIVE * priorOfPace(feedDoubt(tank)))
  const alone = intervals.length > 1 ? ' (each alone)' : ''
  const days = known.map((d) => Math.round(d)).join(' and ')
  return `${rule} The forecast says ${days} days${alone}; it may be off by ${factor.toFixed(0)} times. Open the filter when the flow drops.`
}

/** A slip as plain text, to be sent or kept. */
export const slipText = (parts: readonly SlipPart[], system: UnitSystem): string =>
  parts.map((p) => [p.heading, ...p.lines.map((l) => `  ${sentenceText(l, system)}`)].join('\n')).join('\n\n')
