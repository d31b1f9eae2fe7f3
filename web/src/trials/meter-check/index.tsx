import { MeterSetup } from '../meter/MeterSetup'
import { ValueScreen } from '../screens/ValueScreen'
import type { TrialView } from '../kind'

export const meterCheck: TrialView = {
  title: 'Check of the meter',
  short: 'meter check',
  value: { label: 'Pulses counted', dimension: 'ratio' },
  perVessel: (vessel) => `Pulses counted over the vessel’s ${Number((vessel * 1000).toPrecision(4))} L`,
  how: 'Let a known volume through and note the pulses; two or more checks give the meter’s factor.',
  Screen: ValueScreen,
  Setup: MeterSetup,
}
