import { yearlyEnergy } from '../bench'
import { requireRange } from '../errors'
import type { Candidate, MediumUse, OfferedFill, Price, Spare } from './candidate'
import { packsOf } from '../fills'
import type { AdviceRule } from './rule'
import { exchanged } from './prices'
import { serviceMinutes } from './service'

/** Parts of the cost of owning. */
export const COST_PARTS = ['price', 'media', 'cartridges', 'spares', 'electricity', 'minutes'] as const
export type CostPart = (typeof COST_PARTS)[number]

/** One thing paid for: what, in which year (1 is the first), how much. */
export interface CostLine {
  readonly part: CostPart
  readonly what: string
  readonly year: number
  readonly minor: number
  readonly currency: string
  /** The day its price was noted on; null where nobody said. */
  readonly on: string | null
}

/** Cost of owning over some years (minor units of one currency), year by year and part by part. */
export interface OwningCost {
  readonly currency: string
  readonly years: readonly (Readonly<Record<CostPart, number>> & { readonly year: number })[]
  readonly total: number
  /** Sums in other currencies, which no rate has been given for. */
  readonly apart: readonly Price[]
  /** Items without a price, and unknowns. */
  readonly missing: readonly string[]
  readonly lines: readonly CostLine[]
}

/** Is the price of the filter itself in a sum? Without it a sum says nothing. */
export const hasBody = (c: Pick<OwningCost, 'lines' | 'currency'>): boolean =>
  c.lines.some((l) => l.part === 'price' && l.currency === c.currency)

/** Is everything in it? Else the sum is “from”. */
export const isWhole = (c: Pick<OwningCost, 'missing' | 'apart'>): boolean =>
  !c.missing.length && !c.apart.length

/** Days between renewals of what wears; a lamp by the year. Common practice, no source. */
export const WEARS: Readonly<Record<Spare['wears'], number>> = {
  impeller: 1095,
  seal: 730,
  lamp: 365,
  other: 1825,
}
const YEAR = 365
/** Question for the cost of owning. */
export interface CostQuestion {
  readonly candidate: Candidate
  /** The fill it is run with. */
  readonly fill: OfferedFill | null
  /** Its media are bought first: they do not come in the box. */
  readonly buysFill: boolean
  readonly rule: AdviceRule
  /** The price paid; the list price when absent. */
  readonly price?: Price | null
  /** Floss to be cut for cartridges: how it is sold. */
  readonly floss?: Pick<MediumUse, 'name' | 'pack' | 'price'> | null
}

/** A share of a pack that is lost in rounding when pieces are counted. */
const SAME = 1e-6

/**
 * Packs that so many renewals take. What is loose, or cut from a roll, serves the next with what is left over;
 * cartridges are whole pieces: as many as a pack holds, or as many packs as one takes.
 */
function packsFor(
  renewals: number,
  { volume, pack, form }: Pick<MediumUse, 'volume' | 'form'> & { pack: number },
): number {
  if (form !== 'cartridge') return packsOf(renewals * volume, pack)
  const inPack = Math.floor(pack / volume + SAME)
  return inPack >= 1 ? Math.ceil(renewals / inPack - SAME) : renewals * Math.ceil(volume / pack - SAME)
}

/**
 * Packs bought by the end of each year, whole packs out of which each renewal takes its volume. The first fill is
 * bought too where it does not come in the box.
 */
export function packsByYear(
  use: Pick<MediumUse, 'volume' | 'pack' | 'lifeDays' | 'form'>,
  years: number,
  buysFirst: boolean,
): readonly number[] {
  const { volume, pack, lifeDays, form } = use
  if (!(pack && pack > 0)) return Array<number>(years).fill(NaN)
  return Array.from({ length: years }, (_, i) => {
    // A renewal due on the very last day is the next owner's.
    const renewals = lifeDays ? Math.ceil(((i + 1) * YEAR) / lifeDays) - 1 : 0
    return packsFor(renewals + (buysFirst ? 1 : 0), { volume, pack, form })
  })
}

/** Renewals of a part by the end of each year. */
const renewalsByYear = (days: number, years: number): readonly number[] =>
  Array.from({ length: years }, (_, i) => Math.ceil(((i + 1) * YEAR) / days) - 1)

/** Each year's own share of what adds up. */
const steps = (byYear: readonly number[]): readonly number[] => byYear.map((v, i) => v - (byYear[i - 1] ?? 0))

/**
 * Cost of owning a model: price, media and cartridges in whole packs by their lives, parts that wear, electricity,
 * and minutes where the house gives them a price. No rate of exchange is made up: another currency stands apart.
 * @throws OutOfRange for `years`, 1 to 30.
 */
export function owningCost(q: CostQuestion): OwningCost {
  const { candidate: c, fill, buysFill, rule, floss = null } = q
  const years = requireRange('years', rule.years, { min: 1, max: 30 })
  const currencyOfAll = rule.currency
  const lines: CostLine[] = []
  const missing: string[] = []
  const spread = (part: CostPart, what: string, price: Price | null, times: readonly number[]): void => {
    if (!price || times.some(Number.isNaN)) {
      missing.push(price ? `${what}: pack size` : `${what}: price`)
      return
    }
    times.forEach((n, i) => {
      const on = price.on ?? null
      if (n > 0) lines.push({ part, what, year: i + 1, on, ...inHouse(n * price.minor, price.currency) })
    })
  }
  /** Whole minor units, of the main currency where a rate was given. */
  const inHouse = (minor: number, currency: string): Pick<CostLine, 'minor' | 'currency'> =>
    exchanged({ minor: Math.round(minor), currency }, rule) ?? { minor: Math.round(minor), currency }
  const once = [1, ...Array<number>(years - 1).fill(0)]
  const each = (n: number): readonly number[] => Array<number>(years).fill(n)
  spread('price', 'The filter', q.price === undefined ? c.price : q.price, once)
  for (const use of fill?.uses ?? []) {
    const cut = rule.cutFloss && use.form === 'cartridge' && floss
    const sold = cut ? { ...use, ...floss, form: 'floss' as const } : use
    const times = steps(packsByYear(sold, years, buysFill))
    if (times.every((n) => n === 0)) continue
    const what = cut ? `${floss.name}, cut for ${use.name}` : use.name
    spread(use.form === 'cartridge' ? 'cartridges' : 'media', what, sold.price, times)
  }
  for (const s of c.spares) spread('spares', s.name, s.price, steps(renewalsByYear(WEARS[s.wears], years)))
  const { currency, tariffMinor, minuteMinor } = rule
  if (!c.watts) missing.push('Power in watts')
  else if (tariffMinor === null) missing.push('Electricity price')
  else
    spread(
      'electricity',
      c.watts.provenance === 'rule' ? `Electricity, at about ${c.watts.value} W (a rule)` : 'Electricity',
      { minor: yearlyEnergy(c.watts.value) * tariffMinor, currency, on: rule.tariffOn },
      each(1),
    )
  if (minuteMinor !== null) {
    const minutes = serviceMinutes(c, rule.opens)
    if (!minutes) missing.push('Minutes of work (timed teardown)')
    else spread('minutes', 'Your time', { minor: minutes.value * 12 * minuteMinor, currency }, each(1))
  }
  return { ...summed(lines, years, currencyOfAll), missing, lines }
}

/** Lines by year and part in the main currency; the others apart. */
function summed(
  lines: readonly CostLine[],
  count: number,
  currency: string,
): Pick<OwningCost, 'currency' | 'years' | 'total' | 'apart'> {
  const none = Object.fromEntries(COST_PARTS.map((p) => [p, 0])) as Record<CostPart, number>
  const years = Array.from({ length: count }, (_, i) => ({ year: i + 1, ...none }))
  const apart = new Map<string, number>()
  let total = 0
  for (const l of lines) {
    if (l.currency !== currency) apart.set(l.currency, (apart.get(l.currency) ?? 0) + l.minor)
    else {
      const year = years[l.year - 1]
      if (year) year[l.part] += l.minor
      total += l.minor
    }
  }
  return { currency, years, total, apart: [...apart].map(([cur, minor]) => ({ minor, currency: cur })) }
}

/**
 * Items of a part’s sum over all years: each thing with its own (minor units of the main currency), and the day
 * its price is of.
 */
export function costWorking(
  cost: OwningCost,
  part: CostPart,
): readonly Pick<CostLine, 'what' | 'minor' | 'on'>[] {
  const sums = new Map<string, Pick<CostLine, 'what' | 'minor' | 'on'>>()
  for (const { part: of, currency, what, minor, on } of cost.lines)
    if (of === part && currency === cost.currency)
      sums.set(what, { what, minor: (sums.get(what)?.minor ?? 0) + minor, on })
  return [...sums.values()]
}
