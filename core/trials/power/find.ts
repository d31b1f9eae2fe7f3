import { hydraulicPower, powerFromSummary, wireToWater } from '../../bench'
import { put, putFigure, inline, type Figure, type Sentence } from '../../figures'
import { claimed, labelFigure } from '../labels'
import { fromMinor } from '../../units'
import { waterProperties } from '../../water'
import { summary } from '../../statistics'
import { USUAL_SETUP } from '../common'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

export const power: Finder = (trial, c) => {
  const meter = trial.setup?.relative ?? USUAL_SETUP.relative / 2
  const log = trial.logs?.at(-1)
  const typed = wholeReadings('power', trial.runs).map((r) => r.value)
  const r = powerFromSummary(typed.length ? summary(typed) : (log ?? summary(typed)), meter)
  const watts: Figure = {
    ...base(trial, c, 'power'),
    label: 'Power taken',
    value: r.mean,
    dimension: 'power',
    provenance: 'measured',
    uncertainty: r.expandedUncertainty,
    formula: 'P = mean;  U = k · √(u_A² + (P · u_meter)²)',
    working: [
      put('n', log && !typed.length ? 'points of the log' : 'readings', r.n),
      put('u', 'combined standard uncertainty', r.standardUncertainty, 'power'),
      put('u_meter', 'of the meter, share of its reading', meter, 'ratio', 'rule'),
    ],
    source: 'GUM, JCGM 100:2008',
  }
  const year: Figure = {
    ...base(trial, c, 'energy'),
    label: 'Energy in a year, kWh',
    value: r.yearlyEnergy,
    dimension: 'ratio',
    provenance: 'computed',
    uncertainty: r.yearlyEnergy * (r.expandedUncertainty / r.mean || 0),
    formula: 'E = P · 8765.82 h ÷ 1000',
    working: [putFigure('P', watts)],
  }
  const figures = [watts, year]
  const { pricePerKwhMinor, currency } = trial.setup ?? {}
  if (pricePerKwhMinor && currency) {
    const price = fromMinor(pricePerKwhMinor, currency)
    figures.push({
      ...base(trial, c, 'cost'),
      label: `Cost of a year, ${currency}`,
      value: r.yearlyEnergy * price,
      dimension: 'ratio',
      provenance: 'computed',
      formula: 'E · price per kWh',
      working: [putFigure('E', year), put('price', `per kWh, ${currency}`, price)],
    })
  }
  const at = c.flows.findLast((f) => f.trial.state === trial.state && f.trial.hookupId === trial.hookupId)
  const head =
    at && c.main?.measured?.figure.id === at.figure.id
      ? c.main.measured.pumpHead
      : trial.hookupId && c.main?.hookup.id === trial.hookupId
        ? c.main.duty.head
        : null
  if (at && head !== null && r.mean > 0) {
    const { density } = waterProperties({ temperature: trial.waterTemperature })
    const water = hydraulicPower(density, at.result.mean, head)
    figures.push({
      ...base(trial, c, 'efficiency'),
      label: 'Of it, reaches the water',
      value: wireToWater(water, r.mean),
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      formula: 'η = ρ g Q H ÷ P',
      working: [
        put('ρ', 'density of the water, kg/m³', density),
        putFigure('Q', at.figure),
        put('H', 'pump head at that flow', head, 'head', 'computed'),
        putFigure('P', watts),
      ],
      source: 'hydraulic power of a pump, any handbook',
    })
  }
  const claim = claimed(c.model, 'power', trial.mainsFrequency)
  const label = claim && labelFigure(claim, trial.mainsFrequency)
  const sentences: Sentence[] = label
    ? [
        [
          'Power ',
          inline(watts),
          ', label ',
          inline(label),
          ': ',
          Math.abs(r.mean - label.value) <= r.expandedUncertainty
            ? 'equal within the uncertainty.'
            : r.mean > label.value
              ? 'more than the label.'
              : 'less than the label.',
        ],
      ]
    : []
  return { figures, sentences }
}
