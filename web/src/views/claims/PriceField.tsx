import type { Claim } from '@ypsometer/contract'
import { readNumber } from '@ypsometer/core/units'
import { useState } from 'react'
import { changeRow, createRow } from '../../api/queries'

/** Digits after the point of a currency: 2 for the euro, 0 for the yen. */
const minorDigits = (currency: string): number =>
  new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2

const show = (c: Claim | undefined): string => {
  if (!c || c.amountMinor === null || c.currency === null) return ''
  const digits = minorDigits(c.currency)
  return `${(c.amountMinor / 10 ** digits).toFixed(digits)} ${c.currency}`
}

/** Money with its currency, such as "69.00 EUR"; kept as whole minor units. */
export function PriceField({
  modelId,
  claim,
}: {
  readonly modelId: string
  readonly claim: Claim | undefined
}) {
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const commit = (): void => {
    if (text === null || text === show(claim)) return setText(null)
    const m = /^\s*([\d.,\s]+?)\s*([A-Za-z]{3})?\s*$/.exec(text)
    const amount = m?.[1] ? readNumber(m[1]) : NaN
    const currency = (m?.[2] ?? claim?.currency ?? 'EUR').toUpperCase()
    let digits: number
    try {
      digits = minorDigits(currency)
    } catch {
      return setError(`“${currency}” is no currency code: write one such as EUR, USD or GBP.`)
    }
    if (typeof amount !== 'number' || !Number.isFinite(amount) || amount < 0 || amount > 1e6)
      return setError(`“${text}” is not a price: write one such as 69.00 EUR.`)
    const body = { amountMinor: Math.round(amount * 10 ** digits), currency }
    if (claim) changeRow('claims', claim, body)
    else createRow('claims', { modelId, quantity: 'price', printedOn: 'shelf tag', ...body })
    setText(null)
  }
  return (
    <div>
      <label htmlFor="price" className="sr-only">
        Price
      </label>
      <input
        id="price"
        className="field num"
        autoComplete="off"
        placeholder="69.00 EUR"
        value={text ?? show(claim)}
        aria-invalid={error ? true : undefined}
        aria-describedby="price-said"
        onChange={(e) => {
          setText(e.target.value)
          setError('')
        }}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      <p id="price-said" aria-live="polite" className="text-error text-[0.88rem] leading-snug">
        {error}
      </p>
    </div>
  )
}
