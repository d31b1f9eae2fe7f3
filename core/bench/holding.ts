import { OutOfRange, TooFew } from '../errors'

/** How long a cup or clip held (s); `censored`: it still held when the watch was stopped. */
export interface Holding {
  readonly seconds: number
  readonly censored: boolean
}

/** One step of a survival curve: share still holding after `time`, with Greenwood's standard error. */
export interface SurvivalStep {
  readonly time: number
  readonly atRisk: number
  readonly failed: number
  readonly survival: number
  readonly standardError: number
}

/** The curve, and the time by which half have let go; null while more than half still held. */
export interface Survival {
  readonly steps: readonly SurvivalStep[]
  readonly median: number | null
}

/**
 * Product-limit estimate of holding times; a censored one counts as long as it was watched and is never averaged.
 * Source: Kaplan and Meier, J. Am. Stat. Assoc. 53 (1958) 457; variance after Greenwood (1926).
 * @throws TooFew without times, OutOfRange naming `times[i].seconds`.
 */
export function kaplanMeier(times: readonly Holding[]): Survival {
  if (!times.length) throw new TooFew('times', 0, 1, 'There is no holding time yet.')
  times.forEach((t, i) => {
    if (!(t.seconds >= 0) || !Number.isFinite(t.seconds))
      throw new OutOfRange(`times[${i}].seconds`, t.seconds, { min: 0, unit: 's' })
  })
  const failures = [...new Set(times.filter((t) => !t.censored).map((t) => t.seconds))].sort((a, b) => a - b)
  let survival = 1
  let greenwood = 0
  const steps = failures.map((time): SurvivalStep => {
    const atRisk = times.filter((t) => t.seconds >= time).length
    const failed = times.filter((t) => !t.censored && t.seconds === time).length
    survival *= 1 - failed / atRisk
    greenwood += atRisk > failed ? failed / (atRisk * (atRisk - failed)) : 0
    return { time, atRisk, failed, survival, standardError: survival * Math.sqrt(greenwood) }
  })
  // Products of shares such as 5/6 · 4/5 · 3/4 are one half exactly, and a rounding short of it in binary.
  return { steps, median: steps.find((s) => s.survival <= 0.5 + 1e-9)?.time ?? null }
}
