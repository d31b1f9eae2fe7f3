import {
  comparedCost,
  COST_PARTS,
  costWorking,
  sayPrice,
  type CompareBy,
  type OwningCost,
} from '@ypsometer/core/advice'
import { useMemo, useState } from 'react'
import { showDay } from '../../frame/when'
import { ratesText, type Compared } from './useCompared'
import { CostChart } from '../../charts'

interface Props {
  readonly compared: Compared
  readonly by: CompareBy
  readonly name: string
}

/** What owning each costs over some years: by what it is made of, year by year. */
export function Owning({ compared: { models, set, rates }, by, name }: Props) {
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
            className="checkbox checkbox-sm"
            checked={by.refilled}
            onChange={(e) => set({ with: e.target.checked ? 'better' : null })}
          />
          with better media, where they are proposed
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
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
            <span className="num font-medium">
              {sayPrice({ minor: c.cost.total, currency: c.cost.currency })}
            </span>{' '}
            over {by.rule.years} {by.rule.years === 1 ? 'year' : 'years'}
            <Gaps cost={c.cost} />
            <Adds cost={c.cost} />
          </li>
        ))}
      </ul>
      {others.map((currency) => (
        <GiveRate
          key={currency}
          currency={currency}
          into={costs[0]?.cost.currency ?? by.rule.currency}
          set={set}
          rates={rates}
        />
      ))}
      {rates.map((r) => (
        <p key={r.currency} className="text-[0.92rem]">
          1 {r.currency} taken as {r.per} {costs[0]?.cost.currency}, your rate of {r.on}.{' '}
          <button
            type="button"
            className="link"
            onClick={() => set({ rate: ratesText(rates.filter((x) => x !== r)) })}
          >
            Forget it
          </button>
        </p>
      ))}
      <p className="muted mt-2 max-w-3xl text-[0.9rem]">
        Media in whole packs by how long they last, parts by how long they usually do (rules of thumb, common
        practice); prices from the library and the labels; electricity at the house’s tariff.
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

/** What the sum is made of, thing by thing. */
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

interface RateProps {
  readonly currency: string
  readonly into: string
  readonly set: Compared['set']
  readonly rates: Compared['rates']
}

/** No rate is made up: the user gives one, with its date. */
function GiveRate({ currency, into, set, rates }: RateProps) {
  const [per, setPer] = useState('')
  const [on, setOn] = useState('')
  const value = Number(per.replace(',', '.'))
  const ready = value > 0 && Number.isFinite(value) && on !== ''
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3 text-[0.95rem]">
      <label>
        <span className="kicker block">
          1 {currency} in {into}
        </span>
        <input
          className="field w-28"
          inputMode="decimal"
          value={per}
          onChange={(e) => setPer(e.target.value)}
        />
      </label>
      <label>
        <span className="kicker block">of</span>
        <input type="date" className="field w-40" value={on} onChange={(e) => setOn(e.target.value)} />
      </label>
      <button
        type="button"
        className="btn btn-sm"
        disabled={!ready}
        onClick={() => set({ rate: ratesText([...rates, { currency, per: value, on }]) })}
      >
        Add it in
      </button>
      {per !== '' && !(value > 0) && (
        <span role="alert" className="text-error">
          A number above nought, such as 1.15.
        </span>
      )}
    </div>
  )
}
