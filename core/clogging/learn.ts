import { requireRange, TooFew } from '../errors'

/** A share of the first flow that was left on a day, with its standard uncertainty. */
export interface Seen {
  readonly day: number
  readonly left: number
  readonly uncertainty: number
}

/** Belief about the logarithm of the pace of fouling against the constants as they ship. */
export interface Belief {
  readonly mean: number
  readonly sd: number
  /** Holds 95 %. */
  readonly low: number
  readonly high: number
}

/** Points a posterior is worked out on, evenly over ± 4 prior standard deviations. */
const FINE = 801
const REACH = 4

/** Something seen; its standard uncertainty as such, or by what was to be seen. */
interface Sighting {
  readonly value: number
  readonly uncertainty: number | ((predicted: number) => number)
}

/**
 * Posterior of x with a normal prior, from what was seen against what is predicted at each x: Bayes’ rule on 801 points
 * over ± 4 prior standard deviations; what is seen scatters normally round what is predicted.
 * @throws TooFew without a prediction for each thing seen; OutOfRange for `prior.sd` not above zero.
 */
export function posterior(
  prior: { readonly mean: number; readonly sd: number },
  predicted: (x: number) => readonly number[],
  seen: readonly Sighting[],
): Belief {
  requireRange('prior.sd', prior.sd, { min: 1e-6, max: 100 })
  // What was seen may leave far less than the prior: the grid is laid anew round what is left, until it is fine enough.
  let [centre, reach] = [prior.mean, REACH * prior.sd]
  let found = onGrid(prior, predicted, seen, centre, reach)
  for (let again = 0; again < 4 && found.sd < FEW_STEPS * ((2 * reach) / (FINE - 1)); again++) {
    ;[centre, reach] = [found.mean, Math.max(1e-9, 0.05 * reach)]
    found = onGrid(prior, predicted, seen, centre, reach)
  }
  return found
}

/** A posterior narrower than so many steps of its grid would be blurred by it. */
const FEW_STEPS = 8

/** Bayes’ rule on the points of a grid round a centre. */
function onGrid(
  prior: { readonly mean: number; readonly sd: number },
  predicted: (x: number) => readonly number[],
  seen: readonly Sighting[],
  centre: number,
  reach: number,
): Belief {
  const xs = Array.from({ length: FINE }, (_, i) => centre + reach * ((2 * i) / (FINE - 1) - 1))
  const logs = xs.map((x) => {
    const said = predicted(x)
    if (said.length < seen.length)
      throw new TooFew('predicted', said.length, seen.length, 'Each thing seen needs a prediction.')
    // Where the scatter hangs on what is predicted, a wide one is less likely to have shown just this.
    const apart = seen.reduce((sum, { value, uncertainty: u }, i) => {
      const is = said[i] as number
      const sigma = typeof u === 'number' ? u : u(is)
      return sum + ((is - value) / sigma) ** 2 + (typeof u === 'number' ? 0 : 2 * Math.log(sigma))
    }, 0)
    return -0.5 * (((x - prior.mean) / prior.sd) ** 2 + apart)
  })
  const most = Math.max(...logs)
  const weights = logs.map((l) => Math.exp(l - most))
  const all = weights.reduce((a, b) => a + b, 0)
  const share = weights.map((w) => w / all)
  const mean = share.reduce((sum, w, i) => sum + w * (xs[i] as number), 0)
  const variance = share.reduce((sum, w, i) => sum + w * ((xs[i] as number) - mean) ** 2, 0)
  const quantile = (p: number): number => {
    let sum = 0
    for (let i = 0; i < FINE; i++) {
      const next = sum + (share[i] as number)
      if (next >= p) {
        const step = (xs[1] as number) - (xs[0] as number)
        return (xs[i] as number) + step * ((p - sum) / (share[i] as number) - 0.5)
      }
      sum = next
    }
    return xs[FINE - 1] as number
  }
  return {
    mean,
    sd: Math.sqrt(variance),
    low: quantile(0.025),
    high: quantile(0.975),
  }
}
