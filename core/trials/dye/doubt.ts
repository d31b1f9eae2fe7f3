import { mixedResponse, tracerFigures, type TracerPoint } from '../../bench'
import { CoreError } from '../../errors'
import { dice } from '../../statistics'

/**
 * Scatter of a strength read against a scale (standard): so much of itself and so much of the highest; and the
 * degrees of freedom that is worth beside what the curve itself shows. Common practice, no source.
 */
const READ = { share: 0.08, ofHighest: 0.005, freedom: 6 } as const
/** A curve is believed no smoother than this share of the usual scatter. */
const LEAST = 0.1
/** Draws, and points of a longer curve that take part in each. */
const DRAWS = 200
const MOST_POINTS = 200

/** A number of a curve, and where it lies in 95 of 100 cases. */
export type DyeDoubts = Readonly<Record<string, readonly [low: number, high: number]>>

/** Scatter of a point (any unit, standard): the usual, scaled as the curve is rougher or smoother than that. */
function scatterOf(curve: readonly TracerPoint[]): (c: number) => number {
  const highest = Math.max(...curve.map((p) => p.concentration))
  const usual = (c: number): number => READ.share * c + READ.ofHighest * highest
  let squares: number = READ.freedom
  for (let i = 1; i + 1 < curve.length; i++) {
    const [a, b, c] = [curve[i - 1], curve[i], curve[i + 1]] as [TracerPoint, TracerPoint, TracerPoint]
    const t = (b.time - a.time) / (c.time - a.time)
    const off = b.concentration - (1 - t) * a.concentration - t * c.concentration
    squares += off ** 2 / (1 + (1 - t) ** 2 + t ** 2) / usual(b.concentration) ** 2
  }
  const scale = Math.max(LEAST, Math.sqrt(squares / (READ.freedom + Math.max(0, curve.length - 2))))
  return (c) => scale * usual(c)
}

/**
 * Doubt of a curve’s numbers by the scatter of its points: they are drawn anew round it, two hundred times, and
 * each number worked out again; its 95 % are laid round what the curve itself gives. Where what is read from it needs a
 * tail that was not waited for, that is in it.
 * Source: parametric bootstrap, Efron and Tibshirani 1993; JCGM 101.
 */
function doubts(
  curve: readonly TracerPoint[],
  numbers: (c: readonly TracerPoint[]) => Readonly<Record<string, number | null>>,
): DyeDoubts {
  const every = Math.max(1, Math.ceil(curve.length / MOST_POINTS))
  const few = curve.filter((_, i) => i % every === 0 || i === curve.length - 1)
  const scatter = scatterOf(few)
  const d = dice(4680)
  const drawn = Array.from({ length: DRAWS }, () => {
    try {
      // Thinned points stand for those beside them, whose scatter goes out against theirs.
      return numbers(
        few.map((p) => ({
          ...p,
          concentration: Math.max(
            0,
            p.concentration + (scatter(p.concentration) * d.normal()) / Math.sqrt(every),
          ),
        })),
      )
    } catch (error) {
      if (error instanceof CoreError) return {}
      throw error
    }
  })
  return Object.fromEntries(
    Object.entries(numbers(curve)).flatMap(([key, value]) => {
      const all = drawn
        .map((n) => n[key])
        .filter((v): v is number => typeof v === 'number' && Number.isFinite(v))
        .sort((a, b) => a - b)
      if (value === null || !Number.isFinite(value) || all.length < DRAWS / 2) return []
      const at = (p: number): number => all[Math.round(p * (all.length - 1))] as number
      const middle = at(0.5)
      // Times and ratios by their factor; what may be nothing or less by what is between.
      const times = middle > 0 && (all[0] as number) > 0 && value > 0
      const end = (p: number): number => (times ? (value * at(p)) / middle : value + at(p) - middle)
      return [[key, [end(0.025), end(0.975)] as const]]
    }),
  )
}

/** Doubts of the numbers of a pulse; `nominal` V/Q (s) with its relative standard uncertainty. */
export function pulseDoubts(
  curve: readonly TracerPoint[],
  nominal: { readonly value: number; readonly relative: number } | null,
): DyeDoubts {
  const d = dice(97)
  return doubts(curve, (c) => {
    const p = tracerFigures(c, nominal?.value ?? null)
    const through = nominal ? nominal.value * (1 + (c === curve ? 0 : nominal.relative * d.normal())) : null
    return {
      mean: p.meanResidence,
      tanks: p.tanksInSeries,
      t10: p.t10,
      morrill: p.morrill,
      dead: through === null ? null : 1 - p.meanResidence / through,
    }
  })
}

/** Doubts of the numbers of a rise. */
export const riseDoubts = (curve: readonly TracerPoint[]): DyeDoubts =>
  doubts(curve, (c) => {
    const m = mixedResponse(c)
    return { coloured: m.coloured, delay: m.delay, tau: m.timeConstant, mixed: m.mixed }
  })
