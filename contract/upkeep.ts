import type { KeptFilter } from '@ypsometer/core/upkeep/plan'
import type { Candidate } from '@ypsometer/core/advice/candidate'
import type { Tank } from './tanks'

/** A filter of a tank as its upkeep asks for it; `null` for one the shelf does not have and whose kind is not said. */
export function keptFilter(
  tank: Tank,
  filter: Tank['filters'][number],
  candidate: Candidate | null,
  forecast: number | null = null,
): KeptFilter | null {
  const kind = candidate?.kind ?? filter.kind
  if (!kind) return null
  const fill = filter.fill === 'proposed' ? (candidate?.proposed ?? candidate?.shipped) : candidate?.shipped
  return {
    id: filter.id,
    tankId: tank.id,
    label: candidate ? candidate.name : filter.label || 'a filter that is not on the shelf',
    kind,
    since: filter.since,
    media: (fill?.uses ?? []).map(({ form, job }) => ({ form, job })),
    prefilter: candidate?.facts.preFilter !== null && candidate !== null,
    lamp: candidate?.spares.some((s) => s.wears === 'lamp') ?? false,
    forecast,
  }
}
