import type { Trial } from '@ypsometer/contract'
import { Timer, Trash2 } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { Link, useNavigate } from 'react-router'
import { createRow, deleteRow } from '../../api/queries'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { useDossierContext } from '../dossier/Dossier'
import { STATE_WORDS } from '../words'

/** Every flow trial with its conditions and result; a new one starts from the conditions of the last. */
export function TrialList() {
  const { dossier, assessment } = useDossierContext()
  const navigate = useNavigate()
  const { model, trials } = dossier
  const start = (): void => {
    const last = trials.at(-1)
    const like = last && {
      specimenId: last.specimenId,
      hookupId: last.hookupId,
      state: last.state,
      lift: last.lift,
      waterTemperature: last.waterTemperature,
      vesselVolume: last.vesselVolume,
      vesselUncertainty: last.vesselUncertainty,
      typed: last.typed,
    }
    const id = createRow('trials', {
      modelId: model.id,
      mainsFrequency: model.mainsFrequency,
      ...DEFAULTS,
      ...like,
    })
    void navigate(`/models/${model.id}/bench/${id}/run`)
  }
  return (
    <section aria-labelledby="trials-title">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="trials-title">Timed runs</h2>
        <button type="button" className="btn btn-primary btn-sm" onClick={start}>
          <Timer size={16} aria-hidden="true" /> New timing
        </button>
      </div>
      {trials.length === 0 ? (
        <p className="mt-2 max-w-2xl">
          Nothing timed yet. Hold the outlet over a marked bucket and time how long it takes to fill, five
          times: first bare and empty, as the label is rated, then loaded on its hoses, as it will run.
        </p>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Timed runs, table">
          <table className="sheet mt-2 min-w-[40rem]">
            <thead>
              <tr>
                <th scope="col">Fill</th>
                <th scope="col">Attached</th>
                <th scope="col" className="r">
                  Lift
                </th>
                <th scope="col" className="r">
                  Runs
                </th>
                <th scope="col" className="pl-6">
                  Flow
                </th>
                <th scope="col">Notes</th>
                <th>
                  <span className="sr-only">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {trials.map((t) => (
                <TrialRow key={t.id} trial={t} figure={assessment?.trials.find((r) => r.trial.id === t.id)} />
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  )
}

const DEFAULTS = {
  specimenId: null,
  hookupId: null,
  state: 'empty',
  lift: 0,
  waterTemperature: 22,
  vesselVolume: 0.005,
  vesselUncertainty: 0.01,
  clockResolution: 0.01,
  reaction: 0.05,
  note: '',
  typed: {},
}

type Result = NonNullable<ReturnType<typeof useDossierContext>['assessment']>['trials'][number]

function TrialRow({ trial, figure }: { readonly trial: Trial; readonly figure: Result | undefined }) {
  const { dossier } = useDossierContext()
  const hookup = dossier.hookups.find((h) => h.id === trial.hookupId)
  const count = dossier.readings.filter((r) => r.trialId === trial.id).length
  return (
    <tr>
      <td>{STATE_WORDS[trial.state]}</td>
      <td>{hookup?.name ?? 'nothing'}</td>
      <td className="r">
        {trial.lift > 0 ? (
          <Num si={trial.lift} dimension="head" digits={2} />
        ) : (
          <span className="muted">none</span>
        )}
      </td>
      <td className="r num">{count}</td>
      <td className="pl-6">
        {figure ? <FigureView figure={figure.figure} /> : <span className="muted">no runs yet</span>}
      </td>
      <td className="text-[0.9rem]">
        {figure?.result.suspect && (
          <span className="text-warning">run {figure.result.suspect.index + 1} stands apart (kept) </span>
        )}
        {trial.note}
      </td>
      <td className="whitespace-nowrap">
        <Link to={`/models/${trial.modelId}/bench/${trial.id}/run`} className="btn btn-ghost btn-xs">
          {count ? 'Open' : 'Time it'}
        </Link>
        <IconButton
          label={`Delete this timing (${STATE_WORDS[trial.state].toLowerCase()}, ${count} runs)`}
          icon={Trash2}
          onClick={() => deleteRow('trials', trial, 'Timing')}
        />
      </td>
    </tr>
  )
}
