import type { ProposedTrial } from '@ypsometer/core/judging/proposed'
import { Check } from 'lucide-react'
import { useNavigate } from 'react-router'
import { useDossierContext } from '../../frame/dossier'
import { startProposed } from '../../trials/startTrial'

/** The usual set: what is done, what is missing, and each missing one a press away. */
export function ProposedSet() {
  const { dossier, assessment } = useDossierContext()
  const navigate = useNavigate()
  if (!assessment) return null
  const { proposed } = assessment
  const done = proposed.filter((p) => p.done).length
  const next = proposed.find((p) => !p.done)
  const go = (p: ProposedTrial): void => {
    const id = p.trialId ?? startProposed(dossier, p)
    void navigate(`/models/${dossier.model.id}/bench/${id}/run`)
  }
  return (
    <section id="standard-tests" aria-labelledby="set-title">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="set-title">
          Standard tests{' '}
          <span className="muted text-[0.95rem] font-normal">
            {done} of {proposed.length} done
          </span>
        </h2>
        {next && (
          <button type="button" className="btn btn-primary btn-sm" onClick={() => go(next)}>
            Next: {next.what.charAt(0).toLowerCase() + next.what.slice(1)}
          </button>
        )}
      </div>
      <ol className="mt-2 grid gap-x-10 lg:grid-cols-2">
        {proposed.map((p) => (
          <li key={p.id} className="rule-b flex items-baseline gap-3 py-1">
            <span className="w-5 shrink-0">
              {p.done ? (
                <Check size={16} aria-hidden="true" className="inline" />
              ) : (
                <span className="border-secondary inline-block h-3 w-3 border" aria-hidden="true" />
              )}
              <span className="sr-only">{p.done ? 'done' : 'missing'}</span>
            </span>
            <span className={`min-w-0 flex-1 ${p.done ? 'muted' : ''}`} title={p.why}>
              {p.what}
            </span>
            {!p.done && (
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                aria-label={`${p.trialId ? 'Go on with' : 'Start'}: ${p.what}`}
                onClick={() => go(p)}
              >
                {p.trialId ? 'Go on' : 'Start'}
              </button>
            )}
          </li>
        ))}
      </ol>
    </section>
  )
}
