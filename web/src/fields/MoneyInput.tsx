import { useId, useState } from 'react'
import { readMoney, showMoney } from './MoneyField'

interface Price {
  readonly minor: number
  readonly currency: string
}
interface Props {
  readonly label: string
  readonly value: Price | null
  /** Currency taken where none is written. */
  readonly usual: string
  /** Null where it was emptied. */
  readonly onCommit: (price: Price | null) => void
}

/** Money with its currency in a field of its own: what cannot be read stays, with the reason. */
export function MoneyInput({ label, value, usual, onCommit }: Props) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [problem, setProblem] = useState('')
  const shown = showMoney(value?.minor ?? null, value?.currency ?? null)
  const commit = (): void => {
    setProblem('')
    if (text === null || text.trim() === shown) return setText(null)
    if (!text.trim()) {
      onCommit(null)
      return setText(null)
    }
    const read = readMoney(text, value?.currency ?? usual)
    if (typeof read === 'string') return setProblem(read)
    onCommit(read)
    setText(null)
  }
  return (
    <span>
      <input
        className="field num w-32"
        aria-label={label}
        aria-invalid={problem !== ''}
        aria-describedby={problem ? id : undefined}
        value={text ?? shown}
        placeholder="not set"
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {problem && (
        <span id={id} role="alert" className="text-error block text-[0.85rem]">
          {problem}
        </span>
      )}
    </span>
  )
}
