import { useId } from 'react'

interface ChoiceProps {
  readonly label: string
  readonly value: string
  readonly options: readonly (readonly [string, string])[]
  readonly onChange: (id: string) => void
}

/** A choice of what to look at: kept in the address, not in the record. */
export function Choice({ label, value, options, onChange }: ChoiceProps) {
  const id = useId()
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        {label}
      </label>
      <select id={id} className="field" value={value} onChange={(e) => onChange(e.target.value)}>
        {options.length === 0 && <option value="">choose …</option>}
        {options.map(([v, words]) => (
          <option key={v} value={v}>
            {words}
          </option>
        ))}
      </select>
    </div>
  )
}
