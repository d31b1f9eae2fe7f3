import { putFigure, inline, type Figure, type Sentence } from '../figures'
import { sumCarried, type Together } from '../judging'
import type { TankRecord } from '../tanks'
import { capacityFigure } from '../tanks'
import { mediaItems, standingOf, type Advice } from './advise'
import type { Choice, Price } from './candidate'
import type { Rung } from './ladder'
import { sumOf, type Exchange } from './prices'
import { ADVICE_RULE } from './rule'
import { priceWords, sayPrice } from './words'

/** Ways to go on with what runs on a tank already. */
export interface Step {
  readonly id: 'keep' | 'refill' | 'add' | 'replace'
  /** Does it carry the tank? */
  readonly enough: boolean
  readonly cost: Price | null
  readonly sentence: Sentence
}

/**
 * Keep, re-fill, add or replace: what each carries of the tank, and costs. `present` are those on it that the shelf
 * knows, `now` what all on it come to.
 */
export function presentSteps(
  tank: TankRecord,
  present: readonly Choice[],
  now: Together | null,
  list: readonly Advice[],
  rule: Exchange = ADVICE_RULE,
): readonly Step[] {
  const water = tank.water.value
  const out: Step[] = []
  const step = (id: Step['id'], carries: Figure | null, cost: Price | null, ...sentence: Sentence): void =>
    void out.push({ id, enough: carries !== null && carries.value >= water, cost, sentence })
  const kept = now?.carries ?? null
  step(
    'keep',
    kept,
    null,
    ...(kept
      ? [
          kept.value >= water ? 'Enough: supports ' : 'Too small: supports ',
          inline(kept),
          ' at this stocking; the tank is ',
          inline(tank.water),
          '.',
        ]
      : ['Its media are unknown. Flow alone does not tell what it supports.']),
  )
  const better = present.flatMap((c) =>
    !c.refilled && c.candidate.proposed ? [{ candidate: c.candidate, fill: c.candidate.proposed }] : [],
  )
  if (better.length) {
    const rest = present.filter((c) => !better.some((b) => b.candidate.id === c.candidate.id))
    const figures = [...better, ...rest].map((c) =>
      capacityFigure(c.fill, tank.stock, c.candidate.claimedMax),
    )
    const carries = sumCarried('refilled', figures)
    const { price: cost, missing } = sumOf(
      better.flatMap((b) => mediaItems(b.fill)),
      rule,
    )
    step(
      'refill',
      carries,
      cost,
      `${better.map((b) => b.candidate.name).join(' and ')} with better media supports `,
      inline(carries),
      ...(cost ? [`, ${missing.length ? 'from' : 'for'} ${sayPrice(cost)}`] : []),
      '.',
    )
  }
  // One that stands beside what is there need not carry the tank alone.
  const added = kept && cheapest(list.filter((a) => beside(a) && kept.value + a.carries.value >= water))
  if (added) {
    const carries: Figure = {
      ...sumCarried('added', [kept, added.carries]),
      working: [putFigure('V_now', kept), putFigure('V_added', added.carries)],
    }
    step(
      'add',
      carries,
      added.price,
      `${added.name} beside it: together they support `,
      inline(carries),
      `${forPrice(added)}.`,
    )
  }
  const [best] = list
  if (best && standingOf(best) === 'will')
    step(
      'replace',
      best.carries,
      best.price,
      `${best.name} supports `,
      inline(best.carries),
      `${forPrice(best)}. Run it beside the old one for some weeks, or move mature media over.`,
    )
  return out
}

/** Price of an option, after a comma. */
const forPrice = (a: Advice): string => {
  const words = priceWords(a)
  return words ? `, ${a.unpriced.length ? '' : 'for '}${words}` : ''
}
const beside = (a: Advice): boolean =>
  a.choices.length === 1 && !a.blind && a.stops.every((s) => s.id === 'small' || s.id === 'two')
const cheapest = (list: readonly Advice[]): Advice | null =>
  list.reduce<Advice | null>(
    (a, b) => (b.price && (!a?.price || b.price.minor < a.price.minor) ? b : (a ?? b)),
    null,
  )

/** The trade’s ladder beside the ranking: where they agree, and what the difference is where they do not. */
export function ladderWords(rung: Rung, list: readonly Advice[]): Sentence {
  const [first] = list
  const head = `Usual shop choice for ${rung.words}. `
  if (!first || first.stops.length) return [`${head}None of your filters fits.`]
  const onRung = (a: Advice): boolean =>
    a.choices.every((c) => rung.kinds.includes(c.candidate.kind)) && (!rung.two || a.choices.length > 1)
  if (onRung(first)) return [`${head}Our ranking agrees.`]
  const next = list.find((a) => !a.stops.length && onRung(a))
  if (next)
    return [
      `${head}That would be ${next.name}, rank ${list.indexOf(next) + 1} here. It supports `,
      inline(next.carries),
      ', rank 1 supports ',
      inline(first.carries),
      '.',
    ]
  const out = list.find(onRung)
  return out
    ? [`${head}None of your filters fits; closest is ${out.name}. `, ...(out.stops[0]?.sentence ?? [])]
    : [`${head}You have none of those.`]
}
