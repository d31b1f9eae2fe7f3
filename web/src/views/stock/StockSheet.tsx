import type { StockClassRow } from '@ypsometer/contract'
import type { StockNumber } from '@ypsometer/core/tanks/stock'
import { changeRow } from '../../api/rows'
import { QuantityField, TextField } from '../../fields/fields'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { Sheet } from '../../figures/Sheet'

interface Line {
  readonly field: StockNumber
  readonly label: string
  readonly unit?: string
  readonly hint: string
}

/** The numbers that have a band and a source of their own. */
const LINES: readonly Line[] = [
  { field: 'feedPerVolume', label: 'Feed for each litre and day', hint: '15 mg/L/d is 1.5 g a day for 100 L' },
  { field: 'plantShare', label: 'Plants take of the ammonia', unit: '%', hint: '' },
  { field: 'litresPerKilogram', label: 'Litres that 1 kg of good media supports', hint: '' },
  { field: 'oversizing', label: 'Rated for so many times the tank', hint: '' },
  { field: 'strongestCurrent', label: 'Fastest current they bear', unit: 'cm/s', hint: '' },
  { field: 'maxTurnover', label: 'Most turnovers an hour', hint: 'beyond it the flow is too strong' },
  { field: 'minTurnover', label: 'Recommended minimum turnover', hint: 'optional rule' },
] // prettier-ignore

/** One class: its numbers, each with the band it is believed in and where it comes from, and the water it lives in. */
export function StockSheet({ row }: { readonly row: StockClassRow }) {
  const common = { collection: 'stock-classes', row } as const
  const mark = (n: StockNumber, more: Partial<{ band: number; source: string }>): void =>
    changeRow('stock-classes', row, { marks: { ...row.marks, [n]: { ...row.marks[n], ...more } } })
  return (
    <article aria-label={row.label} className="space-y-5">
      <div className="max-w-md">
        <TextField {...common} field="label" label="Name" />
      </div>
      <Parked row={row} field="marks" what="Ranges and sources of this stocking type" />
      <div
        className="overflow-x-auto"
        tabIndex={0}
        role="region"
        aria-label="Numbers with their bands, table"
      >
        <Sheet
          className="min-w-[42rem]"
          columns={[
            'Number',
            { label: 'Value', className: 'w-44' },
            { label: 'Range, ±', className: 'w-28' },
            'Source',
          ]}
        >
          {LINES.map((l) => (
            <tr key={l.field}>
              <td>
                {l.label}
                {l.hint && <span className="muted block text-[0.82rem]">{l.hint}</span>}
              </td>
              <td>
                <QuantityField
                  {...common}
                  field={l.field}
                  label={l.label}
                  hideLabel
                  {...(l.unit && { unit: l.unit })}
                />
              </td>
              <td>
                <QuantityInput
                  label={`${l.label}: range`}
                  si={row.marks[l.field].band}
                  dimension="ratio"
                  unit="%"
                  min={0}
                  max={2}
                  onCommit={(band) => mark(l.field, { band })}
                />
              </td>
              <td>
                <input
                  className="field"
                  aria-label={`${l.label}: source`}
                  maxLength={200}
                  defaultValue={row.marks[l.field].source}
                  key={row.marks[l.field].source}
                  onBlur={(e) => {
                    if (e.target.value !== row.marks[l.field].source)
                      mark(l.field, { source: e.target.value })
                  }}
                />
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
      <h3>Their feed and their water</h3>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <QuantityField {...common} field="protein" label="Protein of the feed" unit="%" />
        <QuantityField
          {...common}
          field="oxygenOfFeed"
          label="Oxygen taken from the water, kg for each kg fed"
          hint="0.3 to 0.5 for fish; 0 for what breathes air"
        />
        <QuantityField {...common} field="temperature" label="Water" />
        <QuantityField {...common} field="salinity" label="Salinity (practical)" />
        <QuantityField {...common} field="pH" label="pH" />
        <QuantityField
          {...common}
          field="nitrateLimit"
          label="Nitrate at most, as N"
          hint="22.6 mg/L as N is 100 mg/L of nitrate"
        />
      </div>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={row.openInlet}
          onChange={(e) => changeRow('stock-classes', row, { openInlet: e.target.checked })}
        />
        An inlet may be open, without a sponge over it
      </label>
    </article>
  )
}
