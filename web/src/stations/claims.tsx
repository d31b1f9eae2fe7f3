import { errorMessage } from '../api/errorMessage'
import type { Claim, ClaimQuantityName } from '@ypsometer/contract'
import { sentenceText } from '@ypsometer/core/figures/figure'
import { claimDimension, claimProblem, doubt, mostClaimed } from '@ypsometer/core/judging/plausible'
import type { ClaimQuantity } from '@ypsometer/core/trials/records'
import type { Priming } from '@ypsometer/core/parts/vocabulary'
import { parseQuantity } from '@ypsometer/core/units/parse'
import { Plus, X } from 'lucide-react'
import { IconButton } from '../frame/IconButton'
import { useState, type ReactNode } from 'react'
import { createRow } from '../api/rows'
import { removeRow } from '../frame/removed'
import { QuantityField, SelectField, TextField } from '../fields/fields'
import { ProvenanceTag } from '../figures/Provenance'
import { units } from '../settings/settings'
import { useDossierContext } from '../frame/dossier'
import { DossierCutaway } from '../cutaway/DossierCutaway'
import { KIND_OPTIONS } from '../words'
import { MoneyField } from '../fields/MoneyField'
import { PRIMING_WORDS } from '../trials/prime/words'
import { KinAndOffers } from '../views/claims/KinAndOffers'
import { SpecimenSheet } from '../views/claims/SpecimenSheet'
import { Sheet, unnamed } from '../figures/Sheet'
import { Explained } from '../figures/Explained'

const NUMBERS: readonly (readonly [ClaimQuantity, string, string])[] = [
  ['rated-flow', 'Rated flow', 'Usually means: no hoses, no media, zero head.'],
  ['max-head', 'Maximum head', 'Height at which the flow stops.'],
  ['power', 'Power', ''],
  ['tank-min', 'Smallest tank claimed', ''],
  ['tank-max', 'Largest tank claimed', ''],
  ['media-volume', 'Media volume', ''],
  ['noise', 'Noise', ''],
]
const WORDS: readonly (readonly [ClaimQuantityName, string])[] = [
  ['contents', 'Contents of the box'],
  ['guarantee', 'Warranty'],
]

const PRIMING_OPTIONS = Object.entries(PRIMING_WORDS) as [Priming, string][]

/** The claims as printed: one row a figure, with where it stands and at which mains frequency it holds. */
export default function Claims() {
  const { dossier } = useDossierContext()
  const { model, claims } = dossier
  const find = (q: ClaimQuantityName): Claim | undefined => claims.find((c) => c.quantity === q)
  return (
    <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,2.3fr)_minmax(0,1fr)]">
      <section aria-labelledby="claims-title">
        <h2 id="claims-title">What the label says</h2>
        <p className="muted">
          As printed. Not checked yet. <ProvenanceTag of="printed" />
        </p>
        <Sheet
          className="mt-3 max-sm:block"
          headClassName="max-sm:hidden"
          bodies
          columns={[
            'Figure',
            { label: 'As printed', className: 'w-[21%]' },
            { label: 'Qualifier (“up to”, “pump only”)', className: 'w-[17%]' },
            { label: 'Supply', className: 'w-[13%]' },
            { label: 'Printed on', className: 'w-[17%]' },
            unnamed('Remove'),
          ]}
        >
          <tbody className="max-sm:block">
            {NUMBERS.map(([q, label, hint]) => (
              <NumberRows key={q} quantity={q} label={label} hint={hint} />
            ))}
            <tr className={ON_PHONES}>
              <td>
                <Name label="Price" />
              </td>
              <td>
                <MoneyField
                  collection="claims"
                  row={find('price')}
                  amount="amountMinor"
                  currency="currency"
                  day="pricedOn"
                  label="Price"
                  hideLabel
                  onCreate={(body) =>
                    createRow('claims', {
                      modelId: model.id,
                      quantity: 'price',
                      printedOn: 'price tag',
                      ...body,
                    })
                  }
                />
              </td>
              <td className="max-sm:hidden" />
              <td className="max-sm:hidden" />
              <td className="max-sm:col-start-2 max-sm:empty:hidden">
                {find('price') && (
                  <TextField
                    collection="claims"
                    row={find('price') as Claim}
                    field="printedOn"
                    label="Where the price stands"
                    hideLabel
                  />
                )}
              </td>
              <td />
            </tr>
            {WORDS.map(([q, label]) => (
              <WordsRow key={q} quantity={q} label={label} claim={find(q)} modelId={model.id} />
            ))}
          </tbody>
        </Sheet>
        <div className="mt-8">
          <KinAndOffers />
        </div>
      </section>
      <div className="space-y-8">
        <section aria-labelledby="model-title" className="space-y-3">
          <h2 id="model-title">The model</h2>
          <TextField collection="models" row={model} field="maker" label="Maker" />
          <TextField collection="models" row={model} field="name" label="Model" />
          <div className="grid grid-cols-2 gap-4">
            <SelectField collection="models" row={model} field="kind" label="Kind" options={KIND_OPTIONS} />
            <SelectField
              collection="models"
              row={model}
              field="mainsFrequency"
              label="Supply frequency"
              numeric
              options={[
                ['50', '50 Hz'],
                ['60', '60 Hz'],
              ]}
            />
          </div>
          <SelectField
            collection="models"
            row={model}
            field="primedBy"
            label="How it is primed"
            none="not said"
            options={PRIMING_OPTIONS}
          />
          <TextField collection="models" row={model} field="note" label="Note" lines={3} />
        </section>
        <SpecimenSheet />
        <DossierCutaway />
      </div>
    </div>
  )
}

/**
 * On a phone a row is three cells wide: what and its value with the cross, and below them mains and where it stands.
 */
const ON_PHONES =
  'max-sm:grid max-sm:grid-cols-[minmax(0,1fr)_minmax(0,1fr)_2.5rem] [&>td]:max-sm:border-0 max-sm:rule-b max-sm:py-1'

const Name = ({ label, hint }: { readonly label: string; readonly hint?: string }) => (
  <>
    <div className="pt-1">
      <Explained>{label}</Explained>
    </div>
    {hint && <div className="muted text-[0.85rem] leading-snug">{hint}</div>}
  </>
)

/** Words that stand beside a printed figure and change what it claims. */
const QUALIFIERS = ['up to', 'at no head', 'with media', 'pump only'] as const
/** Places a figure is printed at; a further row starts at one that has none yet. */
const PLACES = ['box', 'manual', 'unit', 'shop', 'web page'] as const

/** Every printed row of one figure: box and manual may disagree, and both are kept. */
function NumberRows({
  quantity,
  label,
  hint,
}: {
  readonly quantity: ClaimQuantity
  readonly label: string
  readonly hint: string
}) {
  const { dossier } = useDossierContext()
  const [more, setMore] = useState(false)
  const rows = dossier.claims.filter((c) => c.quantity === quantity)
  const place = PLACES.find((p) => !rows.some((c) => c.printedOn === p)) ?? `place ${rows.length + 1}`
  const another = rows.length > 0 && (
    <IconButton
      label={`Copy another ${label.toLowerCase()}: box and manual may disagree`}
      icon={Plus}
      onClick={() => setMore(true)}
    />
  )
  return (
    <>
      {rows.map((claim, i) => (
        <NumberRow
          key={claim.id}
          {...(!i && { id: `claim-${quantity}` })}
          quantity={quantity}
          label={i ? `${label}, row ${i + 1}` : label}
          name={<Name label={i ? `${label}, also` : label} {...(!i && { hint })} />}
          claim={claim}
          more={i === rows.length - 1 && !more ? another : null}
        />
      ))}
      {(rows.length === 0 || more) && (
        <tr id={rows.length ? undefined : `claim-${quantity}`} className={ON_PHONES}>
          <td>
            <Name label={rows.length ? `${label}, also` : label} {...(!rows.length && { hint })} />
          </td>
          <td>
            <AddNumber quantity={quantity} label={label} place={place} onAdded={() => setMore(false)} />
          </td>
          <td className="max-sm:hidden" />
          <td className="max-sm:hidden" />
          <td className="max-sm:hidden" />
          <td className="max-sm:hidden" />
        </tr>
      )}
    </>
  )
}

function NumberRow({
  id,
  quantity,
  label,
  name,
  claim,
  more,
}: {
  readonly id?: string
  readonly quantity: ClaimQuantity
  readonly label: string
  readonly name: ReactNode
  readonly claim: Claim
  readonly more: ReactNode
}) {
  const { dossier } = useDossierContext()
  const common = { collection: 'claims', row: claim, hideLabel: true } as const
  const low = label.toLowerCase()
  return (
    <tr id={id} className={ON_PHONES}>
      <td>{name}</td>
      <td>
        <QuantityField
          {...common}
          field="value"
          label={label}
          dimension={claimDimension(quantity)}
          within={{ min: 1e-9, max: mostClaimed(quantity) }}
          doubt={(si) => doubt(quantity, si, dossier.model.kind)}
        />
      </td>
      <td className="max-sm:col-start-1">
        <SelectField
          {...common}
          field="qualifier"
          label={`Qualifier of ${low}`}
          options={[
            ['', 'none'],
            ...[...new Set([...QUALIFIERS, claim.qualifier].filter(Boolean))].map((q) => [q, q] as const),
          ]}
        />
      </td>
      <td className="max-sm:empty:hidden">
        {['rated-flow', 'max-head', 'power'].includes(quantity) && (
          <SelectField
            {...common}
            field="mainsFrequency"
            label={`Supply frequency of ${low}`}
            numeric
            none="not said"
            options={[
              ['50', '50 Hz'],
              ['60', '60 Hz'],
            ]}
          />
        )}
      </td>
      <td className="max-sm:col-start-2 max-sm:empty:hidden">
        <TextField {...common} field="printedOn" label={`Where ${low} stands`} />
      </td>
      <td className="w-18 whitespace-nowrap max-sm:col-start-3 max-sm:row-span-2 max-sm:row-start-1 max-sm:w-10 max-sm:whitespace-normal">
        <IconButton label={`Remove ${low}`} icon={X} onClick={() => removeRow('claims', claim, label)} />
        {more}
      </td>
    </tr>
  )
}

/** An empty printed figure: type it, and it becomes a claim. */
function AddNumber({
  quantity,
  label,
  place,
  onAdded,
}: {
  readonly quantity: ClaimQuantity
  readonly label: string
  /** Where it is printed, until it is said. */
  readonly place: string
  readonly onAdded: () => void
}) {
  const { dossier } = useDossierContext()
  const system = units.use()
  const [text, setText] = useState('')
  const [said, setSaid] = useState<{ tone: 'error' | 'ask'; text: string } | null>(null)
  const add = (sure = false): void => {
    if (!text.trim()) {
      setSaid(null)
      return
    }
    try {
      const { si } = parseQuantity(text, { dimension: claimDimension(quantity), system, field: label })
      const wrong = claimProblem(quantity, si)
      if (wrong) {
        setSaid({ tone: 'error', text: sentenceText(wrong, system) })
        return
      }
      const question = doubt(quantity, si, dossier.model.kind)
      if (question && !sure) {
        setSaid({ tone: 'ask', text: sentenceText(question, system) })
        return
      }
      createRow('claims', {
        modelId: dossier.model.id,
        quantity,
        value: si,
        printedOn: place,
        typed: { value: text.trim() },
      })
      onAdded()
    } catch (error) {
      setSaid({ tone: 'error', text: errorMessage(error) })
    }
  }
  const id = `add-${quantity}`
  return (
    <div>
      <label htmlFor={id} className="sr-only">
        {label}
      </label>
      <input
        id={id}
        className="field num"
        placeholder="not on the label / not copied"
        autoComplete="off"
        value={text}
        aria-invalid={said?.tone === 'error' ? true : undefined}
        aria-describedby={`${id}-said`}
        onChange={(e) => {
          setText(e.target.value)
          setSaid(null)
        }}
        onBlur={() => add()}
        onKeyDown={(e) => e.key === 'Enter' && add()}
      />
      <p
        id={`${id}-said`}
        aria-live="polite"
        className={`text-[0.88rem] leading-snug ${said?.tone === 'ask' ? 'text-warning' : 'text-error'}`}
      >
        {said?.text}{' '}
        {said?.tone === 'ask' && (
          <button type="button" className="btn btn-xs btn-warning" onClick={() => add(true)}>
            Yes, the label says so
          </button>
        )}
      </p>
    </div>
  )
}

function WordsRow({
  quantity,
  label,
  claim,
  modelId,
}: {
  readonly quantity: ClaimQuantityName
  readonly label: string
  readonly claim: Claim | undefined
  readonly modelId: string
}) {
  return (
    <tr className={ON_PHONES}>
      <td>
        <Name label={label} />
      </td>
      <td colSpan={4} className="max-sm:col-span-2 max-sm:row-start-2">
        {claim ? (
          <TextField collection="claims" row={claim} field="words" label={label} hideLabel lines={2} />
        ) : (
          <button
            type="button"
            className="btn btn-ghost btn-xs"
            onClick={() => createRow('claims', { modelId, quantity, words: '', printedOn: 'box' })}
          >
            <Plus size={14} aria-hidden="true" /> Copy it
          </button>
        )}
      </td>
      <td className="w-8 max-sm:col-start-3 max-sm:row-start-1">
        {claim && (
          <IconButton
            label={`Remove ${label.toLowerCase()}`}
            icon={X}
            onClick={() => removeRow('claims', claim, label)}
          />
        )}
      </td>
    </tr>
  )
}
