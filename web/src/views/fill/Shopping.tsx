import type { Outcome } from '@ypsometer/core/path/outcome'
import { costFigure, leftOverFigure, neededFigure } from '@ypsometer/core/path/figures'
import { Link } from 'react-router'
import { showMoney } from '../../fields/MoneyField'
import { FigureView } from '../../figures/FigureView'
import { right, Sheet } from '../../figures/Sheet'

/** Shopping list of a fill: whole packs, what they cost, what is left over. */
export function Shopping({ outcome }: { readonly outcome: Outcome }) {
  const { shopping, cost } = outcome
  const sum = costFigure(outcome)
  if (!shopping.length) return null
  return (
    <section aria-labelledby="shopping-title" className="as-needed">
      <h2 id="shopping-title">Shopping list</h2>
      <div className="overflow-x-auto">
        <Sheet columns={['Medium', right('needed'), right('packs'), right('left over'), right('price')]}>
          {shopping.map((l) => (
            <tr key={l.medium.id}>
              <td>
                <Link className="hover:underline" to={`/library/${l.medium.id}`}>
                  {l.medium.name}
                </Link>
              </td>
              <td className="r">
                <FigureView figure={neededFigure(l)} inline said />
              </td>
              <td className="r num" data-plain>
                {l.packs ?? '–'}
              </td>
              <td className="r">
                {l.leftOver === null ? '–' : <FigureView figure={leftOverFigure(l)} inline said digits={2} />}
              </td>
              <td className="r num whitespace-nowrap" data-plain>
                {l.costMinor === null ? (
                  <span className="muted">no price</span>
                ) : (
                  showMoney(l.costMinor, l.currency)
                )}
                {l.medium.pricedOn === null && l.costMinor !== null && (
                  <span className="muted"> · undated</span>
                )}
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
      {sum && (
        <p className="mt-1 text-right">
          In all <FigureView figure={sum} inline said digits={4} /> {cost.currency}
          {cost.unpriced.length > 0 && (
            <span className="text-warning"> without {cost.unpriced.join(', ').toLowerCase()}</span>
          )}
        </p>
      )}
    </section>
  )
}
