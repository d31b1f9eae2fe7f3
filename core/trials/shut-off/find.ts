import { put, inline, type Figure } from '../../figures'
import { claimed, labelFigure } from '../labels'
import { summary } from '../../statistics'
import { base, type Finder } from '../finding'
import { wholeReadings } from '../readings'

export const shutOff: Finder = (trial, c) => {
  const heads = wholeReadings('shut-off', trial.runs).map((r) => r.value)
  const s = summary(heads)
  const figure: Figure = {
    ...base(trial, c, 'shut-off'),
    label: 'Maximum head',
    value: s.mean,
    dimension: 'head',
    provenance: 'measured',
    uncertainty: 2 * Math.hypot(0.01, s.deviation / Math.sqrt(s.n)),
    formula: 'mean of the heights;  U = 2 · √(u_tape² + u_A²)',
    working: heads.map((h, i) => put(`H${i + 1}`, 'height', h, 'head', 'measured')),
    source: 'GUM, JCGM 100:2008; tape and eye 10 mm',
  }
  const claim = claimed(c.model, 'max-head', trial.mainsFrequency)
  const label = claim && labelFigure(claim, trial.mainsFrequency)
  return {
    figures: [figure],
    sentences: label ? [['Maximum head ', inline(figure), ', label ', inline(label), '.']] : [],
  }
}
