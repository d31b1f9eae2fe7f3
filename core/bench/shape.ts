/** The shortest run a hand can time (s), and the longest: a day. Common practice, no source. */
export const SHORTEST_RUN = 0.5
export const LONGEST_RUN = 86400
/** Longest time anything is watched (s): a hundred years of cups that hold. */
export const LONGEST_WATCH = 100 * 365.25 * 86400

/**
 * One reading of any trial as it is kept, SI. What `value` is follows the kind: mass (kg), pulses, flow (m³/s), head
 * (m), watts, dB, strength of dye, air flow (m³/s), water leaked (m³).
 */
export interface BenchReading {
  readonly volume?: number | null | undefined
  readonly seconds?: number | null | undefined
  readonly value?: number | null | undefined
  /** Which of several series: with or without the filter, a point in the tank, cup or clip, what was tried. */
  readonly series?: string | undefined
  readonly outcome?: string | undefined
  readonly note?: string | undefined
}

export interface Limits {
  readonly min: number
  readonly max: number
  readonly unit: string
}
/** Fault of a reading: the field, and what would be accepted. */
export interface ReadingProblem {
  readonly field: string
  readonly message: string
}

/** Setup fields of a kind, beside what is common to several. */
export type SetupField =
  | (Limits & { readonly is: 'number' })
  | { readonly is: 'text'; readonly max: number }
  | { readonly is: 'texts'; readonly each: number; readonly most: number }
  | { readonly is: 'choice'; readonly of: readonly [string, ...string[]] }

/** Shape of the readings of a kind of trial, and of its setup. */
export interface TrialShape {
  /** Above zero, in m³. */
  readonly volume?: true
  readonly seconds?: { readonly min: number; readonly max: number }
  readonly value?: Limits
  readonly series?: readonly [string, ...string[]]
  readonly outcome?: readonly [string, ...string[]]
  /** Limits of the value that differ by series. */
  readonly valueBySeries?: Readonly<Record<string, Limits>>
  /** The value need not be there. */
  readonly valueOptional?: true
  /** Further check of a reading that has all its parts. */
  readonly check?: (r: BenchReading) => ReadingProblem | null
  /** Ends in a flow of water under the trial's conditions. */
  readonly flow?: true
  /** Is timed into a vessel of known volume. */
  readonly vessel?: true
  /** Is started and stopped by hand, so that reaction counts. */
  readonly byHand?: true
  /** Readings that make it count as done; one unless said. */
  readonly enough?: number
  readonly setup?: Readonly<Record<string, SetupField>>
}

type Part<S extends TrialShape, K extends keyof TrialShape, V> =
  S extends Record<K, object | true> ? V : object
/** A reading of a kind with every part its shape asks for. */
export type ReadingOf<S extends TrialShape> = Part<S, 'volume', { readonly volume: number }> &
  Part<S, 'seconds', { readonly seconds: number }> &
  Part<S, 'value', { readonly value: S extends { valueOptional: true } ? number | null : number }> &
  (S extends { series: readonly (infer V)[] } ? { readonly series: V } : { readonly series: string }) &
  (S extends { outcome: readonly (infer V)[] } ? { readonly outcome: V } : { readonly outcome: string }) & {
    readonly note: string
  }

const outside = ({ min, max, unit }: Limits, v: number | null | undefined): string | null =>
  v !== null && v !== undefined && v >= min && v <= max ? null : `from ${min} to ${max} ${unit}`.trim()

/** Fault of a reading against a shape; null when there is none. */
export function shapeProblem(shape: TrialShape, r: BenchReading): ReadingProblem | null {
  const bad = (field: string, message: string): ReadingProblem => ({ field, message })
  if (shape.volume && !((r.volume ?? 0) > 0)) return bad('volume', 'a volume above zero')
  const { seconds } = shape
  if (seconds && !((r.seconds ?? -1) >= seconds.min)) return bad('seconds', `at least ${seconds.min} s`)
  if (seconds && (r.seconds ?? 0) > seconds.max) return bad('seconds', `at most ${seconds.max} s`)
  if (shape.series && !shape.series.includes(r.series ?? ''))
    return bad('series', `one of ${shape.series.join(', ')}`)
  if (shape.outcome && !shape.outcome.includes(r.outcome ?? ''))
    return bad('outcome', `one of ${shape.outcome.join(', ')}`)
  const limits = shape.valueBySeries?.[r.series ?? ''] ?? shape.value
  const wrong = limits && !(shape.valueOptional && (r.value ?? null) === null) && outside(limits, r.value)
  if (wrong) return bad('value', wrong)
  return shape.check?.(r) ?? null
}
