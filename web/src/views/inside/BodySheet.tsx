import type { Body } from '@ypsometer/contract'
import { chamberColumns } from '@ypsometer/contract/records'
import { FILTERS } from '@ypsometer/core/kinds/filters'
import { templateChambers, usualBody } from '@ypsometer/core/kinds/templates'
import { createRow } from '../../api/rows'
import { QuantityField } from '../../fields/fields'
import { useDossierContext } from '../../frame/dossier'
import { KIND_WORDS } from '../../words'

/** Before anything is measured: the usual interior of this kind, to start from and correct. */
export function StartBody() {
  const { dossier } = useDossierContext()
  const { model } = dossier
  const start = (): void => {
    const [width, depth, height] = usualBody(model.kind)
    createRow('bodies', {
      modelId: model.id,
      outerWidth: width,
      outerDepth: depth,
      outerHeight: height,
    })
    templateChambers(model.kind, { width, depth, height }, () => '').forEach((c, i) =>
      createRow('chambers', {
        modelId: model.id,
        position: i + 1,
        ...chamberColumns(c),
      }),
    )
  }
  return (
    <div className="max-w-xl">
      <h2>Inside not measured yet</h2>
      <p className="mt-1">
        Start from a typical layout of a {KIND_WORDS[model.kind].toLowerCase()}. Its chambers start with
        typical sizes, drawn dashed. Then measure each with a tape, or fill it with water and weigh it.
      </p>
      <button type="button" className="btn btn-primary mt-3" onClick={start}>
        Start from a typical layout
      </button>
    </div>
  )
}

/** The body from outside: sizes, what it holds, what it weighs. */
export function BodySheet({ body }: { readonly body: Body }) {
  const { dossier } = useDossierContext()
  const common = { collection: 'bodies', row: body } as const
  return (
    <section aria-labelledby="body-title">
      <h2 id="body-title">The body from outside</h2>
      <div className="mt-2 grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <QuantityField {...common} field="outerWidth" label="Width" />
        <QuantityField {...common} field="outerDepth" label="Depth" />
        <QuantityField {...common} field="outerHeight" label="Height" />
        <QuantityField
          {...common}
          field="heightWithHoses"
          label="Height with hoses"
          check={(v) => (v < body.outerHeight ? 'Less than the body itself.' : null)}
        />
        {FILTERS[dossier.model.kind].stands === 'rim' && (
          <QuantityField {...common} field="overhang" label="Stands out behind the tank" />
        )}
        {FILTERS[dossier.model.kind].stands === 'rim' && (
          <QuantityField {...common} field="hookOpening" label="Opening over the rim" />
        )}
        {FILTERS[dossier.model.kind].intake && (
          <QuantityField {...common} field="intakeReach" label="Intake reaches down from the rim" />
        )}
        <QuantityField
          {...common}
          field="waterFill"
          label="Water it holds, by weight"
          hint="1 kg of water is 1 L"
        />
        <QuantityField
          {...common}
          field="emptyMass"
          label="Weight empty"
          check={(v) => (body.fullMass !== null && v > body.fullMass ? 'More than its full weight.' : null)}
        />
        <QuantityField
          {...common}
          field="fullMass"
          label="Weight full"
          check={(v) =>
            body.emptyMass !== null && v < body.emptyMass ? 'Less than its empty weight.' : null
          }
        />
      </div>
    </section>
  )
}
