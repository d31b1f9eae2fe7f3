import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import { ClockScreen } from '../screens/ClockScreen'
import { SetupNumber } from '../setup'
import { HEADINGS, role, SECONDS } from '../../csv/target'
import type { TrialView } from '../kind'

export const weighed: TrialView = {
  title: 'Flow, scale and stopwatch',
  short: 'weighed',
  value: { label: 'Scale gained', dimension: 'mass' },
  clock: {
    live: ['mass', 'temperature'],
    stop: 'Stop: take it off',
    second: {
      instrument: 'mass',
      min: 1e-4,
      max: 1000,
      take: (kg) => `Use ${kg.toFixed(3)} kg from the scale`,
    },
    lifts: true,
  },
  how: 'Time the water into a vessel on a scale, then note what the scale gained.',
  Screen: ClockScreen,
  Setup: ({ trial }) => (
    <SetupNumber
      trial={trial}
      field="scale"
      label="Standard uncertainty of the scale"
      dimension="mass"
      usual={USUAL_SETUP.scale}
      unit="g"
      hint="5 g for a kitchen scale."
    />
  ),
  imports: [
    {
      id: 'weighed',
      label: 'Weighed runs',
      roles: [role('mass', 'Mass', 'mass', 'kg', HEADINGS.mass, [1e-4, 1000]), SECONDS],
      readings: ({ mass = null, seconds = null }) => [{ value: mass, seconds }],
    },
  ],
}
