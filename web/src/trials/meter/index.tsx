import { ClockScreen } from '../screens/ClockScreen'
import { MeterSetup } from './MeterSetup'
import type { TrialView } from '../kind'

export const meter: TrialView = {
  title: 'Flow, by meter',
  short: 'meter',
  value: { label: 'Pulses counted', dimension: 'ratio' },
  clock: {
    live: ['pulses', 'temperature'],
    stop: 'Stop counting',
    second: {
      instrument: 'pulses',
      min: 1,
      max: 1e9,
      counted: true,
      take: (n) => `Use ${n} pulses from the meter`,
    },
    lifts: true,
  },
  how: 'Count the meter’s pulses for half a minute or more.',
  Screen: ClockScreen,
  Setup: MeterSetup,
}
