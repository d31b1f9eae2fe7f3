import { DAY } from '@ypsometer/core/biology/load'
import { CHECKLISTS } from '@ypsometer/core/parts/vocabulary'
import { partHistories, unitSurvival } from '@ypsometer/core/visits/history'
import { useDossierContext } from '../../frame/dossier'
import { showDay } from '../../settings/when'

/** Parts that were looked at over the visits, and how long units of the model run before something fails. */
export function AgedParts() {
  const { dossier } = useDossierContext()
  const stories = partHistories(dossier.visits)
  const survival = unitSurvival(dossier.visits)
  if (!stories.length && !survival) return null
  const wordOf = (checklist: string, finding: string) =>
    CHECKLISTS.find((c) => c.id === checklist)?.findings.find((f) => f.id === finding)
  return (
    <section aria-labelledby="aged-title" className="as-needed">
      <h2 id="aged-title">Parts over time</h2>
      {stories.length > 0 && (
        <ul className="mt-1 max-w-3xl">
          {stories.map(({ part: id, seen }) => {
            const part = dossier.parts.find((p) => p.id === id)
            // Only a change is a new line of the scenario.
            const turns = seen.filter((s, i) => i === 0 || s.findings.join() !== seen[i - 1]?.findings.join())
            return (
              <li key={id} className="rule-b grid gap-x-6 py-1.5 sm:grid-cols-[13rem_minmax(0,1fr)]">
                <span className="font-medium">{part?.name ?? 'A part that was removed'}</span>
                <span>
                  {turns.map((s, i) => (
                    <span key={s.on}>
                      {i > 0 && ' → '}
                      {s.findings.map((f) => {
                        const known = wordOf(part?.checklist ?? 'general', f)
                        return (
                          <span key={f} className={known?.good ? '' : 'text-warning'}>
                            {known?.label ?? f}
                          </span>
                        )
                      })}{' '}
                      <span className="muted num text-[0.88rem]">{showDay(s.on)}</span>
                    </span>
                  ))}
                </span>
              </li>
            )
          })}
        </ul>
      )}
      {survival && (
        <p className="mt-2 max-w-3xl text-[0.95rem]">
          Units without a failure (Kaplan–Meier, n = {survival.units}):{' '}
          {survival.steps.length
            ? survival.steps
                .map((s) => `${Math.round(s.survival * 100)} % after ${Math.round(s.time / DAY)} days`)
                .join(', ')
            : 'all so far'}
          .{survival.units < 5 && ' Too few to say more.'}
        </p>
      )}
    </section>
  )
}
