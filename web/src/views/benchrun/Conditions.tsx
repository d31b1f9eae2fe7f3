import type { Hookup, Trial } from '@ypsometer/contract'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { precision, PRECISIONS } from '../../frame/settings'
import { STATE_OPTIONS } from '../words'

interface Props {
  readonly trial: Trial
  readonly hookups: readonly Hookup[]
  readonly onDone: () => void
}

/** The conditions a timing belongs to; they are part of every number that comes of it. */
export function Conditions({ trial, hookups, onDone }: Props) {
  const common = { collection: 'trials', row: trial } as const
  const wanted = precision.use()
  return (
    <div className="mx-auto max-w-2xl text-[1.08rem] [&_.field]:min-h-14">
      <h2>What is being timed?</h2>
      <div className="mt-2 grid gap-x-8 gap-y-3 sm:grid-cols-2">
        <QuantityField
          {...common}
          field="vesselVolume"
          label="Vessel, to its mark"
          dimension="volume"
          min={0.0001}
          max={1}
        />
        <SelectField {...common} field="state" label="What is in the body" options={STATE_OPTIONS} />
        <SelectField
          {...common}
          field="hookupId"
          label="What is attached"
          none="Nothing: bare outlet"
          options={hookups.map((h) => [h.id, h.name] as const)}
        />
        <QuantityField
          {...common}
          field="lift"
          label="Outlet above the water it draws from"
          dimension="head"
          min={0}
          max={20}
          hint="0 when held at the surface, as labels are rated."
        />
        <QuantityField
          {...common}
          field="waterTemperature"
          label="Water temperature"
          dimension="temperature"
          min={0}
          max={40}
        />
        <SelectField
          {...common}
          field="mainsFrequency"
          label="Mains"
          numeric
          options={[
            ['50', '50 Hz'],
            ['60', '60 Hz'],
          ]}
        />
        <QuantityField
          {...common}
          field="vesselUncertainty"
          label="How sure is the vessel’s mark (1 σ)"
          dimension="ratio"
          unit="%"
          min={0}
          max={0.2}
          hint="1 % for a marked bucket, 0.3 % if weighed."
        />
        <QuantityField
          {...common}
          field="reaction"
          label="Reaction at each press (1 σ)"
          dimension="time"
          min={0}
          max={1}
        />
        <label className="block">
          <span className="kicker block">Interval wanted</span>
          <select
            className="field"
            value={wanted}
            onChange={(e) => precision.set(e.target.value as typeof wanted)}
          >
            {PRECISIONS.map((p) => (
              <option key={p} value={p}>
                ± {Number(p) * 100} % of the flow
              </option>
            ))}
          </select>
        </label>
        <TextField {...common} field="note" label="Note" max={4000} />
      </div>
      <p className="muted mt-3 text-[0.95rem]">
        Unplug before hands go into the water or the body is opened. No socket below the water line; a drip
        loop on every cable.
      </p>
      <button
        type="button"
        className="btn btn-primary sticky bottom-0 mt-4 h-14 w-full text-[1.1rem]"
        onClick={onDone}
      >
        To the clock
      </button>
    </div>
  )
}
