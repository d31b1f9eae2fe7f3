import { assess, type JudgedFill } from '../judging'
import type { LabelBias } from '../trials'
import type { FilterKind } from '../kinds'

/**
 * A filter of which only kind and rated flow (m³/s) are known, judged by the rule of thumb: it has a flow with its
 * band, and neither media nor films.
 */
export const fillByLabel = (
  kind: FilterKind,
  ratedFlow: number,
  bias: LabelBias | null = null,
): JudgedFill | null =>
  assess(
    {
      kind,
      mainsFrequency: 50,
      claims: [{ quantity: 'rated-flow', value: ratedFlow, mainsFrequency: null, qualifier: '', where: '' }],
      hookups: [],
      trials: [],
      mediaMass: null,
      inside: null,
    },
    { bias },
  ).verdict.shipped
