import { errorMessage } from '../api/errorMessage'
import { findUnit, fromSI, preferredUnit, type Dimension } from '@ypsometer/core/units/dimensions'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { useId, useState } from 'react'
import { units } from '../settings/settings'

interface Props {
  readonly label: string
  readonly si: number
  readonly dimension: Dimension
  readonly unit?: string
  readonly min: number
  readonly max: number
  readonly whole?: boolean
  readonly onCommit: (si: number) => void
}

/**
 * A small number field inside a list, written on leaving it; what cannot be read stays in the field with the reason.
 */
export function QuantityInput({ label, si, dimension, unit, min, max, whole, onCommit }: Props) {
  const id = useId()
  const system = units.use()
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const shownIn = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const show = (v: number): string => `${Number(fromSI(v, shownIn).toPrecision(5))} ${shownIn.symbol}`.trim()
  const commit = (): void => {
    if (text === null) return
    try {
      const q = parseQuantity(text, { dimension, system, bare: shownIn.symbol, field: label })
      if (q.si < min || q.si > max) return setError(`between ${show(min)} and ${show(max)}`)
      if (whole && !Number.isInteger(q.si)) return setError('a whole number')
      setText(null)
      setError('')
      if (Math.abs(q.si - si) > 1e-12) onCommit(q.si)
    } catch (e) {
      setError(errorMessage(e))
    }
  }
  return (
    <div>
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        autoComplete="off"
        value={text ?? show(si)}
        aria-invalid={error ? true : undefined}
        aria-describedby={error ? `${id}-said` : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {error && (
        <p id={`${id}-said`} role="alert" className="text-error text-[0.85rem] leading-snug">
          {error}
        </p>
      )}
    </div>
  )
}
