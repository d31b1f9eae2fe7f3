import { FORECAST_DAYS } from '@ypsometer/contract/clog'
import { serviceFigure } from '@ypsometer/core/teardown/figures'
import { UPKEEP_RULE } from '@ypsometer/core/upkeep/rule'
import { historyOf } from '@ypsometer/core/visits/story'
import { useEffect, useMemo, useState } from 'react'
import { useSearchParams } from 'react-router'
import { useDossierContext } from '../frame/dossier'
import { errorMessage } from '../api/errorMessage'
import { useClogTank, type ClogTank } from './useClogTank'
import { useFillPath, type FillPath } from './useFillPath'
import type { SeasonAnswer } from '../workers/pathWork'
import { recent } from '../workers/recent'

const seasons = recent<SeasonAnswer | null>()
/** Forecasts under way, by the whole of what was asked: whoever asks the same waits for the same. */
const underWay = new Map<string, Promise<SeasonAnswer | null>>()

export interface Season extends ClogTank {
  readonly path: FillPath
  readonly story: ReturnType<typeof historyOf>
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
  const story = useMemo(
    () => historyOf(tank ? dossier.visits.filter((v) => v.tankId === tank.id) : [], came),
    [dossier.visits, tank, came],
  )
  const minutes = useMemo(() => serviceFigure(dossier.parts)?.value ?? null, [dossier.parts])
  const [answer, setAnswer] = useState<SeasonAnswer | null>(null)
  const [failure, setFailure] = useState<string | null>(null)
  const [busy, setBusy] = useState(true)
  const { long, key, question, answer: solved } = path
  const ready = solved?.kind === 'ready'
  const dueAt = 1 - (path.house?.upkeep.fall ?? UPKEEP_RULE.fall)
  const fill = path.fill
  useEffect(() => {
    if (!fill || !record || !question || !ready) return
    const withFill = (id: string) => dossier.visits.find((v) => v.id === id)?.fillId ?? fill.id
    let gone = false
    const q = {
      fill,
      sponge,
      tank: record,
      days: FORECAST_DAYS,
      // What was seen with another fill tells nothing of this one.
      story: historyOf(
        story.visits.filter((v) => withFill(v.id) === fill.id),
        came,
      ),
      minutesToOpen: minutes === null ? null : minutes / 60,
      dueAt,
    }
    const all = key && `${key} ${JSON.stringify(q)}`
    const show = (a: SeasonAnswer | null): void => {
      setAnswer(a)
      setBusy(false)
    }
    const kept = seasons.get(all)
    if (kept !== undefined) {
      show(kept)
      return
    }
    setBusy(true)
    const begun = all !== null && !underWay.has(all)
    const forecast = (all !== null && underWay.get(all)) || long((w) => w.season(q))
    if (all !== null) underWay.set(all, forecast)
    const end = (): void => void (begun && underWay.get(all) === forecast && underWay.delete(all))
    void forecast
      .then((a) => {
        if (gone) return
        seasons.put(all, a)
        show(a)
      })
      .catch((error: unknown) => {
        if (gone) return
        setFailure(errorMessage(error))
        setBusy(false)
      })
      .finally(end)
    return () => {
      gone = true
      // Its worker ends with whoever began it.
      end()
    }
  }, [fill, record, key, question, sponge, story, came, dossier.visits, minutes, long, dueAt, ready])
  const missing = solved?.kind === 'missing' ? 'The water’s path cannot be worked out yet.' : null
  return { ...on, path, story, sponge, answer, failure: failure ?? missing, busy }
}
