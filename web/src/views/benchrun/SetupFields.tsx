import type { Trial, TrialSetup } from '@ypsometer/contract'
import { USUAL_SETUP } from '@ypsometer/core/bench'
import type { Dimension } from '@ypsometer/core/units'
import { useId, useState } from 'react'
import { changeRow } from '../../api/rows'
import { QuantityInput } from '../../fields/QuantityInput'
import { readMoney, showMoney } from '../../fields/MoneyField'
import { DYE_POINTS } from '../bench/kinds'

/** Changes some of a trial's setup; the rest stays. An absent value goes back to the usual. */
const change = (trial: Trial, part: Partial<TrialSetup>): void => {
  const next = Object.fromEntries(
    Object.entries({ ...trial.setup, ...part }).filter(([, v]) => v !== undefined),
  )
  changeRow('trials', trial, { setup: next })
}

/** What a kind of trial needs to know of its instrument or arrangement. */
export function SetupFields({ trial }: { readonly trial: Trial }) {
  const q = (
    field: keyof TrialSetup,
    label: string,
    dimension: Dimension,
    usual: number,
    limits: readonly [number, number],
    unit?: string,
    hint?: string,
  ) => (
    <Labelled key={field} label={label} {...(hint && { hint })}>
      <QuantityInput
        label={label}
        si={(trial.setup[field] as number | undefined) ?? usual}
        dimension={dimension}
        {...(unit && { unit })}
        min={limits[0]}
        max={limits[1]}
        onCommit={(v) => change(trial, { [field]: v })}
      />
    </Labelled>
  )
  switch (trial.kind) {
    case 'weighed':
      return q(
        'scale',
        'How sure is the scale (1 σ)',
        'mass',
        USUAL_SETUP.scale,
        [0, 10],
        'g',
        '5 g for a kitchen scale.',
      )
    case 'meter':
    case 'meter-check':
      return (
        <>
          <Labelled
            label="Meter factor, pulses per litre"
            hint="From its data sheet, or better from a check of the meter."
          >
            <QuantityInput
              label="Meter factor, pulses per litre"
              si={(trial.setup.kFactor ?? USUAL_SETUP.kFactor) / 1000}
              dimension="ratio"
              min={0.001}
              max={1e9}
              onCommit={(v) => change(trial, { kFactor: v * 1000 })}
            />
          </Labelled>
          {q(
            'kUncertainty',
            'How sure is the factor (1 σ)',
            'ratio',
            USUAL_SETUP.kUncertainty,
            [0, 0.5],
            '%',
          )}
        </>
      )
    case 'read':
      return q('relative', 'How sure is the instrument (1 σ)', 'ratio', USUAL_SETUP.relative, [0, 0.5], '%')
    case 'power':
      return (
        <>
          {q('relative', 'How sure is the meter (1 σ)', 'ratio', USUAL_SETUP.relative / 2, [0, 0.5], '%')}
          <Price trial={trial} />
        </>
      )
    case 'noise':
      return (
        <>
          {q('distance', 'Microphone from the filter', 'length', 1, [0.01, 100], 'm')}
          <Words trial={trial} field="position" label="Where it stands" max={120} />
          {q(
            'levelUncertainty',
            'How sure is the meter (1 σ)',
            'sound',
            USUAL_SETUP.levelUncertainty,
            [0, 20],
          )}
        </>
      )
    case 'dye':
      return (
        <>
          <Points trial={trial} />
          {q(
            'volume',
            'Water it spreads in',
            'volume',
            0.1,
            [1e-4, 100],
            undefined,
            'With the flow it gives the dead share.',
          )}
          <Words
            trial={trial}
            field="unit"
            label="Unit of strength"
            max={20}
            hint="Empty for 0 to 10 by eye."
          />
        </>
      )
    case 'holding':
      return <Words trial={trial} field="load" label="What hangs on it" max={120} />
    case 'air':
      return (
        <>
          {q('riserDiameter', 'Riser, inside', 'length', 0.018, [0.002, 0.2], 'mm')}
          {q('submergence', 'Air enters below the water', 'length', 0.3, [0.005, 5])}
          <Words trial={trial} field="stone" label="Stone or nozzle" max={80} />
        </>
      )
    default:
      return null
  }
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
function Words({
  trial,
  field,
  label,
  max,
  hint,
}: {
  readonly trial: Trial
  readonly field: 'position' | 'unit' | 'load' | 'stone'
  readonly label: string
  readonly max: number
  readonly hint?: string
}) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const commit = (): void => {
    if (text !== null && text.trim() !== (trial.setup[field] ?? ''))
      change(trial, { [field]: text.trim() || undefined })
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
        maxLength={max}
        value={text ?? trial.setup[field] ?? ''}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {hint && <p className="muted text-[0.85rem]">{hint}</p>}
    </div>
  )
}

function Points({ trial }: { readonly trial: Trial }) {
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
    change(trial, { points: points.length ? points : undefined })
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
        {error || 'Parted by commas.'}
      </p>
    </div>
  )
}

function Price({ trial }: { readonly trial: Trial }) {
  const id = useId()
  const [text, setText] = useState<string | null>(null)
  const [error, setError] = useState('')
  const { pricePerKwhMinor, currency } = trial.setup
  const commit = (): void => {
    if (text === null) return
    if (!text.trim()) {
      setText(null)
      setError('')
      return change(trial, { pricePerKwhMinor: undefined, currency: undefined })
    }
    const read = readMoney(text, currency ?? null)
    if (typeof read === 'string') return setError(read)
    setError('')
    setText(null)
    change(trial, { pricePerKwhMinor: read.minor, currency: read.currency })
  }
  return (
    <div>
      <label className="kicker block" htmlFor={id}>
        Price of a kWh
      </label>
      <input
        id={id}
        className="field num"
        placeholder="0.31 EUR"
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
