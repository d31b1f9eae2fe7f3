import type { Fitted, Hookup } from '@ypsometer/contract'
import type { OutletAim, OutletKind } from '@ypsometer/core/hydraulics/jets'
import { outletOf } from '@ypsometer/core/path/outlet'
import { Plus, Trash2 } from 'lucide-react'
import { FILTERS } from '@ypsometer/core/kinds/filters'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { IconButton } from '../../frame/IconButton'
import { useDossierContext } from '../../frame/dossier'
import { newId } from './newId'
import { Sheet } from '../../figures/Sheet'

type Outlet = NonNullable<Fitted['outlets']>[number]

const KIND_WORDS: Readonly<Record<OutletKind, string>> = {
  nozzle: 'nozzle or open end',
  'spray-bar': 'spray bar',
  lip: 'lip',
  airlift: 'riser',
}
const AIM_WORDS: Readonly<Record<OutletAim, string>> = {
  along: 'along the tank',
  glass: 'at the glass',
  surface: 'up at the surface',
}

/** The ways for the water to come back that come in the box, and the inlet: what strength is worked out from. */
export function Outlets({ hookup }: { readonly hookup: Hookup }) {
  const { dossier } = useDossierContext()
  const { fitted } = hookup
  const outlets = fitted.outlets ?? []
  const write = (next: readonly Outlet[]): void => {
    const { outlets: _old, ...rest } = fitted
    changeRow('hookups', hookup, { fitted: next.length ? { ...rest, outlets: [...next] } : rest })
  }
  const set = (o: Outlet, more: Partial<Outlet>): void =>
    write(outlets.map((x) => (x.id === o.id ? { ...x, ...more } : x)))
  const add = (): void => {
    const usual = outletOf(dossier.model.kind, hookup)
    write([...outlets, { ...usual, id: newId('outlet'), name: `Outlet ${outlets.length + 1}` }])
  }
  const inlet = (value: NonNullable<Fitted['inlet']> | null): void => {
    const { inlet: _old, ...rest } = fitted
    changeRow('hookups', hookup, { fitted: value ? { ...rest, inlet: value } : rest })
  }
  return (
    <div className="min-w-0 lg:col-span-2">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <h3>Outlets</h3>
        <button type="button" className="btn btn-xs" onClick={add}>
          <Plus size={14} aria-hidden="true" /> Add an outlet
        </button>
      </div>
      <Parked row={hookup} field="fitted" what="Outlets of this plumbing" />
      {outlets.length === 0 ? (
        <p className="muted text-[0.92rem]">
          No outlet added. The end of the plumbing is used:{' '}
          {KIND_WORDS[outletOf(dossier.model.kind, hookup).kind].toLowerCase()}. Add every outlet in the box;
          the first one is the one in use.
        </p>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Outlets, table">
          <Sheet
            className="min-w-[52rem]"
            columns={['Name', 'Kind', 'Aimed', 'Below the surface', 'Bore', 'Holes, apart', 'Width', '']}
          >
            {outlets.map((o) => (
              <OutletRow key={o.id} o={o} set={set} write={write} outlets={outlets} />
            ))}
          </Sheet>
        </div>
      )}
      {FILTERS[dossier.model.kind].intake && <InletRow fitted={fitted} inlet={inlet} />}
    </div>
  )
}

/** The inlet: its open area, and whether a sponge guards it. */
function InletRow({
  fitted,
  inlet,
}: {
  readonly fitted: Fitted
  readonly inlet: (value: NonNullable<Fitted['inlet']> | null) => void
}) {
  return (
    <div className="mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-2 text-[0.92rem]">
      <span className="flex items-baseline gap-2">
        Open area of the inlet
        <span className="w-28">
          <QuantityInput
            label="Open area of the inlet"
            si={fitted.inlet?.openArea ?? 0.002}
            dimension="area"
            min={1e-6}
            max={1}
            onCommit={(openArea) => inlet({ sponge: fitted.inlet?.sponge ?? false, openArea })}
          />
        </span>
      </span>
      <label className="flex items-center gap-2">
        <input
          type="checkbox"
          className="checkbox"
          checked={fitted.inlet?.sponge ?? false}
          onChange={(e) => inlet({ openArea: fitted.inlet?.openArea ?? 0.002, sponge: e.target.checked })}
        />
        a sponge over it
      </label>
      {!fitted.inlet && <span className="muted">not noted yet</span>}
    </div>
  )
}

/** One way for the water to come back. */
function OutletRow({
  o,
  set,
  write,
  outlets,
}: {
  readonly o: Outlet
  readonly set: (o: Outlet, more: Partial<Outlet>) => void
  readonly write: (next: readonly Outlet[]) => void
  readonly outlets: readonly Outlet[]
}) {
  return (
    <tr>
      <td>
        <input
          className="field"
          aria-label="Name of the outlet"
          maxLength={80}
          defaultValue={o.name}
          onBlur={(e) => {
            const name = e.target.value.trim()
            if (name && name !== o.name) set(o, { name })
            else e.target.value = o.name
          }}
        />
      </td>
      <WordCell
        label={`${o.name}: kind`}
        value={o.kind}
        words={KIND_WORDS}
        onChoose={(kind) => set(o, { kind })}
      />
      <WordCell
        label={`${o.name}: aimed`}
        value={o.aim}
        words={AIM_WORDS}
        onChoose={(aim) => set(o, { aim })}
      />
      <td className="w-24">
        <QuantityInput
          label={`${o.name}: below the surface`}
          si={o.depth}
          dimension="length"
          unit="cm"
          min={0}
          max={3}
          onCommit={(depth) => set(o, { depth })}
        />
      </td>
      <td className="w-24">
        {o.kind !== 'lip' && (
          <QuantityInput
            label={`${o.name}: bore`}
            si={o.diameter}
            dimension="length"
            unit="mm"
            min={0.0005}
            max={0.3}
            onCommit={(diameter) => set(o, { diameter })}
          />
        )}
      </td>
      <HoleCells o={o} set={set} />
      <td className="w-24">
        {o.kind === 'lip' && (
          <QuantityInput
            label={`${o.name}: width`}
            si={o.width}
            dimension="length"
            unit="cm"
            min={0.005}
            max={3}
            onCommit={(width) => set(o, { width })}
          />
        )}
      </td>
      <td>
        <IconButton
          label={`Delete ${o.name}`}
          icon={Trash2}
          onClick={() => write(outlets.filter((x) => x.id !== o.id))}
        />
      </td>
    </tr>
  )
}

/** A cell to choose one of a few words in. */
function WordCell<W extends string>({
  label,
  value,
  words,
  onChoose,
}: {
  readonly label: string
  readonly value: W
  readonly words: Readonly<Record<W, string>>
  readonly onChoose: (value: W) => void
}) {
  return (
    <td>
      <select
        className="field"
        aria-label={label}
        value={value}
        onChange={(e) => onChoose(e.target.value as W)}
      >
        {Object.entries<string>(words).map(([k, word]) => (
          <option key={k} value={k}>
            {word}
          </option>
        ))}
      </select>
    </td>
  )
}

/** Holes of a spray bar, and how far apart they are. */
function HoleCells({
  o,
  set,
}: {
  readonly o: Outlet
  readonly set: (o: Outlet, more: Partial<Outlet>) => void
}) {
  return (
    <td className="w-44">
      {o.kind === 'spray-bar' && (
        <span className="flex gap-2">
          <QuantityInput
            label={`${o.name}: holes`}
            si={o.holes}
            dimension="ratio"
            min={1}
            max={500}
            whole
            onCommit={(holes) => set(o, { holes })}
          />
          <QuantityInput
            label={`${o.name}: holes apart`}
            si={o.spacing}
            dimension="length"
            unit="mm"
            min={0.001}
            max={1}
            onCommit={(spacing) => set(o, { spacing })}
          />
        </span>
      )}
    </td>
  )
}
