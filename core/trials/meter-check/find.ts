import { meterFactor, type MeterFactor } from '../../bench'
import { put, putFigure, inline, type Figure } from '../../figures'
import type { TrialRecord } from '../records'
import { USUAL_SETUP } from '../common'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

export const meterCheck: Finder = (trial, c) => {
  const r = calibration(trial)
  const inUse = trial.setup?.kFactor ?? USUAL_SETUP.kFactor
  const k: Figure = {
    ...base(trial, c, 'k-factor'),
    label: 'Meter factor, pulses per litre',
    value: r.factor / 1000,
    dimension: 'ratio',
    provenance: 'measured',
    uncertainty: (2 * Math.hypot(r.standardUncertainty, r.factor * trial.method.vessel)) / 1000,
    formula: 'K = Σ V N ÷ Σ V²',
    working: wholeReadings('meter-check', trial.runs).map((run, i) =>
      put(`N${i + 1}`, 'pulses', run.value, 'ratio', 'measured'),
    ),
    source: 'least squares through the origin',
  }
  const off = inUse / r.factor - 1
  const apart: Figure = {
    ...base(trial, c, 'k-off'),
    label: 'Factor in use against this check',
    value: Math.abs(off),
    dimension: 'ratio',
    unit: '%',
    provenance: 'computed',
    formula: '|K in use ÷ K − 1|',
    working: [put('K in use', 'pulses per litre', inUse / 1000), putFigure('K', k)],
  }
  const wrong = Math.abs(inUse / 1000 - k.value) > (k.uncertainty ?? 0)
  return {
    figures: [k, apart],
    sentences: [
      wrong
        ? [
            'Wrong meter factor: ',
            inline(apart),
            ` ${off > 0 ? 'too high, so its flows read low' : 'too low, so its flows read high'}. Set it to `,
            inline(k),
            '.',
          ]
        : ['The meter factor agrees with this check.'],
    ],
  }
}

/** The meter factor of a calibration trial. @throws OutOfRange with fewer than two checks. */
export const calibration = (trial: TrialRecord): MeterFactor =>
  meterFactor(wholeReadings('meter-check', trial.runs).map((r) => ({ pulses: r.value, volume: r.volume })))
