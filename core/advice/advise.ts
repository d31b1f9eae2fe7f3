import { bestOutlet, fitFindings, outletsAlong, sumCarried, type OutletResult } from '../judging'
import type { TankRecord } from '../tanks'
import { putFigure, inline, type Figure, type Sentence } from '../figures'
import { packsOf } from '../fills'
import { JET_BAND } from '../hydraulics'
import { FILTERS } from '../kinds'
import {
  capacityFigure,
  capacityInput,
  capacityOf,
  isBlind,
  ruleOf,
  type CapacitySchool,
  type StockClass,
} from '../tanks'
import type { Candidate, Choice, OfferedFill, Price } from './candidate'
import { owningCost } from './cost'
import { twoDemanded } from './ladder'
import { exchanged, sumOf, type Item } from './prices'
import { EXTRA_WORDS, type AdviceRule, type Extra } from './rule'
import { scoreOf, type Measured, type Measures, type Score } from './score'
import { USUAL_BAND } from '../upkeep'
import { serviceMinutes } from './service'

/** Where a filter can stand. */
export type Standing = (typeof FILTERS)[keyof typeof FILTERS]['stands']

/** Wishes of a customer besides the tank itself; null: it does not matter. */
export interface Wishes {
  readonly stands: readonly Standing[] | null
  /** Loudest sound level (dB) and most minutes of work a month. */
  readonly noise: number | null
  readonly minutes: number | null
  readonly budget: Price | null
}
export const NO_WISHES: Wishes = { stands: null, noise: null, minutes: null, budget: null }

/** Why an option is out of the question, hardest first. */
export const STOPS = ['fit', 'place', 'strong', 'inlet', 'small', 'noise', 'work', 'budget', 'two'] as const
export type StopId = (typeof STOPS)[number]

/** Wishes unknown of an option: no pass, and no hard no either. */
export const UNKNOWNS = ['capacity', 'size', 'price', 'noise', 'work'] as const
export type UnknownId = (typeof UNKNOWNS)[number]
export const UNKNOWN_WORDS: Readonly<Record<UnknownId, string>> = {
  capacity: 'what its media support',
  size: 'size',
  price: 'price',
  noise: 'noise',
  work: 'work',
}

/**
 * How an option stands: it will do; it will by all that is known; it carries the tank alone where the house wants two;
 * it will not.
 */
export const STANDINGS = ['will', 'unknown', 'alone', 'wont'] as const
export type AdviceStanding = (typeof STANDINGS)[number]
export function standingOf({ stops, unknown }: Pick<Advice, 'stops' | 'unknown'>): AdviceStanding {
  if (stops.length) return stops.every((s) => s.id === 'two') ? 'alone' : 'wont'
  return unknown.length ? 'unknown' : 'will'
}
export interface Stop {
  readonly id: StopId
  readonly sentence: Sentence
}

/** One model or a pair of them for a tank: whether it will do, and why. */
export interface Advice {
  readonly id: string
  readonly choices: readonly Choice[]
  readonly name: string
  readonly stops: readonly Stop[]
  /** Wishes that nobody knows of it. */
  readonly unknown: readonly UnknownId[]
  /** Of such stock it carries (m³); where only its flow is known this is the most it can be. */
  readonly carries: Figure
  readonly blind: boolean
  /** Each of its models in the tank. */
  readonly parts: readonly Single[]
  /** Outlay to run it: body, better media, what it needs besides; null without any price. */
  readonly price: Price | null
  /** Items of that without a price: the sum is then “from”. */
  readonly unpriced: readonly string[]
  /** Of that, better media. */
  readonly media: Price | null
  readonly minutes: Figure | null
  readonly noise: Figure | null
  /** Cost of a year after that (minor units), on average. */
  readonly year: Price | null
  readonly measures: Measures
  readonly score: Score
}

/** Capacity of a fill for a class, by the school that leads for it, and whether that school knows nothing of media. */
interface Carried {
  readonly figure: Figure
  readonly leading: CapacitySchool
  readonly blind: boolean
}

/** A class held to one school of its house’s order: what stands beside need not be worked out to rank. */
const ONE_SCHOOL = new WeakMap<StockClass, readonly StockClass[]>()
function oneSchool(stock: StockClass): readonly StockClass[] {
  const kept = ONE_SCHOOL.get(stock)
  if (kept) return kept
  const rule = ruleOf(stock)
  const made = rule.order.map((school) => ({ ...stock, rule: { ...rule, order: [school] } }))
  ONE_SCHOOL.set(stock, made)
  return made
}

/** Capacity of a fill for a class: it does not depend on the tank, and is asked at every tap. */
const CARRIED = new WeakMap<OfferedFill, { readonly stock: StockClass; readonly carried: Carried }>()
function carriedOf({ candidate: { claimedMax }, fill }: Choice, stock: StockClass): Carried {
  const kept = CARRIED.get(fill)
  if (kept?.stock === stock) return kept.carried
  const input = capacityInput(fill, claimedMax)
  // Where a school speaks for want of better, all that are silent have to be asked.
  const own = oneSchool(stock).find((s) => s.rule?.order[0] === capacityOf(input, s).leading)
  const led = own && !isBlind(own.rule?.order[0] ?? 'turnover') ? own : stock
  const { leading, atMost } = capacityOf(input, led)
  const carried = { figure: capacityFigure(fill, led, claimedMax), leading, blind: atMost }
  CARRIED.set(fill, { stock, carried })
  return carried
}

/** One model of an option in the tank. */
export interface Single {
  readonly choice: Choice
  readonly carried: Carried
  readonly best: OutletResult | null
  readonly first: OutletResult | null
  readonly stops: readonly Stop[]
}

/** Most of the singles that pairs are made of, and most pairs that are shown. */
const PAIRED = 12
const PAIRS = 12
/** Of a pair each carries at least this share of the tank: less is no help while the other is open (ours). */
const HELPS = 0.25

/** Question to the models of a shelf. */
export interface Question {
  readonly tank: TankRecord
  readonly wishes: Wishes
  readonly rule: AdviceRule
}

/**
 * Ranks models and pairs of them for a tank: those that will do by their score, then those that will not, each with its
 * hard no. Of a model's fills the better one stands for it.
 * @throws OutOfRange naming a field of the tank.
 */
export function advise(q: Question, candidates: readonly Candidate[]): readonly Advice[] {
  const singles = candidates.flatMap((candidate) => {
    const fills = [
      ...(candidate.shipped ? [{ candidate, fill: candidate.shipped, refilled: false }] : []),
      ...(candidate.proposed ? [{ candidate, fill: candidate.proposed, refilled: true }] : []),
    ]
    return fills.map((choice) => singleOf(q, choice))
  })
  const alone = singles.map((s) => ({ single: s, advice: adviceOf(q, [s]) }))
  const bestOfModel = new Map<string, Advice>()
  for (const { advice } of alone) {
    const id = advice.choices[0]?.candidate.id ?? ''
    const before = bestOfModel.get(id)
    if (!before || compareAdvice(advice, before) < 0) bestOfModel.set(id, advice)
  }
  const pairable = alone
    .filter(({ advice }) => advice.stops.every((s) => s.id === 'small' || s.id === 'two'))
    .filter(({ single: { carried } }) => !carried.blind && carried.figure.value >= HELPS * q.tank.water.value)
    .sort((a, b) => b.advice.score.score - a.advice.score.score)
    .slice(0, PAIRED)
  const pairs = pairable
    .flatMap(({ single: a }, i) => pairable.slice(i).map(({ single: b }) => [a, b] as const))
    .filter(([a, b]) => goesWith(q.tank, a, b))
    .map((pair) => adviceOf(q, pair))
    .filter((p) => !p.stops.length)
    .sort(compareAdvice)
    .slice(0, PAIRS)
  const found = [...bestOfModel.values(), ...pairs]
  const will = found.some((a) => !a.stops.length)
  return [
    ...found,
    ...(will
      ? []
      : threes(
          q,
          pairable.map((p) => p.single),
        )),
  ].sort(compareAdvice)
}

/** Most of the singles that threes are made of, and most threes that are shown. */
const THREED = 6
const THREES = 4

/** Where neither one nor two will do: three of them. */
function threes(q: Question, pairable: readonly Single[]): readonly Advice[] {
  const few = pairable.slice(0, THREED)
  return few
    .flatMap((a, i) => few.slice(i).flatMap((b, j) => few.slice(i + j).map((c) => [a, b, c] as const)))
    .filter(([a, b, c]) => goesWith(q.tank, a, b) && goesWith(q.tank, a, c) && goesWith(q.tank, b, c))
    .map((all) => adviceOf(q, all))
    .filter((p) => !p.stops.length)
    .sort(compareAdvice)
    .slice(0, THREES)
}

/** Two sumps do not stand under one tank, two bodies must fit side by side, and a model is taken with one fill. */
function goesWith(tank: TankRecord, a: Single, b: Single): boolean {
  const [x, y] = [a.choice.candidate, b.choice.candidate]
  if (x.id === y.id && a !== b) return false
  const [stands, other] = [FILTERS[x.kind].stands, FILTERS[y.kind].stands]
  if (stands === 'beneath' && other === 'beneath') return false
  if (stands !== 'outside' || other !== 'outside' || tank.cabinetWidth === null) return true
  const wide = (c: Candidate): number =>
    c.fitting ? Math.min(c.fitting.outerWidth, c.fitting.outerDepth) : 0
  return wide(x) + wide(y) <= tank.cabinetWidth
}

const hardest = (a: Advice): number => Math.min(...a.stops.map((s) => STOPS.indexOf(s.id)))
/** Of what is too small the largest comes nearest. */
const nearest = (a: Advice): number => (a.stops[0]?.id === 'small' ? a.carries.value : 0)
/**
 * Those that will do first, by score; then those of which something asked is not known; then those the house only wants
 * two of; then the rest by how few and how soft their stops are.
 */
export function compareAdvice(a: Advice, b: Advice): number {
  const [x, y] = [standingOf(a), standingOf(b)]
  return (
    STANDINGS.indexOf(x) - STANDINGS.indexOf(y) ||
    (x === 'wont' ? hardest(b) - hardest(a) || nearest(b) - nearest(a) : 0) ||
    (x === 'unknown' ? a.unknown.length - b.unknown.length : 0) ||
    b.score.score - a.score.score ||
    a.name.localeCompare(b.name)
  )
}

function singleOf({ tank, wishes, rule }: Question, choice: Choice): Single {
  const { candidate: c, fill } = choice
  const noted = outletsAlong(tank, fill.flow, c.outlets)
  const stops: Stop[] = []
  const stop = (id: StopId, ...sentence: Sentence): void => void stops.push({ id, sentence })
  for (const f of c.fitting ? fitFindings(tank, c.fitting) : [])
    if (f.level === 'stop') stop('fit', ...f.sentence)
  const traits = FILTERS[c.kind]
  if (wishes.stands && !wishes.stands.includes(traits.stands))
    stop('place', `It stands ${STANDS[traits.stands]}.`)
  const own = bestOutlet(noted)
  // What runs on hoses can be given a spray bar.
  const [bar] = own?.level === 'strong' && traits.hoses ? outletsAlong(tank, fill.flow, [sprayBar(tank)]) : []
  const best = bar && bar.level !== 'strong' ? bar : own
  if (best?.level === 'strong')
    stop('strong', 'Current too strong along ', inline(best.share), ' of the tank, whatever the outlet.')
  if (!tank.stock.openInlet && traits.intake && !c.inlet?.sponge && !rule.addsSponge)
    stop('inlet', 'Open intake: shrimp and fry are drawn in.')
  return { choice, carried: carriedOf(choice, tank.stock), best, first: noted[0] ?? null, stops }
}

/** A bar over so much of the tank’s length, a hole of 4 mm every 2 cm (ours; holes and spacing common practice). */
const BAR = { share: 0.6, diameter: 0.004, spacing: 0.02 } as const
const EXTRA_BAR = 'spray-bar-besides'
const sprayBar = ({ length }: TankRecord): Candidate['outlets'][number] => ({
  id: EXTRA_BAR,
  name: 'A spray bar',
  outlet: {
    kind: 'spray-bar',
    aim: 'along',
    depth: 0.02,
    diameter: BAR.diameter,
    holes: Math.max(1, Math.round((BAR.share * length) / BAR.spacing)),
    spacing: BAR.spacing,
    width: 0.1,
  },
})
/** The outlet that comes with none of them, and is bought besides. */
export const isExtraBar = (o: OutletResult | null): boolean => o?.id === EXTRA_BAR

const STANDS: Readonly<Record<Standing, string>> = {
  outside: 'beside or under the tank, on hoses',
  rim: 'on the rim, behind the tank',
  inside: 'in the tank',
  beneath: 'under the tank, as a tank of its own',
}

function adviceOf(q: Question, parts: readonly Single[]): Advice {
  const { tank, wishes, rule } = q
  const choices = parts.map((p) => p.choice)
  const carries = carriesOf(parts)
  const water = tank.water.value
  const stops = [...parts.flatMap((p) => p.stops)]
  const stop = (id: StopId, ...sentence: Sentence): void => void stops.push({ id, sentence })
  const blind = parts.some((p) => p.carried.blind)
  if (carries.value + (carries.uncertainty ?? 0) < water)
    stop(
      'small',
      blind ? 'Too small: by flow alone it supports at most ' : 'Too small: supports ',
      inline(carries),
      ' at this stocking; the tank is ',
      inline(tank.water),
      '.',
    )
  if (parts.length < 2 && twoDemanded({ water, stock: tank.stock }, rule))
    stop('two', 'House rule: this tank needs two filters, so one always runs.')
  const minutes = minutesOf(choices, rule.opens)
  const noise = noiseOf(choices)
  if (wishes.noise !== null && noise && noise.value - (noise.uncertainty ?? 0) > wishes.noise)
    stop('noise', 'Louder than you want: ', inline(noise), '.')
  if (wishes.minutes !== null && minutes && minutes.value > wishes.minutes)
    stop('work', 'More work than you want: ', inline(minutes, 2), ' min a month.')
  const { price, media, unpriced } = priceOf(q, parts)
  const budget = wishes.budget && exchanged(wishes.budget, rule)
  if (budget && price && price.minor > budget.minor) stop('budget', 'Over budget.')
  const year = sumPrices(choices.map((c) => yearOfOne(c, rule)))
  const measures = measuresOf(q, parts, { carries, minutes, noise, price, year })
  const unknown = UNKNOWNS.filter(
    (u) =>
      ({
        capacity: blind,
        size: asksSize(tank) && choices.some((c) => c.candidate.fitting === null),
        price: wishes.budget !== null && (!budget || !price || unpriced.length > 0),
        noise: wishes.noise !== null && noise === null,
        work: wishes.minutes !== null && minutes === null,
      })[u],
  )
  return {
    id: choices.map((c) => `${c.candidate.id}${c.refilled ? '+' : ''}`).join(' '),
    choices,
    name: nameOf(choices),
    stops: stops.sort((a, b) => STOPS.indexOf(a.id) - STOPS.indexOf(b.id)),
    unknown,
    carries,
    blind,
    parts,
    price,
    unpriced,
    media,
    minutes,
    noise,
    year,
    measures,
    score: scoreOf(measures, rule.weights),
  }
}

/** Has anything been measured round the tank that a filter must fit? */
const asksSize = (t: TankRecord): boolean =>
  [t.cabinetWidth, t.cabinetDepth, t.cabinetHeight, t.doorWidth, t.wallGap, t.rimThickness].some(
    (v) => v !== null,
  )

const COUNTS = ['', '', 'Two ', 'Three ']
function nameOf(choices: readonly Choice[]): string {
  const names = choices.map((c) => (c.refilled ? `${c.candidate.name}, better media` : c.candidate.name))
  const each = [...new Set(names)].map((n) => {
    const many = names.filter((x) => x === n).length
    return `${COUNTS[many] ?? ''}${n}`
  })
  return each.length === 1 ? (each[0] ?? '') : `${each.slice(0, -1).join(', ')} and ${each.at(-1) ?? ''}`
}

/** Capacity of all parts: of one the figure itself, of two their sum. */
function carriesOf(parts: readonly Single[]): Figure {
  const all = parts.map((p) => p.carried.figure)
  const [one] = all
  return all.length === 1 && one ? one : sumCarried('together', all)
}

function minutesOf(choices: readonly Choice[], opens: AdviceRule['opens']): Figure | null {
  const all = choices.map((c) => serviceMinutes(c.candidate, opens))
  const known = all.filter((f) => f !== null)
  const [one] = known
  if (!one || known.length < all.length) return null
  if (known.length === 1) return one
  return {
    ...one,
    id: 'service-minutes-together',
    value: known.reduce((sum, f) => sum + f.value, 0),
    uncertainty: known.reduce((sum, f) => sum + (f.uncertainty ?? 0), 0),
    formula: 'Σ of all',
    working: known.map((f, i) => putFigure(`t_${i + 1}`, f)),
  }
}

/** Levels add by their energies: L = 10 lg Σ 10^(L/10), of sounds that do not cohere. Source: any handbook. */
function noiseOf(choices: readonly Choice[]): Figure | null {
  const all = choices.map((c) => c.candidate.noise)
  const known = all.filter((f) => f !== null)
  const [one] = known
  if (!one || known.length < all.length) return null
  if (known.length === 1) return one
  return {
    id: 'noise-together',
    label: 'Sound level together',
    value: 10 * Math.log10(known.reduce((sum, f) => sum + 10 ** (f.value / 10), 0)),
    uncertainty: Math.max(...known.map((f) => f.uncertainty ?? 0)),
    dimension: 'sound',
    provenance: 'computed',
    formula: 'L = 10 lg Σ 10^(L/10)',
    working: known.map((f, i) => putFigure(`L_${i + 1}`, f)),
  }
}

/** A sum of prices of one currency; null where one is not known, or is in another. */
function sumPrices(prices: readonly (Price | null)[]): Price | null {
  const [first] = prices
  if (!first || !prices.every((p) => p?.currency === first.currency)) return null
  return { minor: prices.reduce((sum, p) => sum + (p?.minor ?? 0), 0), currency: first.currency }
}

/** Media of a fill as things that are paid for once, in whole packs. */
export const mediaItems = (fill: OfferedFill): readonly Item[] =>
  fill.uses.map((u) => ({
    what: u.name,
    price:
      u.price && u.pack
        ? { minor: packsOf(u.volume, u.pack) * u.price.minor, currency: u.price.currency }
        : null,
  }))

/** Needs of one model besides to run on a tank. */
export function extrasOf(
  { stock }: Pick<TankRecord, 'stock'>,
  { choice: { candidate: c }, best }: Pick<Single, 'choice' | 'best'>,
): readonly Extra[] {
  const traits = FILTERS[c.kind]
  return [
    ...(traits.drivenBy === 'air' ? (['air-pump', 'check-valve'] as const) : []),
    ...(!stock.openInlet && traits.intake && !c.inlet?.sponge ? (['intake-sponge'] as const) : []),
    ...(isExtraBar(best) ? (['spray-bar'] as const) : []),
    ...(traits.byGravity ? (['plumbing'] as const) : []),
  ]
}

/** Outlay to run it: body, better media, and what it needs besides, in the house’s currency. */
function priceOf(
  { tank, rule }: Question,
  parts: readonly Single[],
): Pick<Advice, 'price' | 'media' | 'unpriced'> {
  const one = (p: Single): readonly Item[] => [
    { what: p.choice.candidate.name, price: p.choice.candidate.price },
    ...(p.choice.refilled ? mediaItems(p.choice.fill) : []),
    ...extrasOf(tank, p).map((x) => {
      const minor = rule.extras?.[x]
      return { what: EXTRA_WORDS[x], price: minor === undefined ? null : { minor, currency: rule.currency } }
    }),
  ]
  const bodies = sumOf(
    parts.map(({ choice: { candidate: c } }) => ({ what: c.name, price: c.price })),
    rule,
  )
  const all = sumOf(parts.flatMap(one), rule)
  const bought = parts.filter((p) => p.choice.refilled)
  return {
    // Without the price of a body a sum of the rest would say nothing.
    price: bodies.missing.length ? null : all.price,
    unpriced: all.missing,
    media: bought.length
      ? sumOf(
          bought.flatMap((p) => mediaItems(p.choice.fill)),
          rule,
        ).price
      : null,
  }
}

/** Cost of a year of a fill: it does not depend on the tank, and is asked at every tap. */
const YEARS = new WeakMap<OfferedFill, { readonly rule: AdviceRule; readonly year: Price | null }>()
function yearOfOne({ candidate, fill }: Choice, rule: AdviceRule): Price | null {
  const kept = YEARS.get(fill)
  if (kept?.rule === rule) return kept.year
  const { currency } = rule
  const cost = owningCost({
    candidate,
    fill,
    buysFill: false,
    rule: { ...rule, minuteMinor: null },
    price: { minor: 0, currency },
  })
  const known = !cost.missing.length && !cost.apart.length
  const year = known ? { minor: Math.round(cost.total / rule.years), currency } : null
  YEARS.set(fill, { rule, year })
  return year
}

/** How much a flow’s basis is worth as evidence, 0 to 1 (ours). */
export const EVIDENCE: Readonly<Record<OfferedFill['basis'], number>> = {
  measured: 1,
  carried: 0.9,
  'computed-fit': 0.8,
  'computed-label': 0.5,
  'supposed-run': 0.3,
  'measured-empty': 0.4,
  'supposed-fit': 0.4,
  'supposed-label': 0.25,
  rule: 0.1,
  none: 0,
}

/** Ends of each criterion’s ramp (ours; a house weighs them). */
export const RAMPS = {
  /** Times the tank. */
  capacity: { zero: 0.8, one: 2 },
  /** Share of the length that is too fast. */
  gentleness: { zero: 0.5, one: 0 },
  /** Minutes a month. */
  service: { zero: 40, one: 5 },
  /** dB. */
  noise: { zero: 45, one: 25 },
  /** Parts with a fault. */
  build: { zero: 4, one: 0 },
  evidence: { zero: 0, one: 1 },
} as const
/** Relative standard doubt of a year’s cost: lives of media are rules (common practice, no source). */
const YEAR_DOUBT = 0.15

interface Facts {
  readonly carries: Figure
  readonly minutes: Figure | null
  readonly noise: Figure | null
  readonly price: Price | null
  readonly year: Price | null
}

/** The criteria of an option as numbers with their doubt. */
function measuresOf({ tank, rule }: Question, parts: readonly Single[], f: Facts): Measures {
  const exact = (raw: number, ramp: { readonly zero: number; readonly one: number }): Measured => ({
    raw,
    own: 0,
    common: 0,
    log: false,
    ...ramp,
  })
  const models = parts.map((p) => p.choice.candidate.id).sort()
  const money = (p: Price | null, dear: number, own: number): Measured | null =>
    p?.currency === rule.currency && dear > 0
      ? { raw: p.minor, own, common: 0, models, log: true, zero: dear, one: 0 }
      : null
  const total = f.carries.value > 0 ? (f.carries.uncertainty ?? 0) / f.carries.value / 2 : 0
  // The rule that leads is the same for all that it leads: its doubt moves them together, and is laid on no others.
  const rules = parts.map((p) => p.carried.figure.shared?.[0])
  const [led] = rules
  const one = led && rules.every((r) => r?.what === led.what)
  const common = one ? Math.min(total, (led.relative ?? 0) / 2) : 0
  const strongest = parts.reduce<OutletResult | null>(
    (worst, p) => (p.best && (!worst || p.best.share.value > worst.share.value) ? p.best : worst),
    null,
  )
  const builds = parts.map((p) => p.choice.candidate.build)
  const known = builds.filter((b) => b !== null)
  return {
    capacity: {
      raw: f.carries.value / tank.water.value,
      own: Math.sqrt(Math.max(0, total ** 2 - common ** 2)),
      common,
      ...(one && { rule: led.what }),
      models,
      log: true,
      ...RAMPS.capacity,
    },
    gentleness: strongest && {
      raw: strongest.share.value,
      own: JET_BAND / 2,
      common: 0,
      log: true,
      ...RAMPS.gentleness,
    },
    service: f.minutes && {
      raw: f.minutes.value,
      own: USUAL_BAND / 2,
      common: 0,
      models,
      log: true,
      ...RAMPS.service,
    },
    noise: f.noise && {
      raw: f.noise.value,
      own: (f.noise.uncertainty ?? 0) / 2,
      common: 0,
      models,
      log: false,
      ...RAMPS.noise,
    },
    running: money(f.year, rule.dearYearMinor, YEAR_DOUBT),
    price: money(f.price, rule.dearPriceMinor, 0),
    build:
      known.length < builds.length
        ? null
        : exact(Math.max(...known.map((b) => b.faults.length)), RAMPS.build),
    evidence: exact(Math.min(...parts.map((p) => EVIDENCE[p.choice.fill.basis])), RAMPS.evidence),
  }
}
