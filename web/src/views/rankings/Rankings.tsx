import type { Ranking, RankingProgress } from '@ypsometer/contract'
import { moneyText } from '@ypsometer/core/units/money'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useRankings } from '../../api/shelf'
import { useTanks } from '../../api/lists'
import { chanceText } from '../../figures/chance'
import { Num } from '../../figures/Num'
import { errorMessage } from '../../api/errorMessage'
import { Failed, Loading } from '../../frame/States'
import { showWhen } from '../../settings/when'
import { Heading } from '../../frame/Heading'
import { right, Sheet } from '../../figures/Sheet'

/** The whole shelf ranked for every tank, as a job of the workers. */
export function Rankings() {
  const { latest, start, cancel, refetch } = useRankings()
  const [problem, setProblem] = useState('')
  const ranking = latest.data?.ranking ?? null
  const running = ranking?.state === 'running'
  const progress = useProgress(running ? ranking.id : null, refetch)
  const doing = (work: Promise<unknown>): void => {
    setProblem('')
    work.catch((error: unknown) => setProblem(errorMessage(error)))
  }
  return (
    <>
      <Heading>Best filter for every tank</Heading>
      <p className="muted max-w-2xl">
        Ranks all filters, and pairs of them, for each tank. You may close this page meanwhile.
      </p>
      {latest.isPending && <Loading />}
      {latest.error && !latest.data && (
        <Failed error={latest.error} what="the last ranking" retry={() => void refetch()} />
      )}
      {problem && (
        <p role="alert" className="text-error mt-2">
          {problem}
        </p>
      )}
      {latest.data && (
        <div className="mt-4 flex flex-wrap items-center gap-4">
          {running ? (
            <>
              <progress
                className="progress progress-primary w-56"
                value={progress?.done ?? ranking.done}
                max={Math.max(1, progress?.parts ?? ranking.parts)}
                aria-label="Calculating the ranking"
              />
              <span className="num" role="status">
                {progress?.done ?? ranking.done} of {progress?.parts ?? ranking.parts} parts
              </span>
              <button type="button" className="btn btn-sm" onClick={() => doing(cancel(ranking.id))}>
                Stop
              </button>
            </>
          ) : (
            <button type="button" className="btn btn-primary" onClick={() => doing(start())}>
              {ranking ? 'Rank it again' : 'Calculate ranking'}
            </button>
          )}
          {ranking && !running && (
            <p className="muted">
              {ranking.state === 'cancelled' ? 'Stopped' : 'Ranked'} {showWhen(ranking.createdAt)},{' '}
              {ranking.models} models.{' '}
              {ranking.stale && (
                <span className="text-warning">
                  Something has changed since: a dossier, price, rule or tank.
                </span>
              )}
            </p>
          )}
        </div>
      )}
      {latest.data && !ranking && <p className="mt-4">Nothing ranked yet.</p>}
      {ranking && ranking.tanks.length > 0 && <Found ranking={ranking} />}
    </>
  )
}

/** How far a ranking is, as the server tells; asks for the whole of it when it ends. */
function useProgress(id: string | null, ended: () => unknown): RankingProgress | null {
  const [progress, setProgress] = useState<{ readonly id: string; readonly at: RankingProgress } | null>(null)
  useEffect(() => {
    if (!id || typeof EventSource === 'undefined') return
    const source = new EventSource(`/api/v1/rankings/${id}/progress`)
    source.onmessage = ({ data }: MessageEvent<string>) => {
      const at = JSON.parse(data) as RankingProgress
      setProgress({ id, at })
      if (at.state === 'running') return
      source.close()
      ended()
    }
    return () => source.close()
    // What is done at the end is made anew at every render.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [id])
  return progress?.id === id ? (progress?.at ?? null) : null
}

/** Options shown for a tank. */
const SHOWN = 3

function Found({ ranking }: { readonly ranking: Ranking }) {
  const { tanks = [] } = useTanks()
  return (
    <div className="mt-6 overflow-x-auto" tabIndex={0} role="region" aria-label="Ranking by tank, table">
      <Sheet
        className="min-w-[46rem]"
        bodies
        columns={[
          'Tank',
          'First for it',
          right('Score, 95 %'),
          right('Best in'),
          right('Supports'),
          right('Price in all'),
        ]}
      >
        {ranking.tanks.map((t) => {
          const tank = tanks.find((x) => x.id === t.tankId)
          const shown = t.options.slice(0, SHOWN)
          return (
            <tbody key={t.tankId}>
              {(shown.length ? shown : [null]).map((o, i) => (
                <tr key={o?.id ?? 'none'}>
                  {i === 0 && (
                    <td rowSpan={Math.max(1, shown.length)} className="align-top">
                      <Link to={`/advise?tank=${t.tankId}`} className="link">
                        {tank?.name ?? 'a tank deleted since'}
                      </Link>
                      <span className="muted block text-[0.85rem]">
                        {t.will} will do, {t.wont} will not
                      </span>
                    </td>
                  )}
                  {o ? (
                    <>
                      <td>
                        <Link
                          to={`/advise/slip?tank=${t.tankId}&option=${encodeURIComponent(o.id)}`}
                          className="hover:underline"
                        >
                          {o.name}
                        </Link>
                      </td>
                      <td className="r num">
                        {o.low.toFixed(2)} to {o.high.toFixed(2)}
                      </td>
                      <td className="r num">{chanceText(o.best)}</td>
                      <td className="r">
                        <Num si={o.carries} dimension="volume" uncertainty={o.uncertainty} />
                      </td>
                      <td className="r num">
                        {o.priceMinor === null || o.currency === null
                          ? 'not known'
                          : moneyText(o.priceMinor, o.currency)}
                      </td>
                    </>
                  ) : (
                    <td colSpan={5} className={t.problem ? 'text-error' : 'muted'}>
                      {t.problem ? `Not calculated: ${t.problem}` : 'None of your filters fits.'}
                    </td>
                  )}
                </tr>
              ))}
            </tbody>
          )
        })}
      </Sheet>
    </div>
  )
}
