import { createRow } from '../../api/rows'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { useDossierContext } from '../../frame/dossier'

const OBTAINED_OPTIONS = [
  ['bought', 'Bought'],
  ['loaned', 'Loaned by the maker or a shop'],
  ['given', 'Given, free'],
  ['second-hand', 'Second-hand'],
] as const

/** The unit on the bench: how it was obtained, and what it holds. Readers ask. */
export function SpecimenSheet() {
  const { dossier } = useDossierContext()
  const specimen = dossier.specimens.at(-1)
  return (
    <section aria-labelledby="specimen-title" className="as-needed space-y-3">
      <h2 id="specimen-title">The unit on the bench</h2>
      {specimen ? (
        <>
          <SelectField
            collection="specimens"
            row={specimen}
            field="obtained"
            label="How it was obtained"
            options={OBTAINED_OPTIONS}
            hint="Readers ask; the verdict says so."
          />
          <QuantityField
            collection="specimens"
            row={specimen}
            field="mediaMass"
            label="Biological media it holds, dry"
            hint="All bags together."
          />
          <SelectField
            collection="specimens"
            row={specimen}
            field="mediaMassBy"
            label="How that mass is known"
            options={[
              ['estimate', 'taken from the label, or guessed'],
              ['scale', 'weighed on a scale'],
            ]}
            hint="Only a weighed mass is a measurement: it calibrates the fill as shipped."
          />
          <TextField collection="specimens" row={specimen} field="note" label="Note" lines={2} />
        </>
      ) : (
        <>
          <p className="muted">
            Note how this unit came to the bench, and weigh its media: mass may bind before flow does.
          </p>
          <button
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
