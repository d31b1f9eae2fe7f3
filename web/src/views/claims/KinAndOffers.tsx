import type { RowOf } from '@ypsometer/contract'
import { KINSHIPS, OFFER_KINDS } from '@ypsometer/contract/lists'
import { Plus, Trash2 } from 'lucide-react'
import { useCandidates } from '../../api/shelf'
import { changeRow } from '../../api/rows'
import { MoneyInput } from '../../fields/MoneyInput'
import { Parked } from '../../fields/Parked'
import { useDossierContext } from '../../frame/dossier'
import { IconButton } from '../../frame/IconButton'

type Offer = RowOf<'models'>['offers'][number]
const OFFER_WORDS: Readonly<Record<Offer['kind'], string>> = { sale: 'on sale', 'second-hand': 'second-hand' }
const KIN_WORDS = {
  sibling: 'a sibling: same body, other motor or trays',
  generation: 'a later generation of it',
} as const

/** Offers besides its list price, and the model it comes from. */
export function KinAndOffers() {
  const { dossier } = useDossierContext()
  const { model } = dossier
  const { data } = useCandidates()
  const others = (data ?? []).flatMap((d) => d.candidate ?? []).filter((c) => c.id !== model.id)
  const write = (offers: readonly Offer[]): void => changeRow('models', model, { offers: [...offers] })
  const set = (i: number, more: Partial<Offer>): void =>
    write(model.offers.map((o, j) => (j === i ? { ...o, ...more } : o)))
  const currency = dossier.claims.find((c) => c.quantity === 'price')?.currency ?? 'EUR'
  return (
    <section aria-labelledby="offers-title" className="as-needed">
      <h2 id="offers-title">Street prices and related models</h2>
      <p className="muted">A price on sale or second-hand stands beside the list price in comparisons.</p>
      <Parked row={model} field="offers" what="The other prices of this model" />
      <ul className="mt-1">
        {model.offers.map((o, i) => (
          <li key={i} className="rule-b flex flex-wrap items-center gap-3 py-1.5">
            <select
              className="field w-36"
              aria-label="Kind of offer"
              value={o.kind}
              onChange={(e) => set(i, { kind: e.target.value as Offer['kind'] })}
            >
              {OFFER_KINDS.map((k) => (
                <option key={k} value={k}>
                  {OFFER_WORDS[k]}
                </option>
              ))}
            </select>
            <MoneyInput
              label={`Price ${OFFER_WORDS[o.kind]}`}
              value={o}
              usual={currency}
              onCommit={(price) => price && set(i, price)}
            />
            <input
              type="date"
              className="field w-40"
              aria-label={`Seen ${OFFER_WORDS[o.kind]} on`}
              defaultValue={o.on ?? ''}
              onBlur={(e) => (e.target.value || null) !== o.on && set(i, { on: e.target.value || null })}
            />
            <IconButton
              label={`Delete the price ${OFFER_WORDS[o.kind]}`}
              icon={Trash2}
              onClick={() => write(model.offers.filter((_, j) => j !== i))}
            />
          </li>
        ))}
      </ul>
      <button
        type="button"
        className="btn btn-sm mt-2"
        disabled={model.offers.length >= 10}
        onClick={() => write([...model.offers, { kind: 'sale', minor: 0, currency, on: null }])}
      >
        <Plus size={16} aria-hidden="true" /> Another price
      </button>
      <div className="mt-4 flex flex-wrap items-end gap-x-6 gap-y-2">
        <label>
          <span className="kicker block">Same body as</span>
          <select
            className="field w-56"
            value={model.kinId ?? ''}
            onChange={(e) => changeRow('models', model, { kinId: e.target.value || null })}
          >
            <option value="">none</option>
            {others.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}, {c.maker}
              </option>
            ))}
          </select>
        </label>
        {model.kinId && (
          <label>
            <span className="kicker block">It is</span>
            <select
              className="field w-72"
              value={model.kinship}
              onChange={(e) =>
                changeRow('models', model, { kinship: e.target.value as typeof model.kinship })
              }
            >
              {KINSHIPS.map((k) => (
                <option key={k} value={k}>
                  {KIN_WORDS[k]}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {model.kinId && (
        <p className="muted mt-1 text-[0.9rem]">
          Findings on the body carry over, marked “inherited”. Flow, power and noise do not.
        </p>
      )}
    </section>
  )
}
