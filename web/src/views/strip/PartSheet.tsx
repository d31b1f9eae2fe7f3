import type { Part } from '@ypsometer/contract'
import { CHECKLISTS, FIXINGS, MATERIALS, REACHES } from '@ypsometer/core/parts/vocabulary'
import { Condition } from '../../fields/Condition'
import { Key, KeyGroup } from '../../fields/Keys'
import { MoneyField } from '../../fields/MoneyField'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { changeRow } from '../../api/rows'
import { Photos } from '../../photos/Photos'

export const REACH_WORDS = {
  'pre-filter': 'the pre-filter',
  pad: 'a pad',
  media: 'the media',
  impeller: 'the impeller',
} as const

/** One part: what it does and is made of, how it is held, its condition, spare price, photos. */
export function PartSheet({ part, parts }: { readonly part: Part; readonly parts: readonly Part[] }) {
  const common = { collection: 'parts', row: part } as const
  return (
    <section aria-label={part.name} className="border-base-content space-y-3 border-l-2 pl-4">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField {...common} field="name" label="Part" />
        <TextField {...common} field="job" label="What it does" />
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
          label="Hand movements"
          check={(v) => (Number.isInteger(v) ? null : 'Enter a whole number.')}
        />
        <QuantityField {...common} field="seconds" label="Time to remove (s)" />
        <QuantityField {...common} field="cleaning" label="Time to clean (s)" />
        <QuantityField {...common} field="back" label="Time to refit (s)" />
        <SelectField
          {...common}
          field="reach"
          label="Gives access to"
          none="nothing new"
          options={REACHES.map((r) => [r, REACH_WORDS[r]] as const)}
        />
        <QuantityField {...common} field="wetMass" label="Weight, wet" />
        <MoneyField
          collection="parts"
          row={part}
          amount="sparePriceMinor"
          currency="spareCurrency"
          day="sparePricedOn"
          label="Spare price"
        />
        <SelectField
          {...common}
          field="checklist"
          label="Checked as"
          options={CHECKLISTS.map((c) => [c.id, c.label] as const)}
        />
      </div>
      <ComesOffFirst part={part} parts={parts} />
      <HowItGoesIn part={part} />
      <Condition part={part} />
      <TextField {...common} field="note" label="Note" lines={2} />
      <Photos owner={{ partId: part.id }} />
    </section>
  )
}

const WRONG_KEYS = [
  [false, 'no, it only fits one way'],
  [true, 'yes'],
] as const

/** Which way a part goes back, the mark that says so, whether it can go in wrong and what follows. */
function HowItGoesIn({ part }: { readonly part: Part }) {
  const common = { collection: 'parts', row: part } as const
  return (
    <div className="space-y-3">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
        <TextField {...common} field="goesIn" label="Correct position" hint="such as “tube to the left”" />
        <TextField {...common} field="mark" label="Mark on it" hint="such as “arrow”; empty: none" />
      </div>
      <KeyGroup name="Can it go in wrong?">
        {WRONG_KEYS.map(([value, words]) => (
          <Key
            key={words}
            on={part.canGoWrong === value}
            onTap={() => changeRow('parts', part, { canGoWrong: part.canGoWrong === value ? null : value })}
          >
            {words}
          </Key>
        ))}
      </KeyGroup>
      {part.canGoWrong === true && (
        <TextField {...common} field="follows" label="What happens if it is fitted wrong" />
      )}
    </div>
  )
}

/** Parts that must come off before one: everything above it in the list, or some of them named. */
function ComesOffFirst({ part, parts }: { readonly part: Part; readonly parts: readonly Part[] }) {
  const others = parts.filter((p) => p.id !== part.id)
  const earlier = others.filter((p) => p.position < part.position).map((p) => p.id)
  const set = (after: string[] | null): void => changeRow('parts', part, { after })
  const { after } = part
  return (
    <fieldset>
      <legend className="kicker">Remove first</legend>
      <label className="flex items-center gap-2 py-1">
        <input
          type="checkbox"
          className="checkbox"
          checked={after === null}
          onChange={(e) => set(e.target.checked ? null : earlier)}
        />
        everything above it in the list
      </label>
      {after !== null && (
        <div className="flex flex-wrap gap-x-4 gap-y-1">
          {others.map((p) => (
            <label key={p.id} className="flex items-center gap-2 py-0.5">
              <input
                type="checkbox"
                className="checkbox"
                checked={after.includes(p.id)}
                onChange={(e) => set(e.target.checked ? [...after, p.id] : after.filter((id) => id !== p.id))}
              />
              {p.name}
            </label>
          ))}
        </div>
      )}
    </fieldset>
  )
}
