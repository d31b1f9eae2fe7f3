import { USUAL_SETUP } from '@ypsometer/core/trials/common'
import { ValueScreen } from '../screens/ValueScreen'
import { SetupNumber } from '../setup'
import { HEADINGS, role } from '../../csv/target'
import type { TrialView } from '../kind'

export const read: TrialView = {
  title: 'Flow, read off',
  short: 'read off',
  value: { label: 'Flow', dimension: 'flow' },
  how: 'A flow some instrument shows, or a point of somebody’s curve. Say whose in the note.',
  Screen: ValueScreen,
  Setup: ({ trial }) => (
    <SetupNumber
      trial={trial}
      field="relative"
      label="Standard uncertainty of the instrument"
      dimension="ratio"
      usual={USUAL_SETUP.relative}
      unit="%"
    />
  ),
  imports: [
    {
      id: 'curve',
      label: 'Points of a head–flow curve',
      roles: [
        role('head', 'Head', 'head', 'm', HEADINGS.head, [0, 20]),
        role('flow', 'Flow', 'flow', 'L/h', HEADINGS.flow, [0, 1]),
      ],
      readings: ({ flow = null }) => [{ value: flow }],
      trialEach: 'head',
    },
  ],
}
