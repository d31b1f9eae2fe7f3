import type { Chamber } from '@ypsometer/contract'
import {
  CHAMBER_ROLES,
  LITRE_NAMES,
  WAYS,
  type Way,
  type ChamberRole,
  type InteriorProblem,
} from '@ypsometer/core/volumes/interior'
import { SOLID_FIELDS, SOLID_SHAPES, type SolidShape } from '@ypsometer/core/volumes/solids'
import { useId } from 'react'
import { changeRow } from '../../api/rows'
import { LITRE_WORDS } from '../../cutaway/patterns'
import { QuantityField, SelectField, TextField } from '../../fields/fields'

const ROLE_WORDS: Readonly<Record<ChamberRole, string>> = {
  'pre-filter': 'Pre-filter',
  tray: 'Tray',
  'cartridge-slot': 'Cartridge slot',
  compartment: 'Compartment',
  'pump-well': 'Pump well',
  'centre-pipe': 'Centre pipe',
  'side-channel': 'Side channel',
  'settling-void': 'Settling space',
  'head-space': 'Head space',
  lip: 'Lip',
}
const WAY_WORDS: Readonly<Record<Way, string>> = {
  up: 'upwards',
  down: 'downwards',
  across: 'across, left to right',
  inward: 'inwards from all sides',
}
const SHAPE_WORDS: Readonly<Record<SolidShape, string>> = {
  box: 'Box',
  cylinder: 'Cylinder',
  annulus: 'Ring (hollow cylinder)',
  cone: 'Tapered round',
  pyramid: 'Tapered box',
  wedge: 'Wedge',
  'water-fill': 'By water volume',
}
const FIELD_WORDS: Readonly<Record<string, string>> = {
  width: 'Width, inside',
  depth: 'Depth, inside',
  height: 'Height, inside',
  diameter: 'Diameter',
  innerDiameter: 'Inner diameter',
  topWidth: 'Width at the top',
  topDepth: 'Depth at the top',
  topDiameter: 'Diameter at the top',
  lowHeight: 'Height on the low side',
  volume: 'Water it holds',
}

/** One chamber: what it is, its shape and sizes, how high it may be filled, and what its litres are called. */
export function ChamberSheet({
  chamber,
  problems,
}: {
  readonly chamber: Chamber
  readonly problems: readonly InteriorProblem[]
}) {
  const beside = useId()
  const common = { collection: 'chambers', row: chamber } as const
  const size = {
    ...common,
    unit: 'mm',
    also: { measured: true },
  } as const
  const said = (field: string): string | undefined => problems.find((p) => p.field === field)?.message
  const problem = (field: string) => said(field) && <span className="text-error">{said(field)}</span>
  return (
    <section aria-label={chamber.name} className="border-base-content border-l-2 pl-4">
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <TextField {...common} field="name" label="Name" />
        <SelectField
          {...common}
          field="role"
          label="Type"
          options={CHAMBER_ROLES.map((r) => [r, ROLE_WORDS[r]] as const)}
        />
        <SelectField
          {...common}
          field="use"
          label="Counts as"
          options={LITRE_NAMES.map((n) => [n, LITRE_WORDS[n]] as const)}
        />
        <SelectField
          {...common}
          field="shape"
          label="Shape"
          options={SOLID_SHAPES.map((s) => [s, SHAPE_WORDS[s]] as const)}
        />
        {SOLID_FIELDS[chamber.shape].map((f) =>
          f === 'volume' ? (
            <QuantityField
              key={f}
              {...common}
              field={f}
              label={FIELD_WORDS[f] ?? f}
              also={{ measured: true }}
              hint="By weight (1 kg is 1 L) or a vessel"
            />
          ) : (
            <QuantityField key={f} {...size} field={f} label={FIELD_WORDS[f] ?? f} hint={problem(f)} />
          ),
        )}
        <QuantityField
          {...size}
          field="usableHeight"
          label="Fill height"
          hint={problem('usableHeight') || 'From its floor; blank = to the top'}
        />
        <QuantityField
          {...size}
          field="rim"
          label="Rim, above its floor"
          hint={problem('rim') || 'From its floor; blank = walls reach the top'}
        />
        <QuantityField {...common} field="perforated" label="Open area of its floor" unit="%" />
        <SelectField
          {...common}
          field="way"
          label="Flow direction"
          none="as is usual for its kind"
          options={WAYS.map((w) => [w, WAY_WORDS[w]] as const)}
        />
        <div>
          <label className="kicker block" htmlFor={beside}>
            Position
          </label>
          <select
            id={beside}
            className="field"
            value={String(chamber.beside ?? '')}
            onChange={(e) =>
              changeRow('chambers', chamber, {
                beside: e.target.value === '' ? null : e.target.value === 'true',
              })
            }
          >
            <option value="">as is usual for its kind</option>
            <option value="false">after the chamber before it</option>
            <option value="true">beside it: the water parts</option>
          </select>
        </div>
        <QuantityField
          {...common}
          unit="mm"
          field="wallGap"
          label="Side gap to the wall"
          hint="On each of two sides"
        />
        <QuantityField
          {...common}
          unit="mm"
          field="overflowSill"
          label="Spills over at"
          hint="Head at which its weir or flap opens"
        />
        <QuantityField {...size} also={{}} field="x" label="Distance from the left" hint={problem('x')} />
        <QuantityField {...size} also={{}} field="y" label="Height above the foot" hint={problem('y')} />
      </div>
      <label className="mt-3 flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={chamber.measured}
          onChange={(e) => changeRow('chambers', chamber, { measured: e.target.checked })}
        />
        Measured on this unit
      </label>
    </section>
  )
}
