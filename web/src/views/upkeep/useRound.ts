import type { Tank, Tick } from '@ypsometer/contract'
import { dayAfter, mondayOf, type Day } from '@ypsometer/core/days/days'
import { tankOccasions, type KeptFilter, type Occasion } from '@ypsometer/core/upkeep/plan'
import { UPKEEP_RULE, type UpkeepRule } from '@ypsometer/core/upkeep/rule'
import { useMemo } from 'react'
import { v5 } from 'uuid'
import { useHouseRules, useTanks, useUpkeep } from '../../api/lists'
import { createRow } from '../../api/rows'
import { dayFromNow } from '../../settings/when'

/** Weeks before today and after it that are drawn. */
export const WEEKS = { before: 4, after: 12 } as const

/** One filter on a tank with the days of its work. */
export interface Line {
  readonly filter: KeptFilter
  readonly occasions: readonly Occasion[]
}
/** A tank of the round with its filters. */
export interface Stop {
  readonly tank: Tank
  readonly lines: readonly Line[]
}

export interface Round {
  readonly stops: readonly Stop[] | null
  readonly error: Error | null
  readonly retry: () => void
  readonly places: readonly string[]
  readonly rule: UpkeepRule
  readonly house: string
  readonly today: Day
  readonly from: Day
  readonly to: Day
  readonly ticks: readonly Tick[]
}

/** All filters of all tanks with the days of their work, place by place. */
export function useRound(): Round {
  const { filters, ticks, error, refetch } = useUpkeep()
  const { tanks } = useTanks()
  const { house } = useHouseRules()
  const today = dayFromNow(0)
  const from = dayAfter(mondayOf(today), -7 * WEEKS.before)
  const to = dayAfter(mondayOf(today), 7 * WEEKS.after)
  const rule = house?.upkeep ?? UPKEEP_RULE
  const stops = useMemo(() => {
    if (!filters || !tanks || !ticks) return null
    const sorted = [...tanks].sort((a, b) => a.place.localeCompare(b.place) || a.name.localeCompare(b.name))
    return sorted.flatMap((tank): Stop[] => {
      const own = filters.filter((f) => f.tankId === tank.id)
      const since = tank.createdAt.slice(0, 10) || today
      const work = tankOccasions(own, rule, ticks, { from, to, today, since })
      const lines = own.map((filter) => ({
        filter,
        occasions: work.filter((o) => o.chore.filterId === filter.id),
      }))
      return lines.length ? [{ tank, lines }] : []
    })
  }, [filters, tanks, ticks, rule, from, to, today])
  return {
    stops,
    error: stops ? null : error,
    retry: () => void refetch(),
    places: [...new Set((stops ?? []).map((s) => s.tank.place))],
    rule,
    house: house?.name ?? '',
    today,
    from,
    to,
    ticks: ticks ?? [],
  }
}

/** Names of ticks are made in this space, so that one task of one day has one name, whoever ticks it. */
const TICKS = '6f1d3f0e-5c2b-4f0a-9d57-2f3a1c7e9b40'

/** Writes down what became of one due day. Two people who do so at once write the same row. */
export function settle(o: Occasion, state: Tick['state'], on: Day): string {
  const { tankId, filterId, task } = o.chore
  const id = v5([tankId, filterId, task, o.due].join('|'), TICKS)
  return createRow('ticks', { tankId, filterId, task, due: o.due, state, on }, id)
}
