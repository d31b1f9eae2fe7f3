import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import { ValueScreen } from '../screens/ValueScreen'
import { SetupNumber, SetupWords } from '../setup'
import { HEADINGS, role, TIME_OF_LOG } from '../../csv/target'
import type { TrialView } from '../kind'

export const noise: TrialView = {
  title: 'Noise',
  short: 'noise',
  value: { label: 'Level', dimension: 'sound' },
  instrument: { gives: 'sound', log: 'energyMean' },
  how: 'Same spot, same distance: levels with the filter running and without.',
  series: () => [
    ['with', 'With the filter'],
    ['without', 'Without it'],
  ],
  Screen: ValueScreen,
  Setup: ({ trial }) => (
    <>
      <SetupNumber
        trial={trial}
        field="distance"
        label="Microphone from the filter"
        dimension="length"
        usual={1}
        unit="m"
      />
      <SetupWords trial={trial} field="position" label="Position" />
      <SetupNumber
        trial={trial}
        field="levelUncertainty"
        label="Standard uncertainty of the meter"
        dimension="sound"
        usual={USUAL_SETUP.levelUncertainty}
      />
    </>
  ),
  imports: [
    {
      id: 'noise',
      label: 'A log of sound levels',
      roles: [TIME_OF_LOG, role('value', 'Level', 'sound', 'dB', HEADINGS.sound, [0, 140])],
      logSeries: 'with',
    },
  ],
}
