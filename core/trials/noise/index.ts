import { correctedFromEnergies, energyMean, type NoiseResult } from '../../bench'
import { put, sayFigure, type Figure } from '../../figures'
import { trialConditions } from '../../judging/flows'
import { summary } from '../../statistics'
import { USUAL_SETUP } from '../common'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

const VALIDITY: Readonly<Record<NoiseResult['validity'], string>> = {
  valid: 'background corrected, valid',
  'upper bound': 'less than 6 dB over the background: no louder than this, no more can be said',
  uncorrected: 'background not measured: the room is in it',
}

/** Standard uncertainty of a level read once (dB). Common practice, no source. */
const ONE_READING = 0.5

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
      sentences: [['Only the background was measured yet: note a level with the filter running.']],
    }
  const background = level('without')
  const r = correctedFromEnergies(raw, background)
  const own = (series: string): number => {
    const v = values(series)
    return v.length > 1 ? summary(v).deviation / Math.sqrt(v.length) : v.length * ONE_READING
  }
  const meter = trial.setup?.levelUncertainty ?? USUAL_SETUP.levelUncertainty
  // The meter is off by the same in both levels and carries over as it is; what scatters is weighed by its share.
  const { weight } = r
  const u = Math.hypot(
    meter * (weight.with - weight.without),
    weight.with * own('with'),
    weight.without * own('without'),
  )
  const figure: Figure = {
    ...base(trial, c, 'noise'),
    label: 'Sound level of the filter',
    value: r.level,
    dimension: 'sound',
    provenance: 'measured',
    uncertainty: 2 * u,
    conditions: [
      ...trialConditions(trial, c.model),
      trial.setup?.distance ? `${trial.setup.distance} m away` : 'distance not noted',
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
        trial.setup?.distance ? `At ${trial.setup.distance} m: ` : 'At a distance nobody noted: ',
        sayFigure(figure),
        `, ${VALIDITY[r.validity]}.`,
      ],
    ],
  }
}
