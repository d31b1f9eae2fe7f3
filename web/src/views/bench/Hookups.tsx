import type { Hookup } from '@ypsometer/contract'
import { Plus, Trash2 } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { QuantityField, TextField } from '../../fields/fields'
import { hasPump } from '@ypsometer/core/kinds/filters'
import { useDossierContext } from '../../frame/dossier'
import { starterHookup } from '@ypsometer/core/kinds/starters'
import { newId } from './newId'
import { Outlets } from './Outlets'
import { SegmentTable } from './SegmentTable'
import { Explained } from '../../figures/Explained'

/** How the filter is connected: heights that decide whether lift counts, and every piece the water passes. */
export function Hookups() {
  const { dossier } = useDossierContext()
  const { model, hookups } = dossier
  const add = (): void => {
    const { name, ...run } = starterHookup(model.kind, newId)
    createRow('hookups', {
      modelId: model.id,
      name: hookups.length ? `${name} ${hookups.length + 1}` : name,
      ...run,
    })
  }
  return (
    <section aria-labelledby="hookups-title" className="as-needed">
      <div className="flex flex-wrap items-end justify-between gap-3">
        <h2 id="hookups-title">
          <Explained>Plumbing</Explained>
        </h2>
        <button id="plumbing" type="button" className="btn btn-sm" onClick={add}>
          <Plus size={16} aria-hidden="true" /> Add plumbing
        </button>
      </div>
      {hookups.length === 0 && (
        <p className="mt-2 max-w-2xl">
          {hasPump(model.kind)
            ? 'No plumbing entered. Enter hoses, taps and fittings once: the app then predicts the installed flow.'
            : 'No plumbing yet. Enter where the riser stands, so the flow belongs to a depth.'}
        </p>
      )}
      <div className="mt-3 space-y-8">
        {hookups.map((h) => (
          <HookupSheet key={h.id} hookup={h} />
        ))}
      </div>
    </section>
  )
}

function HookupSheet({ hookup }: { readonly hookup: Hookup }) {
  return (
    <article className="grid gap-x-10 gap-y-4 lg:grid-cols-[19rem_minmax(0,1fr)]" aria-label={hookup.name}>
      <div className="space-y-3">
        <div className="flex items-end gap-2">
          <div className="flex-1">
            <TextField collection="hookups" row={hookup} field="name" label="Name" />
          </div>
          <IconButton
            label={`Delete ${hookup.name}`}
            icon={Trash2}
            onClick={() => removeRow('hookups', hookup, hookup.name)}
          />
        </div>
        <QuantityField
          collection="hookups"
          row={hookup}
          field="outletAboveWater"
          label="Outlet above the water surface"
          hint="Negative when it ends under water."
        />
        <QuantityField
          collection="hookups"
          row={hookup}
          field="sourceBelowWater"
          label="Water is taken this far below the tank’s surface"
          hint="0 for a tank intake; enter the drop to a sump."
        />
        <QuantityField
          collection="hookups"
          row={hookup}
          field="bodyBelowWater"
          label="Filter body below the surface"
          hint="Information only: costs no flow in a closed loop."
        />
      </div>
      <SegmentTable hookup={hookup} />
      <Outlets hookup={hookup} />
    </article>
  )
}
