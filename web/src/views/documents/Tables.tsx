import type { CsvTable } from '@ypsometer/contract'
import { CSV_TABLES } from '@ypsometer/contract/tables'
import { Download } from 'lucide-react'
import { useId, useState } from 'react'

export const TABLE_WORDS: Readonly<Record<CsvTable, readonly [name: string, what: string]>> = {
  claims: ['Claims', 'what labels say'],
  runs: ['Runs', 'every reading of every test'],
  curves: ['Curves', 'flow at each height, with its uncertainty'],
  tracers: ['Tracers and logs', 'every point over time'],
  prices: ['Price list', 'list, sale and second-hand'],
  parts: ['Parts', 'moves, seconds, spares'],
  tanks: ['Tanks', 'sizes, water, stock'],
  visits: ['Check-ups', 'what was found and done'],
}

/** Tables for a spreadsheet, of one model or of all. */
export function Tables({
  models,
}: {
  readonly models: readonly { readonly id: string; readonly name: string }[]
}) {
  const id = useId()
  const [model, setModel] = useState('')
  return (
    <div className="space-y-2">
      <h3 className="font-bold">Tables (CSV)</h3>
      <label htmlFor={id} className="kicker block">
        Of
      </label>
      <select id={id} className="field" value={model} onChange={(e) => setModel(e.target.value)}>
        <option value="">every model</option>
        {models.map((m) => (
          <option key={m.id} value={m.id}>
            {m.name}
          </option>
        ))}
      </select>
      <ul>
        {CSV_TABLES.map((table) => {
          const [name, what] = TABLE_WORDS[table]
          const query = model && table !== 'tanks' ? `?model=${model}` : ''
          return (
            <li key={table} className="rule-b flex items-baseline justify-between gap-2 py-1">
              <span>
                {name} <span className="muted text-[0.85rem]">{what}</span>
              </span>
              <a
                href={`/api/v1/csv/${table}${query}`}
                download
                className="btn btn-xs"
                aria-label={`Save ${name} as CSV`}
              >
                <Download size={14} aria-hidden="true" />
              </a>
            </li>
          )
        })}
      </ul>
      <p className="muted text-[0.88rem]">
        Units are in the column heads. Edit and re-import; other units in the head are accepted.
      </p>
    </div>
  )
}
