import type { Part } from '@ypsometer/contract'
import { CHECKLISTS, FIXINGS, MATERIALS, REACHES } from '@ypsometer/core/teardown/vocabulary'
import { Condition } from '../../fields/Condition'
import { MoneyField } from '../../fields/MoneyField'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { Photos } from '../../photos/Photos'

export const REACH_WORDS = {
  'pre-filter': 'the pre-filter',
  pad: 'a pad',
  media: 'the media',
  impeller: 'the impeller',
} as const

/** One part: what it does and is made of, how it is held, its condition, spare price, photos. */
export function PartSheet({ part }: { readonly part: Part }) {
  const common = { collection: 'parts', row: part } as const
  return (
    <section aria-label={part.name} className="border-base-content space-y-3 border-l-2 pl-4">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField {...common} field="name" label="Part" max={80} required />
        <TextField {...common} field="job" label="What it does" max={200} />
        <SelectField
          {...common}
          field="material"
          label="Material"
          options={MATERIALS.map((m) => [m, m] as const)}
        />
        <SelectField
          {...common}
          field="fixing"
          label="Held by"
          options={FIXINGS.map((f) => [f, f] as const)}
        />
        <QuantityField
          {...common}
          field="moves"
          label="Moves of the hand"
          dimension="ratio"
          min={0}
          max={1000}
          check={(v) => (Number.isInteger(v) ? null : 'A whole number of moves.')}
        />
        <QuantityField
          {...common}
          field="seconds"
          label="Seconds taken"
          dimension="time"
          min={0}
          max={86400}
        />
        <SelectField
          {...common}
          field="reach"
          label="With it off one reaches"
          none="nothing new"
          options={REACHES.map((r) => [r, REACH_WORDS[r]] as const)}
        />
        <QuantityField
          {...common}
          field="wetMass"
          label="Weight, wet"
          dimension="mass"
          optional
          min={0}
          max={200}
        />
        <MoneyField
          collection="parts"
          row={part}
          amount="sparePriceMinor"
          currency="spareCurrency"
          label="Spare price"
        />
        <SelectField
          {...common}
          field="checklist"
          label="Checked as"
          options={CHECKLISTS.map((c) => [c.id, c.label] as const)}
        />
      </div>
      <Condition part={part} />
      <TextField {...common} field="note" label="Note" max={2000} lines={2} />
      <Photos owner={{ partId: part.id }} />
    </section>
  )
}
