import { flowFromWeighedRuns } from '../../bench/weighed'
import { waterProperties } from '../../water'
import { USUAL_SETUP } from '../common'
import { timing, type FlowOf } from '../flowOf'
import { wholeReadings } from '../readings'

/** Weighed in the manner of ISO 4185. */
export const flow: FlowOf = {
  source: 'scale',
  systematic: 'scale',
  formula: 'm B / (ρ t)',
  reads: { symbol: 'm', label: 'scale gained', dimension: 'mass' },
  standard: 'ISO 4185',
  from: (t) =>
    flowFromWeighedRuns(
      wholeReadings('weighed', t.runs).map((r) => ({ mass: r.value, seconds: r.seconds })),
      waterProperties({ temperature: t.waterTemperature, salinity: t.salinity ?? 0 }).density,
      {
        scale: t.setup?.scale ?? USUAL_SETUP.scale,
        ...timing(t.method),
      },
    ),
}
