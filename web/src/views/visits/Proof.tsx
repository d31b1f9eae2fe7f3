import { balanceOn, testedLines } from '@ypsometer/core/clogging/living'
import { daysBetween } from '@ypsometer/core/days/days'
import { waterProofs } from '@ypsometer/core/visits/history'
import { Words } from '../../figures/Words'
import { showDay } from '../../settings/when'
import type { Season } from '../../fillPath/useSeason'

/** Water tests of the visits against the balance of the tank with this fill as dirty as it was. */
export function Proof({ season }: { readonly season: Season }) {
  const { history, record, path, answer } = season
  const tested = history.visits.filter((v) => v.ammonia !== null || v.nitrite !== null || v.nitrate !== null)
  const { outcome } = path
  if (!tested.length || !record || !outcome || !answer) return null
  const last = tested.slice(-4).reverse()
  return (
    <section aria-labelledby="proof-title" className="as-needed">
      <h2 id="proof-title">Water tests</h2>
      <p className="muted max-w-3xl">
        Test kits compared with the water forecast. A new tank is not at steady state yet.
      </p>
      <ul className="mt-1 max-w-3xl">
        {last.map((v) => {
          // As dirty as it was then; before it was first timed, clean.
          const day = history.first ? Math.max(0, daysBetween(history.first.on, v.on)) : 0
          const expected = testedLines(balanceOn(record, outcome, answer.run, day))
          return (
            <li key={v.id} className="rule-b grid gap-x-6 py-1.5 sm:grid-cols-[8rem_minmax(0,1fr)]">
              <span className="num">{showDay(v.on)}</span>
              <span>
                {waterProofs(v, expected).map((p) => (
                  <span key={p.what} className="block">
                    <Words sentence={p.sentence} />
                  </span>
                ))}
              </span>
            </li>
          )
        })}
      </ul>
    </section>
  )
}
