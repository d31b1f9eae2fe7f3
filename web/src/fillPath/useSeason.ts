import { FORECAST_DAYS } from '@ypsometer/contract/clog'
import { serviceFigure } from '@ypsometer/core/teardown/figures'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { historyOf } from '@ypsometer/core/visits/history'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useDossierContext } from '../frame/dossier'
import { useClogTank, type ClogTank } from './useClogTank'
import { useFillPath, type FillPath } from './useFillPath'
import type { SeasonAnswer } from '../workers/pathWork'
import { useLongPathWork } from '../workers/usePath'

export interface Season extends ClogTank {
  readonly path: FillPath
  readonly history: ReturnType<typeof historyOf>
  readonly sponge: boolean
  readonly answer: SeasonAnswer | null
  readonly failure: string | null
  readonly busy: boolean
}

/** Visits of this model in the chosen tank, and the forecast they are held against. */
export function useSeason(): Season {
  const { dossier } = useDossierContext()
  const path = useFillPath(null, dossier.visits.at(-1)?.fillId ?? null)
  const on = useClogTank(path.stock)
  const { tank, record, came } = on
  const [params] = useSearchParams()
  const sponge = params.get('sponge') === '1'
  const history = useMemo(
    () => historyOf(tank ? dossier.visits.filter((v) => v.tankId === tank.id) : [], came),
    [dossier.visits, tank, came],
  )
  const minutes = useMemo(() => serviceFigure(dossier.parts)?.value ?? null, [dossier.parts])
  const { asked, answer: solved, fill } = path
  const dueAt = 1 - (path.house?.upkeep.fall ?? UPKEEP_RULE.fall)
  const question = useMemo(() => {
    if (!fill || !record) return null
    const withFill = (id: string) => dossier.visits.find((v) => v.id === id)?.fillId ?? fill.id
    return {
      fill,
      sponge,
      tank: record,
      days: FORECAST_DAYS,
      // What was seen with another fill tells nothing of this one.
      history: historyOf(
        history.visits.filter((v) => withFill(v.id) === fill.id),
        came,
      ),
      minutesToOpen: minutes === null ? null : minutes / 60,
      dueAt,
    }
  }, [fill, record, sponge, history, came, dossier.visits, minutes, dueAt])
  const ready = solved?.kind === 'ready' && question !== null
  const { answer, failure, busy } = useLongPathWork('season', ready ? asked : null, question, async (w, q) =>
    q ? w.season(q) : null,
  )
  const missing = solved?.kind === 'missing' ? 'The flow path is not known yet.' : null
  return { ...on, path, history, sponge, answer, failure: failure ?? missing, busy: busy || !ready }
}
