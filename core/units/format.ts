import { fromSI, preferredUnit, findUnit, type Dimension, type UnitSystem } from './dimensions'

/** Number and unit ready for the screen, apart so that each can have its own size. */
export interface Shown {
  readonly number: string
  readonly unit: string
}

const NARROW = '\u202f'

/** Groups thousands with a narrow no-break space and writes a true minus: 12 345.6, −3. */
export function groupDigits(text: string): string {
  const [whole = '', fraction] = text.split('.')
  const grouped = whole.replace('-', '').replace(/\B(?=(\d{3})+(?!\d))/g, NARROW)
  return (whole.startsWith('-') ? '−' : '') + grouped + (fraction ? `.${fraction}` : '')
}

/** Fixed decimals with grouping; never "-0". */
export const fixed = (value: number, decimals: number): string => {
  const text = value.toFixed(decimals)
  return groupDigits(Number(text) === 0 ? text.replace('-', '') : text)
}

/**
 * Decimals that show `value` to `digits` significant figures (0 or more; whole numbers are never rounded to tens
 * when `digits` is at least 3).
 */
export function decimalsFor(value: number, digits: number): number {
  if (value === 0 || !Number.isFinite(value)) return 0
  return Math.min(6, Math.max(0, digits - 1 - Math.floor(Math.log10(Math.abs(value)) + 1e-12)))
}

/** An SI value in the system's unit (or `unit`), to `digits` significant figures. */
export function showQuantity(
  si: number,
  dimension: Dimension,
  system: UnitSystem,
  digits = 3,
  unit?: string,
): Shown {
  const shownIn = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const value = fromSI(si, shownIn)
  return { number: fixed(value, decimalsFor(value, digits)), unit: shownIn.symbol }
}

/**
 * An SI value with its expanded uncertainty, rounded to the uncertainty's two leading figures (one when it starts
 * with 3 or more): 612 ± 14, 1.83 ± 0.05. The habit follows GUM 7.2.6 (JCGM 100). No number has more than four figures:
 * nothing on a bench is surer, and an uncertainty that vanishes at that is left out.
 */
export function showWithUncertainty(
  si: number,
  uncertainty: number,
  dimension: Dimension,
  system: UnitSystem,
  unit?: string,
): Shown & { readonly uncertainty: string | undefined } {
  const shownIn = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const value = fromSI(si, shownIn)
  const half = Math.abs(uncertainty) / shownIn.factor
  const lead = half > 0 ? Number(half.toExponential()[0]) : 9
  const most = value === 0 ? 6 : decimalsFor(value, 4)
  const decimals = half > 0 ? Math.min(most, decimalsFor(half, lead < 3 ? 2 : 1)) : decimalsFor(value, 3)
  const said = fixed(half, decimals)
  return {
    number: fixed(value, decimals),
    uncertainty: Number(half.toFixed(decimals)) > 0 ? said : undefined,
    unit: shownIn.symbol,
  }
}

/** Halves of an interval differ when the narrower is less than this share of the wider (common practice). */
const HALVES = 0.75

/** Is an interval better said by its ends than by a ±? */
export const isLopsided = (value: number, [low, high]: readonly [number, number]): boolean =>
  Math.min(value - low, high - value) < HALVES * Math.max(value - low, high - value)

/** A number with the ends of its 95 % interval, to what the interval allows: 557, 69 to 1880. */
export function showWithInterval(
  si: number,
  [low, high]: readonly [number, number],
  dimension: Dimension,
  system: UnitSystem,
  unit?: string,
): Shown & { readonly low: string; readonly high: string } {
  const shownIn = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const [value, from, to] = [si, low, high].map((v) => fromSI(v, shownIn)) as [number, number, number]
  const said = (v: number): string => {
    const digits = Math.max(2, Math.min(3, Math.floor(Math.log10(Math.max(1, Math.abs(v)))) + 1))
    const rounded = v === 0 ? 0 : Number(v.toPrecision(digits))
    return fixed(rounded, decimalsFor(rounded, 2))
  }
  return { number: said(value), low: said(from), high: said(to), unit: shownIn.symbol }
}

/** The same without trailing zeros after the point, for numbers whose uncertainty is not stated: 0.950 → 0.95. */
export const trimZeros = (number: string): string =>
  number.includes('.') ? number.replace(/\.?0+$/, '') : number

/** A share as a percentage: 0.845 → "84.5 %" (one decimal below 10 %). */
export const showPercent = (share: number, decimals = Math.abs(share) < 0.0995 ? 1 : 0): string =>
  `${fixed(share * 100, decimals)}${NARROW}%`
