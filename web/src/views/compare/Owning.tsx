import { comparedCost, type CompareBy } from '@ypsometer/core/advice/compare'
import { COST_PARTS, costWorking, hasBody, isWhole, type OwningCost } from '@ypsometer/core/advice/cost'
import { sayPrice } from '@ypsometer/core/advice/words'
import { useMemo } from 'react'
import { showDay } from '../../settings/when'
import { GiveRate, Rates } from '../../frame/Rates'
import type { Compared } from './useCompared'
import { CostChart } from '../../charts'

interface Props {
  readonly compared: Compared
  readonly by: CompareBy
  readonly name: string
}

/** Cost of owning each over some years: by what it is made of, year by year. */
export function Owning({ compared: { models, set, house }, by, name }: Props) {
  const costs = useMemo(
    () => models.map((m) => ({ id: m.id, name: m.name, cost: comparedCost(m, by) })),
    [models, by],
  )
  const others = [...new Set(costs.flatMap((c) => c.cost.apart.map((a) => a.currency)))]
  return (
    <section aria-labelledby="owning-title">
      <h2 id="owning-title">What it costs to own</h2>
      <div className="mt-1 flex flex-wrap items-end gap-x-6 gap-y-2">
        <label>
          <span className="kicker block">Years</span>
          <input
            type="number"
            className="field w-20"
            min={1}
            max={30}
            value={by.rule.years}
            onChange={(e) => set({ years: e.target.value })}
          />
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={by.refilled}
            onChange={(e) => set({ with: e.target.checked ? 'better' : null })}
          />
          with better media, where they are proposed
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={by.rule.cutFloss}
            onChange={(e) => set({ cut: e.target.checked ? '1' : '0' })}
          />
          cartridge frames kept, floss cut for them
        </label>
        {models
          .filter((m) => m.offers.length)
          .map((m) => (
            <label key={m.id}>
              <span className="kicker block">{m.name} bought</span>
              <select
                className="select select-sm w-auto"
                value={
                  by.prices?.has(m.id)
                    ? (m.offers.find((o) => o.price === by.prices?.get(m.id))?.kind ?? '')
                    : ''
                }
                onChange={(e) => set({ [`pay-${m.id}`]: e.target.value || null })}
              >
                <option value="">at list price</option>
                {m.offers.map((o) => (
                  <option key={o.kind} value={o.kind}>
                    {o.kind === 'sale' ? 'on sale' : 'second-hand'}, {sayPrice(o.price)}
                  </option>
                ))}
              </select>
            </label>
          ))}
      </div>
      <div className="mt-3">
        <CostChart costs={costs} name={name} />
      </div>
      <ul className="mt-2 max-w-3xl text-[0.95rem]">
        {costs.map((c) => (
          <li key={c.id} className="rule-b py-1.5">
            <span className="font-medium">{c.name}</span>{' '}
            {hasBody(c.cost) ? (
              <>
                {!isWhole(c.cost) && 'from '}
                <span className="num font-medium">
                  {sayPrice({ minor: c.cost.total, currency: c.cost.currency })}
                </span>{' '}
                over {by.rule.years} {by.rule.years === 1 ? 'year' : 'years'}
              </>
            ) : (
              <span className="text-warning">not known: the price of the filter</span>
            )}
            <Gaps cost={c.cost} />
            <Adds cost={c.cost} />
          </li>
        ))}
      </ul>
      {house && others.map((currency) => <GiveRate key={currency} currency={currency} house={house} />)}
      {house && <Rates house={house} />}
      <p className="muted mt-2 max-w-3xl text-[0.9rem]">
        Media in whole packs and parts, by their usual life (rules of thumb). Prices from library and labels;
        electricity at your price.
      </p>
    </section>
  )
}

function Gaps({ cost }: { readonly cost: OwningCost }) {
  return (
    <>
      {cost.apart.map((a) => (
        <span key={a.currency} className="text-warning">
          {' '}
          and {sayPrice(a)} apart, in another currency
        </span>
      ))}
      {cost.missing.length > 0 && <span className="muted"> Not in it: {cost.missing.join('; ')}.</span>}
    </>
  )
}

/** Items of the sum, thing by thing. */
function Adds({ cost }: { readonly cost: OwningCost }) {
  const things = COST_PARTS.flatMap((part) => costWorking(cost, part))
  if (!things.length) return null
  return (
    <details className="text-[0.9rem]">
      <summary className="muted cursor-pointer">
        what it adds up, by rules of thumb for lives and work
      </summary>
      <ul>
        {things.map((t) => (
          <li key={t.what} className="flex justify-between gap-4">
            <span>
              {t.what}
              <span className="muted"> {t.on ? `as of ${showDay(t.on)}` : 'undated'}</span>
            </span>
            <span className="num">{sayPrice({ minor: t.minor, currency: cost.currency })}</span>
          </li>
        ))}
      </ul>
    </details>
  )
}
