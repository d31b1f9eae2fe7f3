import type { Figure } from '@ypsometer/core/figures/figure'
import { FigureView } from '../../figures/FigureView'
import { useDossierContext } from '../../frame/dossier'

/** Rule of thumb, computed, measured: the three answers to "what does it really move", side by side. */
export function ThreeAnswers() {
  const { assessment } = useDossierContext()
  if (!assessment) return null
  const { thumb, computed, measured } = assessment.answers
  const air = assessment.pump === null && thumb !== null && measured !== null
  return (
    <section aria-labelledby="answers-title">
      <h2 id="answers-title" className="sr-only">
        What does it really move?
      </h2>
      <div className="rule-b grid divide-y divide-base-300 sm:grid-cols-3 sm:divide-x sm:divide-y-0">
        <Answer title="Label less 40 to 50 %" figure={thumb} none="Copy the rated flow first." first />
        <Answer
          title="Computed from hose and lift"
          figure={computed}
          none={
            air
              ? 'No pump: the air lifts the water, so there is no pump curve.'
              : 'Needs rated flow, maximum head and a hookup.'
          }
        />
        <Answer title="Measured as installed" figure={measured} none="Time it on its hoses, loaded." />
      </div>
    </section>
  )
}

function Answer({
  title,
  figure,
  none,
  first,
}: {
  readonly title: string
  readonly figure: Figure | null
  readonly none: string
  readonly first?: boolean
}) {
  return (
    <div className={`min-w-0 py-1.5 ${first ? 'sm:pr-5' : 'sm:px-5'}`}>
      <p className="kicker">{title}</p>
      <div className="min-h-[2.2rem]">
        {figure ? <FigureView figure={figure} size="lg" /> : <p className="muted">{none}</p>}
      </div>
      {figure?.conditions && (
        <p className="muted text-[0.85rem] sm:truncate" title={figure.conditions.join(' · ')}>
          {figure.conditions.join(' · ')}
        </p>
      )}
    </div>
  )
}
