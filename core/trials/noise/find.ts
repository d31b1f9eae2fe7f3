import { correctedFromEnergies, energyMean, type NoiseResult } from '../../bench'
import { put, inline, type Figure } from '../../figures'
import { trialConditions } from '../flows'
import { expanded, NINETY_FIVE, summary, type VariancePart } from '../../statistics'
import { USUAL_SETUP } from '../common'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

const VALIDITY: Readonly<Record<NoiseResult['validity'], string>> = {
  valid: 'background subtracted',
  'upper bound': 'the room was too loud for a sure value (less than 6 dB apart)',
  uncorrected: 'room noise included (background not measured)',
}

/**
 * Scatter of a level read once (dB, standard), and the degrees of freedom it is worth beside what readings show: rooms
 * differ. Common practice, no source.
 */
const ONE_READING = { deviation: 1.2, freedom: 2 } as const

export const noise: Finder = (trial, c) => {
  const runs = wholeReadings('noise', trial.runs)
  const values = (series: string) => runs.filter((r) => r.series === series).map((r) => r.value)
  const level = (series: string): number | null => {
    const typed = values(series)
    const log = trial.logs?.findLast((l) => l.series === series)
    return typed.length ? energyMean(typed) : (log?.energyMean ?? null)
  }
  const raw = level('with')
  if (raw === null)
    return {
      figures: [],
      sentences: [['Only the background was measured. Add a level with the filter running.']],
    }
  const background = level('without')
  const r = correctedFromEnergies(raw, background)
  // Scatter of the mean, pooled with the usual: three readings alone say too little of how they scatter (GUM 4.2.4).
  const own = (series: string): VariancePart => {
    const { n, deviation } = summary(values(series))
    const { freedom } = ONE_READING
    const degreesOfFreedom = freedom + Math.max(0, n - 1)
    const squares = freedom * ONE_READING.deviation ** 2 + Math.max(0, n - 1) * deviation ** 2
    return { variance: n ? squares / degreesOfFreedom / n : 0, degreesOfFreedom }
  }
  const meter = trial.setup?.levelUncertainty ?? USUAL_SETUP.levelUncertainty
  // The meter is off by the same in both levels and carries over as it is; what scatters is weighed by its share.
  const { weight } = r
  const parts = (['with', 'without'] as const).map((series) => {
    const { variance, degreesOfFreedom } = own(series)
    return { variance: weight[series] ** 2 * variance, degreesOfFreedom }
  })
  const variance = parts.reduce((sum, p) => sum + p.variance, (meter * (weight.with - weight.without)) ** 2)
  const figure: Figure = {
    ...base(trial, c, 'noise'),
    label: 'Sound level of the filter',
    value: r.level,
    dimension: 'sound',
    provenance: 'measured',
    uncertainty: expanded(variance, parts),
    // A bench has one meter: what it is off by is in every level it reads.
    shared: [
      { what: `sound meter, ${meter} dB`, half: NINETY_FIVE * meter * (weight.with - weight.without) },
    ],
    conditions: [
      ...trialConditions(trial, c.model),
      trial.setup?.distance ? `${trial.setup.distance} m away` : 'distance unknown',
      ...(trial.setup?.position ? [trial.setup.position] : []),
      VALIDITY[r.validity],
    ],
    formula: 'L = 10 lg(mean 10^(L/10)) − K1;  K1 = −10 lg(1 − 10^(−0.1 ΔL))',
    working: [
      put('L_with', 'with the filter', r.raw, 'sound', 'measured'),
      ...(r.background === null ? [] : [put('L_without', 'without it', r.background, 'sound', 'measured')]),
      ...(r.difference === null ? [] : [put('ΔL', 'difference', r.difference, 'sound', 'computed')]),
      put('K1', 'background correction', r.correction, 'sound', 'computed'),
    ],
    source: 'ISO 3744:2010, 8.2.3 (from memory)',
  }
  return {
    figures: [figure],
    sentences: [
      [
        trial.setup?.distance ? `At ${trial.setup.distance} m: ` : 'At an unknown distance: ',
        inline(figure),
        `, ${VALIDITY[r.validity]}.`,
      ],
    ],
  }
}
