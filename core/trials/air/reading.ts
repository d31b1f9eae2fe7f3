import { BORE } from '../../hydraulics/segments'
import { SHORTEST_RUN, type TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 0.1, unit: 'm³/s of air' },
  series: ['water', 'supplied', 'riser'],
  check: (r) =>
    r.series === 'water' && !((r.volume ?? 0) > 0 && (r.seconds ?? 0) >= SHORTEST_RUN)
      ? { field: 'volume', message: 'the water lifted and the seconds it took' }
      : null,
  vessel: true,
  byHand: true,
  setup: {
    /** Riser of an airlift: bore, depth of the air's entry (m). */
    riserDiameter: { is: 'number', ...BORE },
    submergence: { is: 'number', min: 0.005, max: 5, unit: 'm' },
    stone: { is: 'text', max: 80 },
  },
} as const satisfies TrialShape
