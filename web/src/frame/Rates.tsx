import type { HouseRule } from '@ypsometer/contract'
import { useState } from 'react'
import { changeRow } from '../api/rows'
import { showDay } from '../settings/when'

type Rated = Pick<HouseRule, 'advice'> & HouseRule

const write = (house: Rated, rates: NonNullable<HouseRule['advice']['rates']>): void =>
  changeRow('house-rules', house, { advice: { ...house.advice, rates } })

/** No rate is made up: the house gives one, with its date, and it holds everywhere until it is changed. */
export function GiveRate({ currency, house }: { readonly currency: string; readonly house: Rated }) {
  const [per, setPer] = useState('')
  const [on, setOn] = useState('')
  const value = Number(per.replace(',', '.'))
  const good = value > 0 && Number.isFinite(value)
  return (
    <div className="mt-2 flex flex-wrap items-end gap-3 text-[0.95rem]">
      <label>
        <span className="kicker block">
          1 {currency} in {house.advice.currency}
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
        disabled={!good || on === ''}
        onClick={() => write(house, { ...house.advice.rates, [currency]: { rate: value, on } })}
      >
        Add rate
      </button>
      {per !== '' && !good && (
        <span role="alert" className="text-error">
          Enter a number above 0, e.g. 1.15.
        </span>
      )}
    </div>
  )
}

/** The rates a house holds, each with its day. */
export function Rates({ house }: { readonly house: Rated }) {
  const { rates = {}, currency } = house.advice
  return Object.entries(rates).map(([from, { rate, on }]) => (
    <p key={from} className="text-[0.92rem]">
      1 {from} = {rate} {currency}, rate of {showDay(on)}, in the house rules.{' '}
      <button
        type="button"
        className="link"
        aria-label={`Remove the rate of ${from}`}
        onClick={() => write(house, Object.fromEntries(Object.entries(rates).filter(([c]) => c !== from)))}
      >
        Remove
      </button>
    </p>
  ))
}
