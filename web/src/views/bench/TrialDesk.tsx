import type { Log, Reading, Trial } from '@ypsometer/contract'
import { LONGEST_WATCH } from '@ypsometer/core/bench/shape'
import { READING_SHAPES } from '@ypsometer/core/trials/readings'
import { ArrowLeft, Download, Repeat2, Timer, Trash2, Upload, X } from 'lucide-react'
import { lazy, Suspense, useState } from 'react'
import { retryWhenBack } from '../../api/retryWhenBack'
import { Link, useNavigate, useParams } from 'react-router'
import { logPoints, useLogDrawing } from '../../api/dossier'
import { queryClient } from '../../api/cache'
import { errorMessage } from '../../api/errorMessage'
import { toast } from '../../frame/toastStore'
import { changeRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { save, toCsv } from '../../charts/ChartTools'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { Words } from '../../figures/Words'
import { IconButton } from '../../frame/IconButton'
import { ConditionFields } from '../../trials/Conditions'
import { useDossierContext } from '../../frame/dossier'
import { Photos } from '../../photos/Photos'
import { AddReading } from './AddReading'
import { cellsOf, KINDS, outcomeWords, seriesWords, type NumberCell } from '../../trials'
import { TrialViewContext } from '../../trials/view'
import { repeatTrial } from '../../trials/startTrial'
import { SeriesChart } from '../../charts'
import { right, Sheet, unnamed } from '../../figures/Sheet'

const ImportDialog = lazy(() => retryWhenBack(() => import('./ImportDialog')))

/** One trial at the desk: what it comes to, its readings to correct, its conditions, notes and photos. */
export function TrialDesk() {
  const { trialId = '' } = useParams()
  const { dossier } = useDossierContext()
  const trial = dossier.trials.find((t) => t.id === trialId)
  if (!trial)
    return (
      <p>
        This test was not found. It may have been deleted. <Link to="..">Back to the bench</Link>
      </p>
    )
  return <Desk key={trial.id} trial={trial} />
}

function Desk({ trial }: { readonly trial: Trial }) {
  const { dossier, assessment } = useDossierContext()
  const navigate = useNavigate()
  const [importing, setImporting] = useState(false)
  const readings = dossier.readings
    .filter((r) => r.trialId === trial.id)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt))
  const logs = dossier.logs.filter((l) => l.trialId === trial.id)
  const flow = assessment?.trials.find((r) => r.trial.id === trial.id)
  const finding = assessment?.findings.find((f) => f.trial.id === trial.id)
  const view = KINDS[trial.kind]
  const bench = `/models/${trial.modelId}/bench`
  return (
    <TrialViewContext value={view}>
      <article aria-labelledby="trial-title" className="space-y-6">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <div>
            <Link to={bench} className="muted inline-flex items-center gap-1 hover:underline">
              <ArrowLeft size={15} aria-hidden="true" /> All tests
            </Link>
            <h2 id="trial-title">{view.title}</h2>
            <p className="muted max-w-2xl">{view.how}</p>
          </div>
          <div className="no-print flex flex-wrap gap-2">
            <button type="button" className="btn btn-sm" onClick={() => setImporting(true)}>
              <Upload size={16} aria-hidden="true" /> Paste or import
            </button>
            <button
              type="button"
              className="btn btn-sm"
              onClick={() => void navigate(`${bench}/${repeatTrial(dossier, trial)}/run`)}
            >
              <Repeat2 size={16} aria-hidden="true" /> Repeat
            </button>
            <Link to="run" className="btn btn-primary btn-sm">
              <Timer size={16} aria-hidden="true" /> On the bench
            </Link>
          </div>
        </div>
        <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_21rem]">
          <div className="min-w-0 space-y-6">
            <section aria-label="Result">
              {flow && <FigureView figure={flow.figure} size="lg" />}
              {finding?.problem && <p className="text-warning">{finding.problem}</p>}
              {finding && finding.figures.length > 0 && (
                <dl className="grid gap-x-8 gap-y-2 sm:grid-cols-2">
                  {finding.figures.map((f) => (
                    <div key={f.id}>
                      <dt className="kicker">{f.label}</dt>
                      <dd>
                        <FigureView figure={f} />
                      </dd>
                    </div>
                  ))}
                </dl>
              )}
              {finding?.sentences.map((s, i) => (
                <p key={i} className="mt-2 max-w-2xl">
                  <Words sentence={s} />
                </p>
              ))}
              {!flow && !finding && <p className="muted">Nothing to say yet: there are no readings.</p>}
            </section>
            {view.Drawing && <view.Drawing dossier={dossier} trial={trial} readings={readings} logs={logs} />}
            {logs.map((l) =>
              view.Drawing ? (
                <p key={l.id} className="rule-b flex items-center justify-between gap-3 py-1">
                  <span>
                    {l.series || 'log'}{' '}
                    <span className="muted num" data-plain>
                      {l.n} points
                    </span>
                  </span>
                  <LogTools log={l} />
                </p>
              ) : (
                <LogView key={l.id} log={l} trial={trial} />
              ),
            )}
            <Readings
              trial={trial}
              readings={readings}
              flows={flow?.result.flows ?? []}
              suspect={flow?.result.suspect?.index ?? null}
            />
            <AddReading trial={trial} />
            {view.Below && <view.Below trial={trial} />}
            <Photos owner={{ trialId: trial.id }} />
          </div>
          <section aria-labelledby="conditions-title">
            <h3 id="conditions-title">Conditions</h3>
            <div className="mt-2 space-y-3">
              <ConditionFields trial={trial} hookups={dossier.hookups} />
            </div>
          </section>
        </div>
        {importing && (
          <Suspense fallback={null}>
            <ImportDialog trial={trial} onClose={() => setImporting(false)} />
          </Suspense>
        )}
      </article>
    </TrialViewContext>
  )
}

function LogView({ log, trial }: { readonly log: Log; readonly trial: Trial }) {
  const { dossier } = useDossierContext()
  const { data } = useLogDrawing(log.id)
  const words = KINDS[trial.kind].value
  if (!words) return null
  const series = data && [
    {
      name: seriesWords(trial, log.series) || 'log',
      points: data.times.map((time, i) => ({ time, value: data.values[i] ?? 0 })),
    },
  ]
  return (
    <section aria-label={`Log of ${log.n} points`}>
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <p>
          Log {log.series && `(${seriesWords(trial, log.series).toLowerCase()}) `}of{' '}
          <span className="num" data-plain>
            {log.n}
          </span>{' '}
          points over <Num si={log.span} dimension="time" />
          {log.note && <span className="text-warning"> · {log.note}</span>}
        </p>
        <LogTools log={log} />
      </div>
      {series && (
        <SeriesChart
          series={series}
          dimension={words.dimension}
          label={words.label}
          name={`${dossier.model.name} ${trial.kind} log`}
        />
      )}
    </section>
  )
}

function LogTools({ log }: { readonly log: Log }) {
  const download = async (): Promise<void> => {
    try {
      const { times, values } = await queryClient.fetchQuery(logPoints(log.id))
      const rows = times.map((t, i) => [t, values[i] ?? ''])
      save('log.csv', 'text/csv', toCsv({ name: 'log', columns: ['time, s', 'value, SI'], rows }))
    } catch (error) {
      toast(`The log could not be read: ${errorMessage(error)}`)
    }
  }
  return (
    <span className="whitespace-nowrap">
      <IconButton label={`Log ${log.series} as CSV`} icon={Download} onClick={() => void download()} />
      <IconButton label={`Delete this log`} icon={Trash2} onClick={() => removeRow('logs', log, 'Log')} />
    </span>
  )
}

/** Value of a number when its kind does not ask for it any more. */
const USUAL_CELL: Readonly<Record<NumberCell['field'], NumberCell>> = {
  volume: { field: 'volume', label: 'Volume', dimension: 'volume' },
  seconds: { field: 'seconds', label: 'Seconds', dimension: 'time' },
  value: { field: 'value', label: 'Value', dimension: 'ratio' },
}

/** The readings as a table that can be corrected; a doubtful one is marked, never dropped. */
function Readings({
  trial,
  readings,
  flows,
  suspect,
}: {
  readonly trial: Trial
  readonly readings: readonly Reading[]
  readonly flows: readonly number[]
  readonly suspect: number | null
}) {
  const shape = READING_SHAPES[trial.kind]
  const numbers = (series: string) => cellsOf(trial.kind, series)
  const called = (field: string): string | undefined =>
    readings.flatMap((r) => numbers(r.series)).find((c) => c.field === field)?.label
  if (!readings.length) return null
  const has = {
    volume: readings.some((r) => r.volume !== null),
    seconds: readings.some((r) => r.seconds !== null && (r.seconds > 0 || shape.value !== undefined)),
    value: readings.some((r) => r.value !== null),
    series: readings.some((r) => r.series),
    outcome: readings.some((r) => r.outcome),
    note: readings.some((r) => r.note || r.source),
  }
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Readings, table">
      <Sheet
        columns={[
          { label: <span className="sr-only">Number</span>, className: 'w-8' },
          ...(has.series ? ['Of'] : []),
          ...(has.volume ? ['Volume'] : []),
          ...(has.seconds ? ['Seconds'] : []),
          ...(has.value ? [<>{called('value') ?? 'Amount'}</>] : []),
          ...(flows.length > 0 ? [right('Flow')] : []),
          ...(has.outcome ? ['Outcome'] : []),
          ...(has.note ? ['Note'] : []),
          unnamed('Actions'),
        ]}
      >
        {readings.map((r, i) => {
          const cell = (field: 'volume' | 'seconds' | 'value', min: number, max: number) => {
            const c = numbers(r.series).find((n) => n.field === field) ?? USUAL_CELL[field]
            return (
              <td className="min-w-28">
                {r[field] !== null && (
                  <QuantityInput
                    label={`${c.label} of reading ${i + 1}`}
                    si={r[field]}
                    dimension={c.dimension}
                    min={min}
                    max={max}
                    {...(c.unit && { unit: c.unit })}
                    onCommit={(v) => changeRow('readings', r, { [field]: v })}
                  />
                )}
              </td>
            )
          }
          const limits = shape.valueBySeries?.[r.series] ?? shape.value
          return (
            <tr key={r.id}>
              <td className="muted num" data-plain>
                {i + 1}
              </td>
              {has.series && <td>{seriesWords(trial, r.series)}</td>}
              {has.volume && cell('volume', 1e-6, 10)}
              {has.seconds && cell('seconds', shape.seconds?.min ?? 0, shape.seconds?.max ?? LONGEST_WATCH)}
              {has.value && cell('value', limits?.min ?? 0, limits?.max ?? 1e9)}
              {flows.length > 0 && (
                <td className="r num" data-plain>
                  {flows[i] !== undefined && <Num si={flows[i]} dimension="flow" />}
                  {suspect === i && (
                    <div className="text-warning text-[0.85rem]">possible outlier, still counted</div>
                  )}
                </td>
              )}
              {has.outcome && <td>{outcomeWords(trial.kind, r.outcome)}</td>}
              {has.note && (
                <td className="muted text-[0.9rem]">{[r.note, r.source].filter(Boolean).join(' · ')}</td>
              )}
              <td className="w-10">
                <IconButton
                  label={`Remove reading ${i + 1}`}
                  icon={X}
                  onClick={() => removeRow('readings', r, `Reading ${i + 1}`)}
                />
              </td>
            </tr>
          )
        })}
      </Sheet>
      <p className="muted text-[0.85rem]">
        Edits keep the original time. Outliers are flagged, never removed for you.
      </p>
    </div>
  )
}
