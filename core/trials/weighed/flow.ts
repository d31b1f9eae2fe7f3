import { flowFromWeighedRuns } from '../../bench/weighed'
import { waterProperties } from '../../water'
import { USUAL_SETUP } from '../common'
import type { FlowOf } from '../flowOf'
import { wholeReadings } from '../readings'

/** Weighed in the manner of ISO 4185. */
export const flow: FlowOf = {
  source: 'scale',
  systematic: 'scale',
  formula: 'm B / (ρ t)',
  standard: 'ISO 4185',
  from: (t) =>
    flowFromWeighedRuns(
      wholeReadings('weighed', t.runs).map((r) => ({ mass: r.value, seconds: r.seconds })),
      waterProperties({ temperature: t.waterTemperature }).density,
      {
        scale: t.setup?.scale ?? USUAL_SETUP.scale,
        resolution: t.method.resolution,
        reaction: t.method.reaction,
      },
    ),
}
