import type { ChangeOver, Tank } from '@ypsometer/contract'
import { tankRecord } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { ChangePlan, ChangeSubject } from '@ypsometer/core/hands/changeWords'
import { keepingOfTank } from '@ypsometer/core/tanks/tankRecord'
import { useMemo } from 'react'
import { useCandidates, useLabelBias } from '../../api/shelf'
import { useChangeOvers, useJudgedClasses, useTanks } from '../../api/lists'
import { knownOf, type KnownFilter } from '../../tank/running'
import { usePlan } from '../../workers/useLiving'
import type { Answered } from '../../workers/useWork'

export interface Change {
  readonly tank: Tank | null
  readonly change: ChangeOver | null
  readonly old: KnownFilter | null
  readonly next: KnownFilter | null
  readonly plan: Answered<ChangePlan>
  /** Why nothing can be worked out; null where it can. */
  readonly missing: string | null
  readonly waiting: boolean
  readonly error: Error | null
}

export const nameOf = (k: KnownFilter | null): string =>
  k?.candidate?.name ?? (k?.filter.label || 'a filter without a name')

/** A change-over with the plan that the balance gives it. */
export function useChange(tankId: string, changeId: string): Change {
  const { tanks, error } = useTanks()
  const { changes } = useChangeOvers()
  const { data: shelf } = useCandidates()
  const { data: bias = null } = useLabelBias()
  const { stock } = useJudgedClasses()
  const tank = tanks?.find((t) => t.id === tankId) ?? null
  const change = changes?.find((c) => c.id === changeId) ?? null
  const worked = useMemo(
    () => (tank && change && shelf && stock ? subjectOf({ tank, change, shelf, stock, bias }) : null),
    [tank, change, shelf, stock, bias],
  )
  const plan = usePlan(worked?.subject ?? null, change?.on ?? '', change?.tests ?? [])
  return {
    tank,
    change,
    old: worked?.old ?? null,
    next: worked?.next ?? null,
    plan,
    missing: worked?.missing ?? null,
    waiting: !tanks || !changes || !shelf || !stock,
    error,
  }
}

interface Given {
  readonly tank: Tank
  readonly change: ChangeOver
  readonly shelf: NonNullable<ReturnType<typeof useCandidates>['data']>
  readonly stock: NonNullable<ReturnType<typeof useJudgedClasses>['stock']>
  readonly bias: Parameters<typeof knownOf>[2]
}

function subjectOf({ tank, change, shelf, stock, bias }: Given): {
  readonly old: KnownFilter | null
  readonly next: KnownFilter
  readonly subject: ChangeSubject | null
  readonly missing: string | null
} {
  const known = tank.filters.map((f) => knownOf(f, shelf, bias))
  const old = change.old && knownOf(change.old, shelf, bias)
  const next = knownOf(change.next, shelf, bias)
  const stay = known.filter((k) => k.filter.id !== change.old?.id && k.filter.id !== change.next.id)
  const found = stock.find((s) => s.id === tank.stockClassId)
  const films = next.running?.fill.films
  const none = (missing: string) => ({ old, next, subject: null, missing })
  if (!found) return none('The stocking type of this tank was removed. Choose another.')
  if (!films) return none(`The media of ${nameOf(next)} are unknown, so there is no forecast.`)
  const running = [next, ...stay].flatMap((k) => (k.running ? [k.running.fill] : []))
  try {
    const keeping = keepingOfTank(
      tankRecord(tank, found),
      ...running.map((f) => ({ outlet: f.outlet, flow: f.flow.value })),
    )
    if (!(keeping.feed > 0)) return none('No feeding, so nothing to forecast.')
    const subject: ChangeSubject = {
      way: change.way,
      weeks: change.weeks,
      share: change.share,
      keeping,
      old: old?.running?.fill.films ?? null,
      stay: stay.flatMap((k) => k.running?.fill.films ?? []),
      next: films,
      delicate: !found.openInlet,
    }
    return { old, next, subject, missing: null }
  } catch (error) {
    if (error instanceof CoreError) return none(`Cannot calculate: ${error.message}`)
    throw error
  }
}
