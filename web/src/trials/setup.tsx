import type { Trial, TrialSetup } from '@ypsometer/contract'
import { SETUP_FIELDS } from '@ypsometer/core/trials/readings'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { useId, useState } from 'react'
import { changeRow } from '../api/rows'
import { QuantityInput } from '../fields/QuantityInput'
import { readMoney, showMoney } from '../fields/MoneyField'
import { DYE_POINTS } from './dye/points'

/** Changes some of a trial's setup; the rest stays. An absent value goes back to the usual. */
export const changeSetup = (trial: Trial, part: Partial<TrialSetup>): void => {
  const next = Object.fromEntries(
    Object.entries({ ...trial.setup, ...part }).filter(([, v]) => v !== undefined),
  )
  changeRow('trials', trial, { setup: next })
}

/** The longest text that the core declares for a field. */
const longest = (field: string): number => {
  const declared = SETUP_FIELDS[field]
  return declared?.is === 'text' ? declared.max : 120
}

interface SetupNumberProps {
  readonly trial: Trial
  readonly field: SetupNumber
  readonly label: string
  readonly dimension: Dimension
  /** Word where nothing was set. */
  readonly usual: number
  readonly unit?: string
  readonly hint?: string
  /** Factor of what is typed on what is kept. */
  readonly scale?: number
}
type SetupNumber = {
  [K in keyof TrialSetup]-?: NonNullable<TrialSetup[K]> extends number ? K : never
}[keyof TrialSetup]

/** A number of the set-up, within the limits that the core declares. */
export function SetupNumber({
  trial,
  field,
  label,
  dimension,
  usual,
  unit,
  hint,
  scale = 1,
}: SetupNumberProps) {
  const declared = SETUP_FIELDS[field]
  const { min, max } = declared?.is === 'number' ? declared : { min: 0, max: 1e9 }
  return (
    <Labelled label={label} {...(hint && { hint })}>
      <QuantityInput
        label={label}
        si={(trial.setup[field] ?? usual) * scale}
        dimension={dimension}
        {...(unit && { unit })}
        min={min * scale}
        max={max * scale}
        onCommit={(v) => changeSetup(trial, { [field]: v / scale })}
      />
    </Labelled>
  )
}

/** A choice of the set-up. */
export function SetupChoice<F extends 'readBy' | 'countedAs'>({
  trial,
  field,
  label,
  options,
  usual,
}: {
  readonly trial: Trial
  readonly field: F
  readonly label: string
  /** Words where nothing was chosen, if that is not the first of them. */
  readonly usual?: string
  readonly options: readonly (readonly [NonNullable<TrialSetup[F]>, string])[]
}) {
  const id = useId()
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        {label}
      </label>
      <select
        id={id}
        className="field"
        value={trial.setup[field] ?? (usual === undefined ? options[0]?.[0] : '') ?? ''}
        onChange={(e) => changeSetup(trial, { [field]: options.find(([v]) => v === e.target.value)?.[0] })}
      >
        {usual !== undefined && <option value="">{usual}</option>}
        {options.map(([v, words]) => (
          <option key={v} value={v}>
            {words}
          </option>
        ))}
      </select>
    </div>
  )
}

function Labelled({
  label,
  hint,
  children,
}: {
  readonly label: string
  readonly hint?: string
  readonly children: React.ReactNode
}) {
  return (
    <div>
      <span className="kicker block" aria-hidden="true">
        {label}
      </span>
      {children}
      {hint && <p className="muted text-[0.85rem]">{hint}</p>}
    </div>
  )
}

/** A text of the setup, written on leaving it. */
export function SetupWords({
  trial,
  field,
  label,
  hint,
}: {
  readonly trial: Trial
  readonly field: 'position' | 'unit' | 'load' | 'stone' | 'spot' | 'conditioner'
  readonly label: string
  readonly hint?: string
}) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const commit = (): void => {
    if (text !== null && text.trim() !== (trial.setup[field] ?? ''))
      changeSetup(trial, { [field]: text.trim() || undefined })
    setText(null)
  }
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        {label}
      </label>
      <input
        id={id}
        className="field"
        maxLength={longest(field)}
        value={text ?? trial.setup[field] ?? ''}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {hint && <p className="muted text-[0.85rem]">{hint}</p>}
    </div>
  )
}

/** The points watched, separated by commas. */
export function SetupPoints({ trial }: { readonly trial: Trial }) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const shown = (trial.setup.points?.length ? trial.setup.points : DYE_POINTS).join(', ')
  const commit = (): void => {
    if (text === null) return
    const points = [
      ...new Set(
        text
          .split(',')
          .map((p) => p.trim())
          .filter(Boolean),
      ),
    ]
    const long = points.find((p) => p.length > 40)
    if (long) return setError(`“${long.slice(0, 20)}…” is too long: at most 40 characters each.`)
    if (points.length > 12) return setError(`${points.length} points; at most 12 are taken.`)
    setError('')
    setText(null)
    changeSetup(trial, { points: points.length ? points : undefined })
  }
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        Points watched
      </label>
      <input
        id={id}
        className="field"
        value={text ?? shown}
        aria-invalid={error ? true : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      <p role={error ? 'alert' : undefined} className={`text-[0.85rem] ${error ? 'text-error' : 'muted'}`}>
        {error || 'Separated by commas.'}
      </p>
    </div>
  )
}

/** Price of a kilowatt-hour. */
export function SetupPrice({ trial }: { readonly trial: Trial }) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const { pricePerKwhMinor, currency } = trial.setup
  const commit = (): void => {
    if (text === null) return
    if (!text.trim()) {
      setText(null)
      setError('')
      return changeSetup(trial, { pricePerKwhMinor: undefined, currency: undefined })
    }
    const read = readMoney(text, currency ?? null)
    if (typeof read === 'string') return setError(read)
    setError('')
    setText(null)
    changeSetup(trial, { pricePerKwhMinor: read.minor, currency: read.currency })
  }
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        Price of a kWh
      </label>
      <input
        id={id}
        className="field num"
        placeholder="such as 0.31 EUR"
        value={text ?? showMoney(pricePerKwhMinor ?? null, currency ?? null)}
        aria-invalid={error ? true : undefined}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {error && (
        <p role="alert" className="text-error text-[0.85rem]">
          {error}
        </p>
      )}
    </div>
  )
}
