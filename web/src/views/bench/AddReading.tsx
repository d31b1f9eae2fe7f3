import type { Reading, Trial } from '@ypsometer/contract'
import {
  AIR_SERIES,
  HOLDING_OUTCOMES,
  NOISE_SERIES,
  PRIME_OUTCOMES,
  PRIME_SERIES,
  READING_SHAPES,
  readingProblem,
} from '@ypsometer/core/bench/kinds'
import { parseQuantity, preferredUnit, findUnit, type Dimension } from '@ypsometer/core/units'
import { Plus } from 'lucide-react'
import { useState } from 'react'
import { units } from '../../frame/settings'
import { keepReading } from '../benchrun/readings'
import { DYE_POINTS, KINDS, OUTCOME_WORDS, SERIES_WORDS } from './kinds'

/** One number of a reading that can be typed. */
interface NumberCell {
  readonly field: 'volume' | 'seconds' | 'value'
  readonly label: string
  readonly dimension: Dimension
  readonly unit?: string
}

function cells(trial: Trial, series: string): readonly NumberCell[] {
  const shape = READING_SHAPES[trial.kind]
  const words = KINDS[trial.kind].value
  const water = trial.kind === 'air' && series === 'water'
  const leak = trial.kind === 'prime' && series === 'leak'
  return [
    ...(shape.volume || water ? [{ field: 'volume', label: 'Volume', dimension: 'volume' } as const] : []),
    ...(shape.seconds || water ? [{ field: 'seconds', label: 'Seconds', dimension: 'time' } as const] : []),
    ...(trial.kind === 'dye' ? [{ field: 'value', label: 'Strength', dimension: 'ratio' } as const] : []),
    ...(leak ? [{ field: 'value', label: 'Water caught', dimension: 'volume', unit: 'mL' } as const] : []),
    ...(shape.value && words && trial.kind !== 'dye'
      ? [
          {
            field: 'value',
            label: words.label,
            dimension: words.dimension,
            ...(words.unit && { unit: words.unit }),
          } as const,
        ]
      : []),
  ]
}

const seriesOf = (trial: Trial): readonly string[] => {
  switch (trial.kind) {
    case 'noise':
      return NOISE_SERIES
    case 'prime':
      return PRIME_SERIES
    case 'air':
      return AIR_SERIES
    case 'holding':
      return ['cups', 'clips', 'bracket']
    case 'dye':
      return trial.setup.points?.length ? trial.setup.points : DYE_POINTS
    default:
      return []
  }
}
const outcomesOf = (trial: Trial): readonly string[] =>
  trial.kind === 'holding' ? HOLDING_OUTCOMES : trial.kind === 'prime' ? PRIME_OUTCOMES : []

/** A reading typed at the desk, from a notebook: the fields of its kind, kept by Enter. */
export function AddReading({ trial }: { readonly trial: Trial }) {
  const system = units.use()
  const series = seriesOf(trial)
  const outcomes = outcomesOf(trial)
  const [chosen, setChosen] = useState(series[0] ?? '')
  const [outcome, setOutcome] = useState(outcomes[0] ?? '')
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({})
  const [note, setNote] = useState('')
  const [error, setError] = useState('')
  const list = cells(trial, chosen)
  const unitOf = (c: NumberCell) =>
    (c.unit && findUnit(c.unit, c.dimension, system)) || preferredUnit(c.dimension, system)
  const submit = (): void => {
    const body: Partial<Record<NumberCell['field'], number>> = {}
    try {
      for (const c of list) {
        const text = texts[c.field]?.trim() ?? ''
        if (text)
          body[c.field] = parseQuantity(text, {
            dimension: c.dimension,
            system,
            bare: unitOf(c).symbol,
            field: c.label,
          }).si
      }
    } catch (e) {
      return setError(e instanceof Error ? e.message : String(e))
    }
    if (trial.kind === 'prime') body.seconds ??= 0
    const reading: Partial<Reading> = {
      ...body,
      series: chosen,
      outcome,
      note: note.trim(),
    }
    const wrong = readingProblem(trial.kind, reading)
    if (wrong) {
      const at = list.find((c) => c.field === wrong.field)?.label ?? wrong.field
      return setError(`${at}: ${wrong.message} is needed.`)
    }
    keepReading(trial, reading)
    setTexts({})
    setNote('')
    setError('')
  }
  return (
    <form
      className="no-print mt-2 flex flex-wrap items-end gap-x-4 gap-y-2"
      aria-label="Add a reading"
      onSubmit={(e) => {
        e.preventDefault()
        submit()
      }}
    >
      {series.length > 0 && (
        <label>
          <span className="kicker block">Of</span>
          <select className="field !w-auto" value={chosen} onChange={(e) => setChosen(e.target.value)}>
            {series.map((s) => (
              <option key={s} value={s}>
                {SERIES_WORDS[s] ?? s}
              </option>
            ))}
          </select>
        </label>
      )}
      {list.map((c) => (
        <label key={c.field}>
          <span className="kicker block">
            {c.label}
            {unitOf(c).symbol && `, ${unitOf(c).symbol}`}
          </span>
          <input
            className="field num !w-28"
            inputMode="decimal"
            autoComplete="off"
            value={texts[c.field] ?? ''}
            onChange={(e) => setTexts({ ...texts, [c.field]: e.target.value })}
          />
        </label>
      ))}
      {outcomes.length > 0 && (
        <label>
          <span className="kicker block">Outcome</span>
          <select className="field !w-auto" value={outcome} onChange={(e) => setOutcome(e.target.value)}>
            {outcomes.map((o) => (
              <option key={o} value={o}>
                {OUTCOME_WORDS[o] ?? o}
              </option>
            ))}
          </select>
        </label>
      )}
      <label>
        <span className="kicker block">Note</span>
        <input
          className="field !w-40"
          maxLength={400}
          value={note}
          onChange={(e) => setNote(e.target.value)}
        />
      </label>
      <button type="submit" className="btn btn-sm">
        <Plus size={16} aria-hidden="true" /> Add
      </button>
      {error && (
        <p role="alert" className="text-error w-full text-[0.9rem]">
          {error}
        </p>
      )}
    </form>
  )
}
