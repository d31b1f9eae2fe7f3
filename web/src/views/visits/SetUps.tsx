import { setUpSubject } from '@ypsometer/contract/faults'
import { setUpState, setUpSteps } from '@ypsometer/core/hands/setUp'
import { ListChecks, Trash2 } from 'lucide-react'
import { Link, useNavigate } from 'react-router'
import { useSetUps, useTanks } from '../../api/lists'
import { createRow } from '../../api/rows'
import { useDossierContext } from '../../frame/dossier'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { showDay, today } from '../../settings/when'

/** Set-ups by the checklist of this model, and what was refused at them. */
export function SetUps({ tankId }: { readonly tankId: string | null }) {
  const { dossier } = useDossierContext()
  const { setUps = [] } = useSetUps()
  const { tanks = [] } = useTanks()
  const navigate = useNavigate()
  const steps = setUpSteps(setUpSubject(dossier))
  const own = setUps
    .filter((s) => s.modelId === dossier.model.id)
    .sort((a, b) => b.on.localeCompare(a.on) || b.createdAt.localeCompare(a.createdAt))
  const run = (id: string): string => `/models/${dossier.model.id}/set-ups/${id}/run`
  const begin = (): void => {
    const id = createRow('set-ups', {
      modelId: dossier.model.id,
      on: today(),
      tankId,
      specimenId: dossier.specimens.at(-1)?.id ?? null,
    })
    void navigate(run(id))
  }
  return (
    <section aria-labelledby="set-ups-title" className="as-needed">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <h2 id="set-ups-title">Setting up</h2>
          <p className="muted">
            {steps.length} steps for this model, one per screen, big buttons for wet hands.
          </p>
        </div>
        <span className="flex flex-wrap gap-2">
          <Link
            to={`/faults?model=${dossier.model.id}${tankId ? `&tank=${tankId}` : ''}`}
            className="btn btn-sm"
          >
            Something is wrong with it
          </Link>
          <button type="button" className="btn btn-sm" onClick={begin}>
            <ListChecks size={16} aria-hidden="true" /> Start set-up checklist
          </button>
        </span>
      </div>
      {own.length > 0 && (
        <ul className="rule-t mt-2">
          {own.map((s) => {
            const { done, of, refused } = setUpState(steps, s.ticked)
            return (
              <li key={s.id} className="rule-b flex items-start justify-between gap-3 py-1.5">
                <span className="min-w-0">
                  <Link to={run(s.id)} className="link">
                    {showDay(s.on)}
                  </Link>
                  {s.tankId && ` · ${tanks.find((t) => t.id === s.tankId)?.name ?? 'a deleted tank'}`}
                  {' · '}
                  <span className="num">
                    {done} of {of}
                  </span>{' '}
                  done
                  {refused.map((r) => (
                    <span key={r.id} className="text-warning block text-[0.92rem]">
                      Problem: {r.says}
                      {s.ticked[r.id]?.why && ` (${s.ticked[r.id]?.why})`}
                    </span>
                  ))}
                </span>
                <IconButton
                  label={`Delete the set-up of ${showDay(s.on)}`}
                  icon={Trash2}
                  onClick={() => removeRow('set-ups', s, `The set-up of ${showDay(s.on)}`)}
                />
              </li>
            )
          })}
        </ul>
      )}
    </section>
  )
}
