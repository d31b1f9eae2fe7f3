import { REASSEMBLY } from '@ypsometer/core/parts/vocabulary'
import { changeRow, createRow } from '../../api/rows'
import { DateField, QuantityField, SelectField, TextField } from '../../fields/fields'
import { useDossierContext } from '../../frame/dossier'
import type { RowOf } from '@ypsometer/contract'
import { DISCLOSED, DISCLOSURE_WORDS, disclosureWords } from '@ypsometer/core/review/disclosure'

/** The unit taken apart: how it came, its age and marks, and the checks before it runs again. */
export function SpecimenRecord() {
  const { dossier } = useDossierContext()
  const specimen = dossier.specimens.at(-1)
  if (!specimen)
    return (
      <section aria-labelledby="unit-title" className="as-needed">
        <h2 id="unit-title">The unit taken apart</h2>
        <p className="muted">Note how you got it, its age and serial number.</p>
        <button
          id="disclosure"
          type="button"
          className="btn btn-sm mt-2"
          onClick={() => createRow('specimens', { modelId: dossier.model.id })}
        >
          Add the unit
        </button>
      </section>
    )
  const common = { collection: 'specimens', row: specimen } as const
  return (
    <>
      <section aria-labelledby="unit-title" className="as-needed">
        <h2 id="unit-title">The unit taken apart</h2>
        <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-2">
          <SelectField
            {...common}
            field="obtained"
            label="How you got it"
            none="not said yet"
            options={[
              ['bought', 'Bought'],
              ['loaned', 'Loaned'],
              ['given', 'Given'],
              ['second-hand', 'Second-hand'],
            ]}
          />
          <DateField {...common} field="obtainedOn" label="On" />
          <SelectField
            {...common}
            field="state"
            label="Age"
            options={[
              ['new', 'New'],
              ['used', 'Used'],
            ]}
          />
          {specimen.state === 'used' && (
            <QuantityField {...common} field="monthsInUse" label="Months in use" />
          )}
          <TextField {...common} field="serial" label="Serial number" />
          <TextField {...common} field="condition" label="Condition on arrival" />
        </div>
        <Disclosed specimen={specimen} />
        <p className="muted mt-2">A review will say: “{disclosureWords(specimen)}”</p>
      </section>
      <section aria-labelledby="check-title" className="as-needed">
        <h2 id="check-title">Before it runs again</h2>
        <ul className="mt-1">
          {REASSEMBLY.map(([id, label]) => (
            <li key={id}>
              <label className="flex items-center gap-3 py-1.5">
                <input
                  type="checkbox"
                  className="checkbox"
                  checked={specimen.checks[id] === true}
                  onChange={(e) =>
                    changeRow('specimens', specimen, {
                      checks: { ...specimen.checks, [id]: e.target.checked },
                    })
                  }
                />
                {label}
              </label>
            </li>
          ))}
        </ul>
      </section>
    </>
  )
}

const ANSWERS = [
  ['yes', true],
  ['no', false],
] as const

/** Disclosures of whoever reviews the unit. */
function Disclosed({ specimen }: { readonly specimen: RowOf<'specimens'> }) {
  const { disclosure } = specimen
  return (
    <fieldset id="disclosure" className="mt-3">
      <legend className="kicker">Disclosure</legend>
      <ul>
        {DISCLOSED.map((d) => (
          <li key={d} className="rule-b flex flex-wrap items-center justify-between gap-x-4 gap-y-1 py-1">
            <span id={`disclosed-${d}`}>{DISCLOSURE_WORDS[d].asks}</span>
            <span role="group" aria-labelledby={`disclosed-${d}`} className="flex gap-1">
              {ANSWERS.map(([words, value]) => (
                <button
                  key={words}
                  type="button"
                  aria-pressed={disclosure[d] === value}
                  className={`btn btn-sm ${disclosure[d] === value ? 'btn-neutral' : ''}`}
                  onClick={() =>
                    changeRow('specimens', specimen, {
                      disclosure: { ...disclosure, [d]: disclosure[d] === value ? null : value },
                    })
                  }
                >
                  {words}
                </button>
              ))}
            </span>
          </li>
        ))}
      </ul>
    </fieldset>
  )
}
