import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import { ValueScreen } from '../screens/ValueScreen'
import { SetupNumber, SetupPrice } from '../setup'
import { HEADINGS, role, TIME_OF_LOG } from '../../csv/target'
import type { TrialView } from '../kind'

export const power: TrialView = {
  title: 'Power',
  short: 'watts',
  value: { label: 'Watts', dimension: 'power' },
  instrument: { gives: 'power', log: 'mean' },
  how: 'Plug it through a power meter and let it settle for a minute.',
  caution: 'Through a power meter on a residual-current device, never at an open socket.',
  Screen: ValueScreen,
  Setup: ({ trial }) => (
    <>
      <SetupNumber
        trial={trial}
        field="relative"
        label="Standard uncertainty of the meter"
        dimension="ratio"
        usual={USUAL_SETUP.relative / 2}
        unit="%"
      />
      <SetupPrice trial={trial} />
    </>
  ),
  imports: [
    {
      id: 'power',
      label: 'A log of watts',
      roles: [TIME_OF_LOG, role('value', 'Watts', 'power', 'W', HEADINGS.power, [0, 5000])],
    },
  ],
}
