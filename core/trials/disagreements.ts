import { inline, upperFirst, type Sentence } from '../figures'
import type { TrialResult } from './flows'
import { FLOWS } from './flow'

/**
 * Pairs of flow trials under the same conditions that disagree beyond both uncertainties: a meter with the wrong factor
 * shows here.
 */
export function disagreements(flows: readonly TrialResult[]): readonly Sentence[] {
  const out: Sentence[] = []
  flows.forEach((a, i) =>
    flows.slice(i + 1).forEach((b) => {
      const [ka, kb] = [a.trial.kind ?? 'vessel', b.trial.kind ?? 'vessel']
      const same =
        ka !== kb &&
        a.trial.state === b.trial.state &&
        a.trial.hookupId === b.trial.hookupId &&
        Math.abs(a.trial.lift - b.trial.lift) < 0.005 &&
        a.trial.mainsFrequency === b.trial.mainsFrequency
      const gap = Math.abs(a.result.mean - b.result.mean)
      if (!same || gap <= Math.hypot(a.result.expandedUncertainty, b.result.expandedUncertainty)) return
      out.push([
        `${upperFirst(FLOWS[ka]?.source ?? ka)} and ${FLOWS[kb]?.source ?? kb} disagree under the same conditions: `,
        inline(a.figure),
        ' and ',
        inline(b.figure),
        '. Check the meter factor first.',
      ])
    }),
  )
  return out
}
