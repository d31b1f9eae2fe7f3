import type { TankFilter } from '@ypsometer/contract'
import type { CandidateList } from '@ypsometer/contract/candidateList'
import { fillByLabel } from '@ypsometer/core/advice/byLabel'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import type { LabelBias } from '@ypsometer/core/trials/bias'
import type { RunningFilter } from '@ypsometer/core/judging/together'

/** A filter on a tank with what is known of it. */
export interface KnownFilter {
  readonly filter: TankFilter
  readonly candidate: Candidate | null
  readonly running: RunningFilter | null
}

/** A filter on a tank: by the shelf where it is on it, else by its kind and rated flow. */
export function knownOf(
  filter: TankFilter,
  shelf: CandidateList['items'],
  bias: LabelBias | null,
): KnownFilter {
  const candidate = shelf.find((c) => c.id === filter.modelId)?.candidate ?? null
  if (candidate) {
    const fill = filter.fill === 'proposed' ? (candidate.proposed ?? candidate.shipped) : candidate.shipped
    return {
      filter,
      candidate,
      running: fill && { name: candidate.name, fill, claimedMax: candidate.claimedMax },
    }
  }
  const fill =
    filter.modelId === null && filter.kind && filter.ratedFlow
      ? fillByLabel(filter.kind, filter.ratedFlow, bias)
      : null
  return { filter, candidate, running: fill && { name: filter.label || 'the other', fill } }
}
