import { ClockScreen } from '../screens/ClockScreen'
import { MeterSetup } from './MeterSetup'
import type { TrialView } from '../kind'

export const meter: TrialView = {
  title: 'Flow, by meter',
  short: 'meter',
  value: { label: 'Pulses counted', dimension: 'ratio' },
  clock: true,
  stop: 'Stop counting',
  how: 'Count the meter’s pulses for half a minute or more.',
  Screen: ClockScreen,
  Setup: MeterSetup,
}
