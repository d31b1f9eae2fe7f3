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
        <Answer
          title="Rule of thumb: 50 to 60 % of the label"
          figure={thumb}
          none="Copy the rated flow first."
          first
        />
        <Answer
          title="Calculated from hose and lift"
          figure={computed}
          none={
            air
              ? 'No pump: air lifts the water, so there is no pump curve.'
              : 'Add rated flow, maximum head and plumbing.'
          }
        />
        <Answer
          title="Measured as installed"
          figure={measured}
          none="Not timed yet. Time it with media and hoses."
        />
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
