import type { Trial } from '@ypsometer/contract'
import type { TrialKind } from '@ypsometer/core/trials/readings'
import type { Figure } from '@ypsometer/core/figures/figure'
import { liftFigure } from '@ypsometer/core/judging/staticFigures'
import { Download, Repeat2, Timer, Trash2, Upload } from 'lucide-react'
import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { lazy, memo, Suspense, useDeferredValue, useLayoutEffect, useRef, useState } from 'react'
import { retryWhenBack } from '../../api/retryWhenBack'
import { Link, useNavigate } from 'react-router'
import { removeRow } from '../../frame/removed'
import { save, toCsv } from '../../charts/ChartTools'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { IconButton } from '../../frame/IconButton'
import { useDossierContext } from '../../frame/dossier'
import { STATE_WORDS } from '../../words'
import { benchCsv } from './exportCsv'
import { KIND_ORDER, KINDS } from '../../trials'
import { repeatTrial, startTrial } from '../../trials/startTrial'
import { right, Sheet, unnamed } from '../../figures/Sheet'

const ImportDialog = lazy(() => retryWhenBack(() => import('./ImportDialog')))

/** Every trial with its conditions and what it comes to; a new one starts from the conditions of the last. */
export function TrialList() {
  const { dossier, assessment } = useDossierContext()
  const navigate = useNavigate()
  const [importing, setImporting] = useState(false)
  const { model, trials } = dossier
  const start = (kind: TrialKind): void => {
    const id = startTrial(dossier, kind)
    void navigate(`/models/${model.id}/bench/${id}/run`)
  }
  return (
    <section aria-labelledby="trials-title">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="trials-title">Tests</h2>
        <div className="no-print flex flex-wrap items-center gap-2">
          <select
            className="field !w-auto"
            aria-label="Other test"
            value=""
            onChange={(e) => e.target.value && start(e.target.value as TrialKind)}
          >
            <option value="">Other test …</option>
            {KIND_ORDER.filter((k) => k !== 'vessel').map((k) => (
              <option key={k} value={k}>
                {KINDS[k].title}
              </option>
            ))}
          </select>
          <button type="button" className="btn btn-sm" onClick={() => setImporting(true)}>
            <Upload size={16} aria-hidden="true" /> Paste or import
          </button>
          {trials.length > 0 && (
            <button
              type="button"
              className="btn btn-sm"
              onClick={() =>
                save(
                  `${model.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')}-bench.csv`,
                  'text/csv',
                  toCsv(benchCsv(dossier)),
                )
              }
            >
              <Download size={16} aria-hidden="true" /> All as CSV
            </button>
          )}
          <button type="button" className="btn btn-primary btn-sm" onClick={() => start('vessel')}>
            <Timer size={16} aria-hidden="true" /> Time the flow
          </button>
        </div>
      </div>
      {assessment?.disagreements.length ? <Disagreements /> : null}
      {trials.length === 0 ? (
        <p className="mt-2 max-w-2xl">
          Nothing timed yet. Hold the outlet over a marked bucket and time how long it takes to fill, five
          times. First empty and without hoses, then as installed.
        </p>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Tests, table">
          <Sheet
            className="entries mt-2 sm:min-w-[46rem]"
            bodies
            rowCount={trials.length + 1}
            columns={[
              'Test',
              'Media setup',
              'Plumbing',
              right('Outlet height'),
              right('Readings'),
              { label: 'Result', className: 'pl-6' },
              unnamed('Actions'),
            ]}
          >
            <Rows trials={trials} />
          </Sheet>
        </div>
      )}
      {importing && (
        <Suspense fallback={null}>
          <ImportDialog onClose={() => setImporting(false)} />
        </Suspense>
      )}
    </section>
  )
}

/** Rows from which on only those near the window are drawn. */
const MANY = 40
/** Height of a row before it is measured (px). */
const ROW = 46

function Rows({ trials }: { readonly trials: readonly Trial[] }) {
  const body = useRef<HTMLTableSectionElement>(null)
  const [top, setTop] = useState(0)
  useLayoutEffect(() => setTop((body.current?.getBoundingClientRect().top ?? 0) + window.scrollY), [])
  const many = trials.length > MANY
  const windowed = useWindowVirtualizer({
    count: many ? trials.length : 0,
    estimateSize: () => ROW,
    overscan: 12,
    scrollMargin: top,
    useFlushSync: false,
  })
  // Rows that come into the window are made in pieces, so that none of it holds the page up.
  const items = useDeferredValue(windowed.getVirtualItems())
  if (!many)
    return (
      <tbody>
        {trials.map((t) => (
          <TrialRow key={t.id} trial={t} />
        ))}
      </tbody>
    )
  const before = (items[0]?.start ?? top) - top
  const after = windowed.getTotalSize() - ((items.at(-1)?.end ?? top) - top)
  return (
    <tbody ref={body}>
      <tr aria-hidden="true" style={{ height: before }} />
      {items.map(({ index, key }) => {
        const trial = trials[index]
        return trial && <TrialRow key={key} trial={trial} index={index} measure={windowed.measureElement} />
      })}
      <tr aria-hidden="true" style={{ height: Math.max(0, after) }} />
    </tbody>
  )
}

function Disagreements() {
  const { assessment } = useDossierContext()
  return (
    <ul className="mt-2">
      {assessment?.disagreements.map((s, i) => (
        <li key={i} className="border-warning border-l-4 py-1 pl-3">
          <Words sentence={s} />
        </li>
      ))}
    </ul>
  )
}

interface RowProps {
  readonly trial: Trial
  /** Its place in a long list, and what measures it there. */
  readonly index?: number
  readonly measure?: (row: HTMLElement | null) => void
}

const TrialRow = memo(({ trial, index, measure }: RowProps) => {
  const { dossier, assessment } = useDossierContext()
  const navigate = useNavigate()
  const hookup = dossier.hookups.find((h) => h.id === trial.hookupId)
  const count = dossier.readings.filter((r) => r.trialId === trial.id).length
  const logs = dossier.logs.filter((l) => l.trialId === trial.id).length
  const flow = assessment?.trials.find((r) => r.trial.id === trial.id)
  const finding = assessment?.findings.find((f) => f.trial.id === trial.id)
  const { leads } = KINDS[trial.kind]
  const telling = leads ? finding?.figures.filter((f) => f.id.endsWith(leads)) : finding?.figures
  const figures: readonly Figure[] = flow ? [flow.figure] : (telling?.slice(0, 2) ?? [])
  const here = `/models/${trial.modelId}/bench/${trial.id}`
  return (
    <tr role="row" ref={measure} data-index={index} aria-rowindex={index === undefined ? index : index + 2}>
      <td role="cell">
        <Link to={here} className="font-medium underline decoration-dotted underline-offset-3">
          {KINDS[trial.kind].short}
        </Link>
        {trial.note && <div className="muted max-w-56 truncate text-[0.85rem]">{trial.note}</div>}
      </td>
      <td role="cell">
        {STATE_WORDS[trial.state]}
        {trial.outReason !== null && (
          <div className="muted text-[0.85rem]">out of the fit: {trial.outReason}</div>
        )}
      </td>
      <td role="cell" data-label="on">
        {hookup?.name ?? 'none'}
      </td>
      <td role="cell" className="r" data-label="lift">
        {trial.lift > 0 ? (
          <FigureView figure={liftFigure(trial.lift)} inline digits={2} />
        ) : (
          <span className="muted">none</span>
        )}
      </td>
      <td role="cell" className="r num" data-plain data-label="readings">
        {count || (logs ? '' : 0)}
        {logs > 0 && <span className="muted"> {logs === 1 ? 'log' : `${logs} logs`}</span>}
      </td>
      <td role="cell" className="lead sm:pl-6">
        {figures.map((f) => (
          <div key={f.id}>
            {!flow && <span className="muted text-[0.88rem]">{f.label}: </span>}
            <FigureView figure={f} />
          </div>
        ))}
        {flow?.result.suspect && (
          <span className="text-warning text-[0.88rem]">
            run {flow.result.suspect.index + 1} possible outlier, still counted
          </span>
        )}
        {finding?.problem && <span className="text-warning text-[0.9rem]">{finding.problem}</span>}
        {!figures.length && finding?.sentences[0] && <Words sentence={finding.sentences[0]} />}
        {!figures.length && !finding && (
          <span className="muted">{count ? 'see the test' : 'no readings yet'}</span>
        )}
      </td>
      <td role="cell" className="whitespace-nowrap">
        <Link to={`${here}/run`} className="btn btn-ghost btn-xs">
          {count ? 'Bench' : 'Begin'}
        </Link>
        <IconButton
          label={`Repeat with the same conditions (${KINDS[trial.kind].short})`}
          icon={Repeat2}
          onClick={() => void navigate(`/models/${trial.modelId}/bench/${repeatTrial(dossier, trial)}/run`)}
        />
        <IconButton
          label={`Delete this test (${KINDS[trial.kind].short}, ${STATE_WORDS[trial.state].toLowerCase()}, ${count} readings)`}
          icon={Trash2}
          onClick={() => removeRow('trials', trial, 'Test')}
        />
      </td>
    </tr>
  )
})
