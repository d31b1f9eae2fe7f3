import type { TrialShape } from '../../bench/shape'

export const reading = {
  value: { min: 0, max: 500, unit: 'mg/L' },
  series: ['ammonia', 'nitrite', 'nitrate', 'ph', 'temperature'],
  valueBySeries: {
    ammonia: { min: 0, max: 50e-3, unit: 'kg/m³' },
    nitrite: { min: 0, max: 50e-3, unit: 'kg/m³' },
    nitrate: { min: 0, max: 500e-3, unit: 'kg/m³' },
    ph: { min: 3, max: 11, unit: '' },
    temperature: { min: 0, max: 40, unit: '°C' },
  },
  setup: {
    readBy: { is: 'choice', of: ['card', 'meter'] },
    /** Quantity that the card or meter counts: the ion, as most do, or the nitrogen in it. */
    countedAs: { is: 'choice', of: ['ion', 'nitrogen'] },
    /** Steps of the card, or of the meter's last digit, kg/m³ where it is a concentration. */
    stepAmmonia: { is: 'number', min: 1e-6, max: 0.05, unit: 'kg/m³' },
    stepNitrite: { is: 'number', min: 1e-6, max: 0.05, unit: 'kg/m³' },
    stepNitrate: { is: 'number', min: 1e-6, max: 0.5, unit: 'kg/m³' },
    stepPh: { is: 'number', min: 0.001, max: 2, unit: '' },
    stepTemperature: { is: 'number', min: 0.01, max: 5, unit: '°C' },
    /** Which binding conditioner was used, and when; empty for none. */
    conditioner: { is: 'text', max: 120 },
  },
} as const satisfies TrialShape
