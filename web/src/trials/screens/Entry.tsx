import { keepText, keptText } from '../../api/room'
import { errorMessage } from '../../api/errorMessage'
import { findUnit, preferredUnit, type Dimension } from '@ypsometer/core/units/dimensions'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { useEffect, useId, useState } from 'react'
import { units } from '../../settings/settings'

interface Props {
  readonly label: string
  readonly dimension: Dimension
  readonly unit?: string
  readonly min: number
  readonly max: number
  readonly keep: string
  /** Where what is typed waits until it is kept. */
  readonly draft: string
  /** A value an instrument offers. */
  readonly offered?: { readonly label: string; readonly si: number } | null
  readonly autoFocus?: boolean
  readonly onKeep: (si: number, source: 'typed' | 'instrument') => void
}

/** One number at the bench: a large field, kept by Enter or its button, with what an instrument shows one tap away. */
export function Entry({ label, dimension, unit, min, max, keep, draft, offered, autoFocus, onKeep }: Props) {
  const id = useId()
  const system = units.use()
  const key = `ypsometer.entry.${draft}`
  const [text, setText] = useState(() => read(key))
  const [error, setError] = useState('')
  useEffect(() => write(key, text), [key, text])
  const shown = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const submit = (): void => {
    try {
      const { si } = parseQuantity(text, { dimension, system, bare: shown.symbol, field: label })
      if (!(si >= min && si <= max))
        return setError(
          `${label}: from ${Number((min / shown.factor).toPrecision(3))} to ${Number((max / shown.factor).toPrecision(3))} ${shown.symbol} is accepted.`,
        )
      setError('')
      setText('')
      onKeep(si, 'typed')
    } catch (e) {
      setError(errorMessage(e))
    }
  }
  return (
    <div className="py-2">
      <label htmlFor={id} className="kicker">
        {label}
        {shown.symbol && `, ${shown.symbol}`}
      </label>
      <div className="flex gap-3">
        <input
          id={id}
          className="field num !min-h-16 min-w-0 flex-1 text-[1.9rem]"
          inputMode="decimal"
          autoComplete="off"
          autoFocus={autoFocus ?? false}
          value={text}
          aria-invalid={error ? true : undefined}
          aria-describedby={`${id}-said`}
          onChange={(e) => setText(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && submit()}
        />
        <button type="button" className="btn btn-primary h-16 px-6 text-[1.15rem]" onClick={submit}>
          {keep}
        </button>
      </div>
      <p id={`${id}-said`} role={error ? 'alert' : undefined} className="text-error min-h-5 text-[0.95rem]">
        {error}
      </p>
      {offered && (
        <button
          type="button"
          className="btn h-14 w-full text-[1.05rem]"
          onClick={() => onKeep(offered.si, 'instrument')}
        >
          {offered.label}
        </button>
      )}
    </div>
  )
}

const read = (key: string): string => keptText(key) ?? ''
const write = (key: string, text: string): void => keepText(key, text || null)
