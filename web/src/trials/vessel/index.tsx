import { ClockScreen } from '../screens/ClockScreen'
import { HEADINGS, role, SECONDS } from '../../csv/target'
import type { TrialView } from '../kind'

export const vessel: TrialView = {
  title: 'Flow, vessel and stopwatch',
  short: 'timed vessel',
  clock: { live: [], lifts: true, advises: true },
  how: 'Hold the outlet over a marked vessel; start as the water falls in, stop at the mark.',
  Screen: ClockScreen,
  imports: [
    {
      id: 'runs',
      label: 'Timed runs of a vessel',
      roles: [role('volume', 'Volume', 'volume', 'L', HEADINGS.volume, [1e-6, 10]), SECONDS],
      readings: ({ volume = null, seconds = null }) => [{ volume, seconds }],
      trial: ({ volume }) => (volume ? { vesselVolume: volume } : {}),
    },
  ],
}
