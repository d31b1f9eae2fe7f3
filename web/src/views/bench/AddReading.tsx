import { errorMessage } from '../../api/errorMessage'
import type { PatchOf, Trial } from '@ypsometer/contract'
import { READING_SHAPES, readingProblem } from '@ypsometer/core/trials/readings'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { preferredUnit, findUnit } from '@ypsometer/core/units/dimensions'
import { Plus } from 'lucide-react'
import { useState } from 'react'
import { units } from '../../settings/settings'
import { keepReading } from '../../trials/screens/readings'
import { cellsOf, KINDS, type NumberCell } from '../../trials'

/** A reading typed at the desk, from a notebook: the fields of its kind, kept by Enter. */
export function AddReading({ trial }: { readonly trial: Trial }) {
  const system = units.use()
  const { series: seriesOf, outcomes = [] } = KINDS[trial.kind]
  const series = seriesOf?.(trial) ?? []
  const [chosen, setChosen] = useState(series[0]?.[0] ?? '')
  const [outcome, setOutcome] = useState(outcomes[0]?.[0] ?? '')
  const [texts, setTexts] = useState<Readonly<Record<string, string>>>({})
  const [note, setNote] = useState('')
  const [error, setError] = useState('')
  const list = cellsOf(trial.kind, chosen)
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
      return setError(errorMessage(e))
    }
    if (READING_SHAPES[trial.kind].seconds?.min === 0) body.seconds ??= 0
    const reading: PatchOf<'readings'> = {
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
            {series.map(([s, words]) => (
              <option key={s} value={s}>
                {words}
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
            {outcomes.map(([o, words]) => (
              <option key={o} value={o}>
                {words}
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
