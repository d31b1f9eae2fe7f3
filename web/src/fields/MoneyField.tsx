import { minorDigits, moneyText } from '@ypsometer/core/units/money'
import { readNumber } from '@ypsometer/core/units/parse'
import { useId, useState } from 'react'
import { changeRow } from '../api/rows'
import type { PatchOf, ResourceName, RowOf } from '@ypsometer/contract'
import { DayNoted } from './DayNoted'
import { today } from '../settings/when'
import { patchOf, type FieldOf } from './patch'

export const showMoney = (minor: number | null, currency: string | null): string =>
  minor === null || currency === null ? '' : moneyText(minor, currency)

/** Reads "69.00 EUR" into minor units; the currency falls back to the one given. Returns a sentence when it cannot. */
export function readMoney(
  text: string,
  fallback: string | null,
): { readonly minor: number; readonly currency: string } | string {
  const m = /^\s*([\d.,\s]+?)\s*([A-Za-z]{3})?\s*$/.exec(text)
  const amount = m?.[1] ? readNumber(m[1]) : NaN
  const currency = (m?.[2] ?? fallback ?? 'EUR').toUpperCase()
  if (typeof amount !== 'number' || !Number.isFinite(amount) || amount < 0 || amount > 1e6)
    return `“${text}” is not a price: write one such as 69.00 EUR.`
  try {
    return { minor: Math.round(amount * 10 ** minorDigits(currency)), currency }
  } catch {
    return `“${currency}” is no currency code: write one such as EUR, USD or GBP.`
  }
}

interface Props<N extends ResourceName> {
  readonly collection: N
  /** Undefined while the price has no row yet; then `onCreate` makes one. */
  readonly row: RowOf<N> | undefined
  readonly amount: FieldOf<N, number>
  readonly currency: FieldOf<N, string>
  /** Where the day it was noted on is kept: today as it is typed, and open to change. */
  readonly day?: FieldOf<N, string>
  readonly label: string
  readonly hideLabel?: boolean
  readonly onCreate?: (body: PatchOf<N>) => void
}

/** Money with its currency, kept as whole minor units; empty takes it out. */
export function MoneyField<N extends ResourceName>(p: Props<N>) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const held = <V,>(field: FieldOf<N, V>): V | null => (p.row ? (p.row[field] as V | null) : null)
  const code = held<string>(p.currency)
  const shown = showMoney(held<number>(p.amount), code)
  const noted = (on: string | null): Readonly<Record<string, string | null>> => (p.day ? { [p.day]: on } : {})
  const commit = (): void => {
    if (text === null || text === shown) return setText(null)
    if (!text.trim()) {
      if (p.row)
        changeRow(p.collection, p.row, patchOf<N>(p.amount, null, { [p.currency]: null, ...noted(null) }))
      return setText(null)
    }
    const money = readMoney(text, code)
    if (typeof money === 'string') return setError(money)
    const body = patchOf<N>(p.amount, money.minor, { [p.currency]: money.currency, ...noted(today()) })
    if (p.row) changeRow(p.collection, p.row, body)
    else p.onCreate?.(body)
    setText(null)
  }
  return (
    <div>
      <label htmlFor={id} className={p.hideLabel ? 'sr-only' : 'kicker block'}>
        {p.label}
      </label>
      <input
        id={id}
        className="field num"
        autoComplete="off"
        placeholder="such as 69.00 EUR"
        value={text ?? shown}
        aria-invalid={error ? true : undefined}
        aria-describedby={`${id}-said`}
        onChange={(e) => {
          setText(e.target.value)
          setError('')
        }}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {p.day && p.row && shown && (
        <DayNoted
          label={`${p.label} as of`}
          on={held<string>(p.day)}
          onChange={(on) => p.row && p.day && changeRow(p.collection, p.row, patchOf<N>(p.day, on))}
        />
      )}
      <p id={`${id}-said`} aria-live="polite" className="text-error text-[0.88rem] leading-snug">
        {error}
      </p>
    </div>
  )
}
