import type { Log } from '@ypsometer/contract'
import { dyeFigures, dyePoint, nominalOf } from '@ypsometer/core/trials/dye/find'
import { dyeSentences } from '@ypsometer/core/trials/dye/words'
import { CoreError } from '@ypsometer/core/errors/errors'
import { useQueries } from '@tanstack/react-query'
import { useMemo, type ReactNode } from 'react'
import { logPoints } from '../../api/dossier'
import type { Series } from '../../charts/SeriesChart'
import { Words } from '../../figures/Words'
import { useDossierContext } from '../../frame/dossier'

/** Dye curves that came as logs: read, drawn by the caller, and worked out point by point. */
export default function LogDye({
  logs,
  children,
}: {
  readonly logs: readonly Log[]
  readonly children: (series: readonly Series[]) => ReactNode
}) {
  const { assessment } = useDossierContext()
  const found = useQueries({
    queries: logs.map((l) => logPoints(l.id)),
    combine: (results) => results.map((r) => r.data),
  })
  const series = useMemo(
    () =>
      logs.flatMap((l, i): Series[] => {
        const data = found[i]
        return data
          ? [
              {
                name: l.series || `log ${i + 1}`,
                points: data.times.map((time, k) => ({ time, value: data.values[k] ?? 0 })),
              },
            ]
          : []
      }),
    [logs, found],
  )
  const said = useMemo(() => {
    const trial = assessment?.findings.find((f) => f.trial.id === logs[0]?.trialId)?.trial
    const nominal = trial ? nominalOf(trial, assessment?.trials ?? []) : null
    return series.map((s) => {
      try {
        const d = dyePoint(
          s.name,
          s.points.map((p) => ({ time: p.time, concentration: p.value })),
          nominal,
        )
        const figures = dyeFigures({ id: s.name }, d, [`${s.points.length} points imported`])
        return { name: s.name, sentences: dyeSentences(d, figures), problem: '' }
      } catch (error) {
        if (!(error instanceof CoreError)) throw error
        return { name: s.name, sentences: [], problem: `${s.name}: ${error.message}` }
      }
    })
  }, [series, assessment, logs])
  return (
    <>
      {children(series)}
      {said.map((s) => (
        <div key={s.name}>
          {s.sentences.map((x, i) => (
            <p key={i} className="mt-1 max-w-2xl">
              <Words sentence={x} />
            </p>
          ))}
          {s.problem && <p className="text-warning">{s.problem}</p>}
        </div>
      ))}
    </>
  )
}
