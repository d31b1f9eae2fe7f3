import { mean } from 'simple-statistics'
import { flowFromRuns } from '../../bench/flowRuns'
import { USUAL_SETUP } from '../common'
import { timing, type FlowOf } from '../flowOf'
import { wholeReadings } from '../readings'

/** Pulses over K. A meter counts whole pulses, so one pulse either way (rectangular) is part of its uncertainty. */
export const flow: FlowOf = {
  source: 'flow meter',
  systematic: 'meter factor and its whole pulses',
  formula: 'N / (K t)',
  reads: { symbol: 'N', label: 'pulses', dimension: 'ratio' },
  from: (t) => {
    const runs = wholeReadings('meter', t.runs)
    const pulses = mean(runs.map((r) => r.value))
    const factor = t.setup?.kFactor ?? USUAL_SETUP.kFactor
    const share = t.setup?.kUncertainty ?? USUAL_SETUP.kUncertainty
    return flowFromRuns(
      runs.map((r) => ({ volume: r.value / factor, seconds: r.seconds })),
      {
        vessel: Math.hypot(share, 1 / (Math.sqrt(3) * pulses)),
        ...timing(t.method),
      },
    )
  },
}
