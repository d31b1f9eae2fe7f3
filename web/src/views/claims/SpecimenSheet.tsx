import { createRow } from '../../api/rows'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { useDossierContext } from '../../frame/dossier'

const OBTAINED_OPTIONS = [
  ['bought', 'Bought'],
  ['loaned', 'Loaned by the maker or a shop'],
  ['given', 'Given, free'],
  ['second-hand', 'Second-hand'],
] as const

/** The tested unit: how it was obtained, and what it holds. Readers ask. */
export function SpecimenSheet() {
  const { dossier } = useDossierContext()
  const specimen = dossier.specimens.at(-1)
  return (
    <section aria-labelledby="specimen-title" className="as-needed space-y-3">
      <h2 id="specimen-title">The tested unit</h2>
      {specimen ? (
        <>
          <SelectField
            collection="specimens"
            row={specimen}
            field="obtained"
            label="How you got it"
            none="not said yet"
            options={OBTAINED_OPTIONS}
            hint="Shown in the verdict and in reviews."
          />
          <div id="media-mass">
            <QuantityField
              collection="specimens"
              row={specimen}
              field="mediaMass"
              label="Supplied bio media, dry weight"
              hint="All bags together."
            />
          </div>
          <SelectField
            collection="specimens"
            row={specimen}
            field="mediaMassBy"
            label="Source of this weight"
            options={[
              ['estimate', 'taken from the label, or guessed'],
              ['scale', 'weighed on a scale'],
            ]}
            hint="Only a weighed mass is a measurement. It calibrates the supplied media."
          />
          <TextField collection="specimens" row={specimen} field="note" label="Note" lines={2} />
        </>
      ) : (
        <>
          <p className="muted">
            Say how you got this unit, and weigh its media. Too little media often limits the tank before flow
            does.
          </p>
          <button
            id="media-mass"
            type="button"
            className="btn btn-sm"
            onClick={() => createRow('specimens', { modelId: dossier.model.id })}
          >
            Add the unit
          </button>
        </>
      )}
    </section>
  )
}
