import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 140, unit: 'dB' },
  series: ['with', 'without'],
  setup: {
    /** Standard uncertainty of the sound level meter (dB). */
    levelUncertainty: { is: 'number', min: 0, max: 20, unit: 'dB' },
    /** Microphone from the filter (m), and where. */
    distance: { is: 'number', min: 0.01, max: 100, unit: 'm' },
    position: { is: 'text', max: 120 },
  },
} as const satisfies TrialShape
