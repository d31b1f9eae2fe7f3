import { looksMixed, mixedResponse, tracerFigures, type TracerPoint } from '../../bench'
import { CoreError } from '../../errors'
import { pulseDoubts, riseDoubts, type DyeDoubts } from './doubt'
import type { Figure, Sentence } from '../../figures'
import { trialConditions } from '../flows'
import type { TrialRecord } from '../records'
import type { Finder, FindingContext } from '../finding'
import { wholeReadings } from '../readings'
import type { BenchReading } from '../../bench/shape'
import { type DyePoint, dyeSentences } from './words'

/** V/Q (s), with its relative standard uncertainty. */
interface Nominal {
  readonly value: number
  readonly relative: number
}

/** Reads one point's curve. @throws TooFew or OutOfRange as the core functions do. */
export function dyePoint(point: string, curve: readonly TracerPoint[], nominal: Nominal | null): DyePoint {
  const mixed = looksMixed(curve)
  return {
    point,
    mixing: mixed ? mixedResponse(curve) : null,
    pulse: mixed ? null : tracerFigures(curve, nominal?.value ?? null),
    doubts: mixed ? riseDoubts(curve) : pulseDoubts(curve, nominal),
  }
}

/** The curves of a dye trial by point, typed or tapped, in time order. */
export function dyeCurves(runs: readonly BenchReading[]): ReadonlyMap<string, readonly TracerPoint[]> {
  const out = new Map<string, TracerPoint[]>()
  for (const r of wholeReadings('dye', runs)) {
    const list = out.get(r.series) ?? []
    list.push({ time: r.seconds, concentration: r.value })
    out.set(r.series, list)
  }
  for (const [key, list] of out) {
    list.sort((a, b) => a.time - b.time)
    // Of two taps in one instant the later one stands.
    out.set(
      key,
      list.filter((p, i) => list[i + 1]?.time !== p.time),
    )
  }
  return out
}

/** An interval as a figure has it. */
const within = (interval: DyeDoubts[string] | undefined, value: number): Partial<Figure> =>
  interval
    ? {
        interval: [Math.min(interval[0], value), Math.max(interval[1], value)],
        uncertainty: Math.max(value - interval[0], interval[1] - value),
      }
    : {}

/** Figures of one dye point, for a trial's id and conditions. */
export function dyeFigures(
  trial: { readonly id: string },
  d: DyePoint,
  conditions: readonly string[],
): readonly Figure[] {
  const make = (
    id: string,
    label: string,
    value: number,
    dimension: Figure['dimension'],
    formula: string,
    source: string,
    unit?: string,
  ): Figure[] =>
    Number.isFinite(value)
      ? [
          {
            id: `dye-${trial.id}-${d.point}-${id}`,
            label: `${label}, ${d.point || 'the point'}`,
            value,
            dimension,
            provenance: 'computed',
            conditions,
            formula,
            working: [],
            source,
            ...within(d.doubts[id], value),
            ...(unit && { unit }),
          },
        ]
      : []
  const MIX = 'mixed vessel behind a delay, Levenspiel ch. 12'
  const LEV = 'Levenspiel, Chemical Reaction Engineering, ch. 11'
  if (d.mixing)
    return [
      ...make('coloured', 'Colours after', d.mixing.coloured, 'time', 't at 10 % of the final strength', MIX),
      ...make('delay', 'Delay', d.mixing.delay, 'time', 'C = C∞ (1 − e^(−(t − t₀)/τ)), t₀', MIX),
      ...make('tau', 'Time constant', d.mixing.timeConstant, 'time', 'C = C∞ (1 − e^(−(t − t₀)/τ)), τ', MIX),
      ...(d.mixing.mixed === null
        ? []
        : make(
            'mixed',
            'Mixed after',
            d.mixing.mixed,
            'time',
            'last time it is more than 5 % off the final strength',
            MIX,
          )),
    ]
  if (!d.pulse) return []
  const p = d.pulse
  return [
    ...make('mean', 'Mean residence time', p.meanResidence, 'time', 't̄ = ∫tC dt ÷ ∫C dt', LEV),
    ...make('tanks', 'Tanks in series', p.tanksInSeries, 'ratio', 'N = t̄² ÷ σ²', LEV),
    ...make('t10', 't10', p.t10, 'time', 'time by which 10 % has passed', LEV),
    ...make(
      'morrill',
      'Morrill index',
      p.morrill,
      'ratio',
      't90 ÷ t10',
      'Morrill 1932, as used by the US EPA',
    ),
    ...(p.deadShare === null
      ? []
      : make('dead', 'Dead volume', p.deadShare, 'ratio', '1 − t̄ ÷ (V/Q), never below nothing', LEV, '%')),
  ]
}

/** How sure a volume of a body is (relative, standard; common practice, no source). */
const VOLUME = 0.02

/**
 * V/Q of the very state the dye was watched in, a dirty filter's flow being another one; null where volume or flow is
 * not known.
 */
export function nominalOf(trial: TrialRecord, flows: FindingContext['flows']): Nominal | null {
  const volume = trial.setup?.volume
  const at = flows.findLast(
    (f) =>
      f.trial.hookupId === trial.hookupId &&
      f.trial.state === trial.state &&
      Math.abs(f.trial.lift - trial.lift) < 0.005 &&
      f.trial.mainsFrequency === trial.mainsFrequency &&
      (f.trial.valve ?? 1) === (trial.valve ?? 1),
  )
  if (!volume || !at) return null
  const { mean, standardUncertainty } = at.result
  return { value: volume / mean, relative: Math.hypot(VOLUME, standardUncertainty / mean) }
}

export const dye: Finder = (trial, c) => {
  const conditions = trialConditions(trial, c.model)
  const nominal = nominalOf(trial, c.flows)
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  const problems: string[] = []
  for (const [point, curve] of dyeCurves(trial.runs)) {
    const watched = (trial.setup?.points ?? []).length > 1 || point ? point || 'the point' : 'the point'
    try {
      const d = dyePoint(watched, curve, nominal)
      const own = dyeFigures(trial, d, conditions)
      figures.push(...own)
      sentences.push(...dyeSentences(d, own))
    } catch (error) {
      if (!(error instanceof CoreError)) throw error
      problems.push(`${watched}: ${error.message}`)
    }
  }
  return { figures, sentences: [...sentences, ...problems.map((p) => [p])] }
}
