import { airliftAgainst } from '../../bench'
import { put, inline, type Figure, type Sentence } from '../../figures'
import { summary } from '../../statistics'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'
import { waterRuns } from './flow'

export const air: Finder = (trial, c) => {
  const runs = wholeReadings('air', trial.runs)
  const meanOf = (series: string): number | null => {
    const v = runs.filter((r) => r.series === series).map((r) => r.value)
    return v.length ? summary(v).mean : null
  }
  const figures: Figure[] = []
  const sentences: Sentence[] = []
  const supplied = meanOf('supplied')
  const riser = meanOf('riser')
  if (supplied !== null && riser !== null && supplied > 0) {
    const leak: Figure = {
      ...base(trial, c, 'air-leak'),
      label: 'Air lost at the fitting',
      value: Math.max(0, 1 - riser / supplied),
      dimension: 'ratio',
      unit: '%',
      provenance: 'measured',
      formula: '1 − air up the riser ÷ air supplied',
      working: [
        put('riser', 'air up the riser', riser, 'flow', 'measured'),
        put('supplied', 'air supplied', supplied, 'flow', 'measured'),
      ],
    }
    figures.push(leak)
    sentences.push(
      leak.value > 0.05
        ? [inline(leak), ' of the air is lost at the fitting and lifts no water.']
        : ['The fitting holds: ', inline(leak), ' of the air is lost.'],
    )
  }
  const { riserDiameter, submergence } = trial.setup ?? {}
  const points = waterRuns(runs)
  if (points.length && riserDiameter && submergence) {
    const share = supplied && riser ? riser / supplied : 1
    const model = airliftAgainst(
      { diameter: riserDiameter, submergence, lift: Math.max(0, trial.lift) },
      points.map((p) => ({ air: p.air * share, water: p.volume / p.seconds })),
    )
    const figure: Figure = {
      ...base(trial, c, 'airlift-ratio'),
      label: 'Water lifted, share of the airlift model',
      value: model.ratio,
      dimension: 'ratio',
      unit: '%',
      provenance: 'computed',
      formula: 'Σ measured ÷ Σ calculated',
      working: model.points.map((p, i) =>
        put(`Q${i + 1}`, 'model, at the same air', p.model, 'flow', 'computed'),
      ),
      source: 'drift flux, Nicklin 1962; momentum balance, Clark and Dabolt 1986',
    }
    figures.push(figure)
    sentences.push(['It lifts ', inline(figure), ' of the calculated flow for this riser and air.'])
  }
  const most = points.length
    ? points.reduce((b, p) => (b.volume / b.seconds >= p.volume / p.seconds ? b : p))
    : null
  if (most) {
    const flow: Figure = {
      ...base(trial, c, 'air-most'),
      label: 'Most water lifted',
      value: most.volume / most.seconds,
      dimension: 'flow',
      provenance: 'measured',
      formula: 'Q = V/t',
      working: [
        put('V', 'vessel', most.volume, 'volume', 'measured'),
        put('t', 'seconds', most.seconds, 'time', 'measured'),
        put('air', 'air supplied', most.air, 'flow', 'measured'),
      ],
    }
    figures.push(flow)
    sentences.push([
      'Most water lifted: ',
      inline(flow),
      ' with ',
      { si: most.air, dimension: 'flow' },
      ' of air.',
    ])
  }
  return { figures, sentences }
}
