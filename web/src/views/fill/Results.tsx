import {
  fillCapacityFigure,
  costFigure,
  pathFlowFigure,
  fullFigure,
  jobFigure,
  massFigure,
  mediaHeadFigure,
  meetsFigure,
  unstrainedFigure,
} from '@ypsometer/core/path/figures'
import type { Difference } from '@ypsometer/core/path/compare'
import type { Outcome } from '@ypsometer/core/path/outcome'
import type { Figure } from '@ypsometer/core/figures/figure'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { FigureView } from '../../figures/FigureView'
import { HEAVY } from '@ypsometer/core/volumes/interior'
import { right, Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

interface Props {
  readonly outcome: Outcome
  readonly stock: StockClass
  readonly differences: readonly Difference[] | null
  readonly against: string | undefined
}

/** Results of the fill, and how it differs from the one it is held against. */
export function Results({ outcome, stock, differences, against }: Props) {
  const full = fullFigure(outcome)
  const cost = costFigure(outcome)
  const rows: readonly (Figure | null)[] = [
    pathFlowFigure(outcome),
    mediaHeadFigure(outcome),
    unstrainedFigure(outcome),
    meetsFigure(outcome),
    fillCapacityFigure(outcome, stock),
    jobFigure(outcome, 'biological'),
    massFigure(outcome),
    full,
    cost,
  ]
  return (
    <section aria-labelledby="results-title">
      <h2 id="results-title">Results</h2>
      <Sheet
        className="mt-1"
        aria-live="polite"
        columns={[
          <span className="sr-only">What</span>,
          right('this setup'),
          ...(differences ? [right(<>against {against?.toLowerCase()}</>)] : []),
        ]}
      >
        {rows.map((figure) => {
          if (!figure) return null
          const change = differences?.find(
            (d) => d.id.split('-').slice(0, 2).join('-') === figure.id.split('-').slice(0, 2).join('-'),
          )
          // A difference within the noise is neither better nor worse.
          const noise = Math.max(figure.uncertainty ?? 0, 0.01 * Math.abs(figure.value), 1e-9)
          const worse =
            change && Math.abs(change.change.value) > noise && change.change.value > 0 !== change.more
          return (
            <tr key={figure.id}>
              <td>
                <Explained>{figure.label}</Explained>
              </td>
              <td className="r">
                <FigureView figure={figure} inline {...(figure.id === 'fill-cost' && { digits: 4 })} />
              </td>
              {differences && (
                <td className={`r ${worse ? 'text-error' : ''}`}>
                  {change && <FigureView figure={change.change} inline said signed digits={2} />}
                </td>
              )}
            </tr>
          )
        })}
      </Sheet>
      {full && full.value >= HEAVY && (
        <p className="text-warning mt-1 font-medium">
          Full, it weighs more than {HEAVY} kg. Empty it first, or lift it together.
        </p>
      )}
    </section>
  )
}
