import { UnreadableQuantity } from '../errors'
import {
  findUnit,
  preferredUnit,
  toSI,
  UNITS,
  type Dimension,
  type Unit,
  type UnitSystem,
} from './dimensions'

/** A typed quantity: its SI value, and what the person wrote. */
export interface Quantity {
  readonly si: number
  readonly value: number
  readonly unit: string
}

/** Units whose numbers come in thousands and never to a thousandth. */
const IN_THOUSANDS: ReadonlySet<string> = new Set(['L/h', 'US gal/h', 'imp gal/h'])

/** How to read text: which quantity, in which system, and the name to use in an error. */
export interface ParseOptions {
  readonly dimension: Dimension
  readonly system?: UnitSystem
  /** Unit of a bare number; the system's preferred one if absent. */
  readonly bare?: string
  readonly field?: string
}

const NUMBER = String.raw`[-+−]?(?:\d[\d.,]*(?:[ \u00a0\u202f'’]\d{3}(?!\d))*(?:[.,]\d+)?|[.,]\d+)(?:e[-+]?\d+)?`
const FRACTION = String.raw`(?:(\d+)\s+)?(\d+)\s*[/⁄]\s*(\d+)`
const PAIR = new RegExp(
  `^\\s*(?:${FRACTION}|(${NUMBER}))\\s*([^\\d\\s.,+−-][^\\d]*?)?(?=\\s*(?:[-+−]?[\\d]|$))`,
  'i',
)

/**
 * Reads a plain number as people write it: "1,5", "1.5", "1 000", "1'000", "1,234.5", "1.234,5".
 *
 * One comma followed by exactly three digits ("1,200") has two readings and is refused rather than guessed; so has one
 * point followed by three noughts ("1.000"), and by any three digits where quantities come in thousands (`thousands`).
 * Returns NaN for text that is no number; `'ambiguous'` for the two-reading case.
 */
export function readNumber(text: string, thousands = false): number | 'ambiguous' {
  const t = text
    .trim()
    .replace(/−/g, '-')
    .replace(/[\s\u00a0\u202f'’]/g, '')
  if (!/^[-+]?[\d.,]+(?:e[-+]?\d+)?$/i.test(t)) return NaN
  const commas = t.split(',').length - 1
  const points = t.split('.').length - 1
  if (commas && points) {
    const decimal = t.lastIndexOf(',') > t.lastIndexOf('.') ? ',' : '.'
    const group = decimal === ',' ? '.' : ','
    if (t.split(decimal).length > 2) return NaN
    return Number(t.split(group).join('').replace(decimal, '.'))
  }
  if (commas > 1 || points > 1) {
    const mark = commas > 1 ? ',' : '.'
    const groups = t.split(mark)
    return groups.slice(1).every((g) => g.length === 3) ? Number(groups.join('')) : NaN
  }
  if (commas === 1 && /^[-+]?[1-9]\d{0,2},\d{3}$/.test(t)) return 'ambiguous'
  if ((thousands ? /^[-+]?[1-9]\d{0,2}\.\d{3}$/ : /^[-+]?[1-9]\d{0,2}\.000$/).test(t)) return 'ambiguous'
  return Number(t.replace(',', '.'))
}

/** Words ahead of a figure that say how it is meant, not how much: “up to 900 L”, “max. 900 L”, “about 60 L”. */
const AHEAD = /^(?:up to|max\.?(?:imum)?|at most|about|approx\.?|ca\.?|circa|≈|~|≤)\s+(?=[\d½¼¾⅓⅔⅛])/i
/** Fractions that are one character. */
const SMALL: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅓': '1/3',
  '⅔': '2/3',
  '⅛': '1/8',
}

/** Text as the reader of quantities takes it: without words ahead, fractions written out (“1½” is “1 1/2”). */
const plain = (text: string): string =>
  text
    .trim()
    .replace(AHEAD, '')
    .replace(
      /(\d?)([½¼¾⅓⅔⅛])/g,
      (_, before: string, f: string) => `${before}${before && ' '}${SMALL[f] ?? f}`,
    )

/** Units that a label prints and that are something else, with what to type. */
const OTHERWISE: Partial<Readonly<Record<Dimension, Readonly<Record<string, string>>>>> = {
  power: {
    va: 'VA is not watts: a motor of 15 VA may use 8 to 15 W. Type the watts, or VA as W if nothing else is printed.',
  },
}

/**
 * Reads a number with a unit: "2.5 gal", "6 ft 2 in", "6 ft 2", "1,5 l", "120 gph", "3 1/2 in", `6'2"`.
 *
 * A bare number takes `bare`, or the system's preferred unit. "gal" follows the system (US unless imperial).
 * @throws UnreadableQuantity naming the field and what would be accepted.
 */
export function parseQuantity(text: string, options: ParseOptions): Quantity {
  const { dimension, system = 'metric', field = dimension } = options
  const bare = (options.bare && findUnit(options.bare, dimension, system)) || preferredUnit(dimension, system)
  const accepted = `a number with a unit, e.g. ${example(dimension, system)}`
  const refuse = (message: string): never => {
    throw new UnreadableQuantity(field, text, accepted, message)
  }
  let rest = plain(text)
  if (!rest) return refuse(`Type ${accepted}.`)
  let si = 0
  let first: { value: number; unit: Unit } | undefined
  let previous: Unit | undefined
  let negative = false
  while (rest) {
    const m = PAIR.exec(rest)
    if (!m) return refuse(`“${text}” is not a number. Type ${accepted}.`)
    const name = (m[5] ?? '').trim()
    const unit = name ? findUnit(name, dimension, system) : unnamed(previous, dimension, bare, system)
    const value = m[3]
      ? Number(m[1] ?? 0) + Number(m[2]) / Number(m[3])
      : readNumber(m[4] ?? '', unit !== undefined && IN_THOUSANDS.has(unit.symbol))
    if (value === 'ambiguous') {
      const digits = (m[4] ?? '').trim()
      return refuse(
        `Is “${digits}” thousands or a decimal? Type ${digits.replace(/[.,]/, '')} or ${digits.includes(',') ? digits.replace(',', '.') : Number(digits)}.`,
      )
    }
    if (!Number.isFinite(value)) return refuse(`“${text}” is not a number. Type ${accepted}.`)
    if (!unit)
      return refuse(
        name
          ? (OTHERWISE[dimension]?.[name.toLowerCase()] ??
              `“${name}” is not a unit of ${dimension}. Use ${symbols(dimension)}.`)
          : `“${text}” has a second number without a unit. Type ${accepted}.`,
      )
    negative ||= value < 0
    si += toSI(Math.abs(value), unit)
    first ??= { value, unit }
    previous = unit
    rest = rest.slice(m[0].length).trim()
  }
  if (!first) return refuse(`“${text}” is not a number. Type ${accepted}.`)
  if (dimension === 'temperature')
    return { si: toSI(first.value, first.unit), value: first.value, unit: first.unit.symbol }
  si = negative ? -si : si
  return { si, value: si / first.unit.factor, unit: first.unit.symbol }
}

function unnamed(
  previous: Unit | undefined,
  dimension: Dimension,
  bare: Unit,
  system: UnitSystem,
): Unit | undefined {
  if (!previous) return bare
  return previous.next ? findUnit(previous.next, dimension, system) : undefined
}

const symbols = (dimension: Dimension): string =>
  UNITS[dimension]
    .map((x) => x.symbol)
    .filter(Boolean)
    .join(', ')

const EXAMPLES: Readonly<Record<Dimension, readonly [string, string]>> = {
  length: ['45 cm', '6 ft 2 in'],
  head: ['1.8 m', '5 ft 11'],
  volume: ['120 L', '30 gal'],
  flow: ['900 L/h', '240 gph'],
  mass: ['1.2 kg', '2 lb 10 oz'],
  concentration: ['0.25 mg/L', '0.25 mg/L'],
  feed: ['1.5 g/d', '1.5 g/d'],
  feeding: ['15 mg/L/d', '15 mg/L/d'],
  area: ['40 cm²', '6 in²'],
  power: ['14 W', '14 W'],
  time: ['12.4 s', '12.4 s'],
  temperature: ['24 °C', '75 °F'],
  frequency: ['50 Hz', '60 Hz'],
  velocity: ['0.3 m/s', '1 ft/s'],
  sound: ['38 dB', '38 dB'],
  voltage: ['230 V', '120 V'],
  ratio: ['0.4', '40 %'],
}

/** An example of accepted input, for hints and errors. */
export const example = (dimension: Dimension, system: UnitSystem): string =>
  EXAMPLES[dimension][system === 'metric' ? 0 : 1]
