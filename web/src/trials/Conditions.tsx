import type { Hookup, Trial } from '@ypsometer/contract'
import { QuantityField, SelectField, TextField } from '../fields/fields'
import { precision, PRECISIONS } from '../settings/settings'
import { useDossierContext } from '../frame/dossier'
import { Photos } from '../photos/Photos'
import { STATE_OPTIONS } from '../words'
import { READING_SHAPES } from '@ypsometer/core/trials/readings'
import { useTrialView } from './view'

interface Props {
  readonly trial: Trial
  readonly hookups: readonly Hookup[]
}

/** The conditions a trial belongs to; they are part of every number that comes of it. */
export function ConditionFields({ trial, hookups }: Props) {
  const common = { collection: 'trials', row: trial } as const
  const wanted = precision.use()
  const { dossier } = useDossierContext()
  const { Setup } = useTrialView()
  const { vessel, byHand } = READING_SHAPES[trial.kind]
  return (
    <>
      {vessel && <QuantityField {...common} field="vesselVolume" label="Vessel, to its mark" />}
      {Setup && <Setup trial={trial} />}
      <SelectField {...common} field="state" label="Media in the filter" options={STATE_OPTIONS} />
      {dossier.fills.length > 0 && trial.state !== 'empty' && (
        <SelectField
          {...common}
          field="fillId"
          label="Which media setup"
          none="the one its state says"
          options={dossier.fills.map((f) => [f.id, f.name] as const)}
        />
      )}
      {trial.state === 'dirty' && (
        <QuantityField {...common} field="daysInUse" label="Days in use since it was cleaned" />
      )}
      <SelectField
        {...common}
        field="hookupId"
        label="Plumbing"
        none="None (bare outlet)"
        options={hookups.map((h) => [h.id, h.name] as const)}
      />
      <QuantityField
        {...common}
        field="lift"
        label="Outlet height above the source water"
        dimension="head"
        hint="0 when held at the surface, as labels are rated."
      />
      <QuantityField {...common} field="valve" label="Tap open" unit="%" hint="100 % when there is none." />
      <TextField {...common} field="outlet" label="Outlet used" />
      <QuantityField {...common} field="waterTemperature" label="Water temperature" />
      <QuantityField
        {...common}
        field="salinity"
        label="Salinity"
        hint="0 for fresh water, about 35 for the sea."
      />
      <SelectField
        {...common}
        field="mainsFrequency"
        label="Supply frequency"
        numeric
        options={[
          ['50', '50 Hz'],
          ['60', '60 Hz'],
        ]}
      />
      <QuantityField {...common} field="mainsVoltage" label="Supply voltage" />
      {vessel && (
        <QuantityField
          {...common}
          field="vesselUncertainty"
          label="Standard uncertainty of the vessel’s mark"
          unit="%"
          hint="1 % for a marked bucket, 0.3 % if weighed."
        />
      )}
      {byHand && <QuantityField {...common} field="reaction" label="Stopwatch error per press" />}
      {trial.kind === 'vessel' && (
        <label className="block">
          <span className="kicker block">Target accuracy</span>
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
      )}
      <TextField {...common} field="note" label="Note" />
    </>
  )
}

/** The conditions in the bench posture: large fields, the caution, and the way on. */
export function Conditions({ trial, hookups, onDone }: Props & { readonly onDone: () => void }) {
  const { title, how, caution, clock } = useTrialView()
  return (
    <div className="mx-auto max-w-2xl text-[1.08rem] [&_.field]:min-h-14">
      <h2>{title}: the conditions</h2>
      <p className="muted">{how}</p>
      <div className="mt-2 grid gap-x-8 gap-y-3 sm:grid-cols-2">
        <ConditionFields trial={trial} hookups={hookups} />
      </div>
      <div className="mt-4">
        <Photos owner={{ trialId: trial.id }} />
      </div>
      <p className="muted mt-3 text-[0.95rem]">
        Unplug before hands go into the water or the body is opened. No socket below the water line; a drip
        loop on every cable. {caution}
      </p>
      <button
        type="button"
        className="btn btn-primary sticky bottom-0 mt-4 h-14 w-full text-[1.1rem]"
        onClick={onDone}
      >
        {clock ? 'Start timing' : 'To the readings'}
      </button>
    </div>
  )
}
