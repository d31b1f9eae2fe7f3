import { flowFromRuns } from '../../bench/flowRuns'
import type { FlowOf } from '../flowOf'
import { wholeReadings } from '../readings'

/** Timed into a vessel. */
export const flow: FlowOf = {
  source: 'vessel',
  systematic: 'vessel',
  formula: 'V/t',
  from: (t) => flowFromRuns(wholeReadings('vessel', t.runs), t.method),
}
