import { flowFromRuns } from '../../bench/flowRuns'
import { USUAL_SETUP } from '../common'
import type { FlowOf } from '../flowOf'
import { wholeReadings } from '../readings'

/** Read off an instrument or somebody's curve. */
export const flow: FlowOf = {
  source: 'figure read off',
  systematic: 'instrument',
  formula: null,
  from: (t) =>
    flowFromRuns(
      wholeReadings('read', t.runs).map((r) => ({ volume: r.value, seconds: 1 })),
      { vessel: t.setup?.relative ?? USUAL_SETUP.relative, resolution: 0, reaction: 0, repeatability: 0 },
    ),
}
