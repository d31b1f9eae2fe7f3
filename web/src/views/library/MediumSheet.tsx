import type { Medium } from '@ypsometer/contract'
import { MoneyField } from '../../fields/MoneyField'
import { DateField, QuantityField, SelectField, TextField } from '../../fields/fields'
import { FigureView } from '../../figures/FigureView'
import { FORM_OPTIONS, JOB_OPTIONS } from '../../fillPath/words'
import { permeabilityFigure, surfaceFigure, usualBypass } from '@ypsometer/core/path/mediumFigures'
import { Sheet } from '../../figures/Sheet'
import type { Figure } from '@ypsometer/core/figures/figure'

const GAPS = [0.001, 0.002, 0.003] as const

/** One medium: what it is, how it resists, what surface it offers, how it is sold. */
export function MediumSheet({ medium: m }: { readonly medium: Medium }) {
  const common = { collection: 'media', row: m } as const
  const k = permeabilityFigure(m)
  const surface = surfaceFigure(m)
  const fibrous = ['pad', 'floss', 'cartridge'].includes(m.form)
  const grainy = !fibrous && m.form !== 'foam' && m.form !== 'contactor'
  return (
    <article aria-label={m.name} className="space-y-5">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <TextField {...common} field="name" label="Name" />
        <SelectField {...common} field="form" label="Form" options={FORM_OPTIONS} />
        <SelectField {...common} field="job" label="What it is for" options={JOB_OPTIONS} />
      </div>
      <Follows k={k} fibrous={fibrous} m={m} surface={surface} />
      <h3>Physical data</h3>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        {m.form === 'foam' && <QuantityField {...common} field="poresPerInch" label="Pores per inch" />}
        {fibrous && (
          <>
            <QuantityField {...common} field="fibre" label="Fibre" unit="mm" />
            <QuantityField {...common} field="solidity" label="Share that is fibre" unit="%" />
          </>
        )}
        {grainy && (
          <>
            <QuantityField
              {...common}
              field="grain"
              label="Grain"
              unit="mm"
              hint="Of a sphere of equal volume to surface"
            />
            <QuantityField
              {...common}
              field="voidage"
              label="Voidage"
              unit="%"
              hint="Water between the grains"
            />
          </>
        )}
        <QuantityField
          {...common}
          field="bulkDensity"
          label="Bulk density, dry (g per litre)"
          dimension="ratio"
        />
        <QuantityField {...common} field="wetDensity" dimension="ratio" label="Drained (g per litre)" />
        <QuantityField {...common} field="sheetThickness" label="A sheet is this thick" unit="mm" />
      </div>
      <h3>Surface</h3>
      <Resistance common={common} />
      <h3>As it is sold</h3>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <QuantityField {...common} field="packVolume" label="A pack holds" />
        <QuantityField {...common} field="packMass" label="A pack weighs" />
        <MoneyField
          collection="media"
          row={m}
          amount="priceMinor"
          currency="currency"
          label="Price of a pack"
        />
        <DateField {...common} field="pricedOn" label="Price noted on" />
        <QuantityField {...common} field="lifeDays" label="Lasts, days" />
        <TextField {...common} field="source" label="Where the figures come from" />
      </div>
      <h3>Measured resistance, if it was calibrated</h3>
      <p className="muted text-[0.9rem]">
        Best solved on a dossier under Path, from two flows. Empty: from the sizes above.
      </p>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <QuantityField {...common} field="permeability" label="Permeability, m²" />
        <QuantityField {...common} field="permeabilityLow" label="Its lower end, 95 %" />
        <QuantityField {...common} field="permeabilityHigh" label="Its upper end, 95 %" />
      </div>
      <TextField {...common} field="note" label="Note" lines={2} />
    </article>
  )
}

/** How it resists, and how much of it works. */
function Resistance({ common }: { readonly common: { readonly collection: 'media'; readonly row: Medium } }) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
      <QuantityField
        {...common}
        field="geometricSurface"
        label="Geometric, m²/m³"
        hint="Empty: from its size"
      />
      <QuantityField
        {...common}
        field="effectiveSurface"
        label="Effective, m²/m³"
        hint="What water and biofilm can use"
      />
      <QuantityField
        {...common}
        field="surfaceBand"
        label="Effective, ± share"
        hint="Blank = as its form usually is: 0.3 to 0.5"
      />
      <QuantityField
        {...common}
        field="workingShare"
        label="Share that works"
        hint="Between rinses, under its dirt. Blank = as media of its job usually are"
      />
      <QuantityField
        {...common}
        field="workingBand"
        label="Share that works, ± share"
        hint="Blank = typical"
      />
      <QuantityField
        {...common}
        field="claimedSurface"
        label="Claimed, m²/m³"
        hint="Kept apart: never counted"
      />
    </div>
  )
}

/** Surface, resistance and mass that follow from a medium’s sizes. */
function Follows({
  k,
  fibrous,
  m,
  surface,
}: {
  readonly k: Figure | null
  readonly fibrous: boolean
  readonly m: Medium
  readonly surface: Figure | null
}) {
  return (
    <aside className="rule-b grid gap-x-8 gap-y-3 pb-4 sm:grid-cols-3" aria-label="What follows from it">
      <div>
        <p className="kicker">Permeability, 10⁻⁹ m²</p>
        {k ? (
          <FigureView figure={k} digits={2} />
        ) : (
          <p className="text-warning">
            Unknown: enter{' '}
            {fibrous ? 'fibre and solidity' : m.form === 'foam' ? 'pores per inch' : 'grain and voidage'}, or
            calibrate it.
          </p>
        )}
      </div>
      {surface && (
        <div>
          <p className="kicker">Geometric surface, m² per litre</p>
          <FigureView figure={surface} digits={2} />
        </div>
      )}
      {k && (
        <Sheet title="Bypass in a 20 × 20 cm tray at 1 000 L/h">
          {GAPS.map((g) => {
            const f = usualBypass(m, g)
            return (
              f && (
                <tr key={g}>
                  <td>
                    gap of <span className="num">{g * 1000}</span> mm
                  </td>
                  <td className="r">
                    <FigureView figure={f} inline />
                  </td>
                </tr>
              )
            )
          })}
        </Sheet>
      )}
    </aside>
  )
}
