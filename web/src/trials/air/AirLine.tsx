import { headOfPressure, pressureOfHead } from '@ypsometer/core/water/properties'
import type { Trial, TrialSetup } from '@ypsometer/contract'
import { airNetwork } from '@ypsometer/core/hydraulics/airNetwork'
import { CoreError } from '@ypsometer/core/errors/errors'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import { Plus, X } from 'lucide-react'
import { changeRow } from '../../api/rows'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { IconButton } from '../../frame/IconButton'
import { right, Sheet, unnamed } from '../../figures/Sheet'

type Line = NonNullable<TrialSetup['airLine']>
type Outlet = Line['outlets'][number]

const USUAL: Line = {
  shutOffHead: 1.6,
  maxFlow: 3 / 60000,
  outlets: [
    { label: 'This filter', depth: 0.3, stoneHead: 0.05, open: 1 },
    { label: 'A second one', depth: 0.3, stoneHead: 0.05, open: 1 },
  ],
}

/** Settings of each outlet, and how they are read. */
const OUTLET_FIELDS = [
  ['depth', 'Depth', { dimension: 'length', max: 5 }],
  ['stoneHead', 'Stone', { dimension: 'length', max: 5 }],
  ['open', 'Valve', { dimension: 'ratio', unit: '%', max: 1 }],
] as const

/** Resistance (Pa per m³/s) of what takes `head` (m of water) at one litre a minute. */
const resistance = (head: number): number => pressureOfHead(Math.max(1e-4, head)) / (1 / 60000)

/** One air pump over many outlets: what each gets, a leak among them. Computed, no trial needed. */
export function AirLine({ trial }: { readonly trial: Trial }) {
  const line = trial.setup.airLine
  const set = (next: Line): void => changeRow('trials', trial, { setup: { ...trial.setup, airLine: next } })
  if (!line)
    return (
      <button type="button" className="btn btn-sm" onClick={() => set(USUAL)}>
        <Plus size={16} aria-hidden="true" /> One pump over many outlets
      </button>
    )
  const change = (i: number, part: Partial<Outlet>): void =>
    set({ ...line, outlets: line.outlets.map((o, k) => (k === i ? { ...o, ...part } : o)) })
  const shares = solve(line)
  return (
    <section aria-labelledby="air-line">
      <h3 id="air-line">One pump over many outlets</h3>
      <div className="mt-1 flex flex-wrap gap-6">
        <label className="w-40">
          <span className="kicker block">Pump maximum head</span>
          <QuantityInput
            label="Depth at which the pump gives nothing"
            si={line.shutOffHead}
            dimension="head"
            min={0.05}
            max={20}
            onCommit={(shutOffHead) => set({ ...line, shutOffHead })}
          />
        </label>
        <label className="w-40">
          <span className="kicker block">Air against nothing</span>
          <QuantityInput
            label="Air the pump gives against nothing"
            si={line.maxFlow}
            dimension="flow"
            unit="L/min"
            min={1e-7}
            max={0.01}
            onCommit={(maxFlow) => set({ ...line, maxFlow })}
          />
        </label>
      </div>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Outlets, table">
        <Sheet
          className="mt-2 min-w-[38rem]"
          columns={[
            'Outlet',
            'Depth',
            'Stone takes, at 1 L/min',
            'Valve open',
            right('Air it gets'),
            unnamed('Actions'),
          ]}
        >
          {line.outlets.map((o, i) => (
            <OutletRow key={i} i={i} o={o} change={change} shares={shares} set={set} line={line} />
          ))}
        </Sheet>
      </div>
      {shares.problem && <p className="text-warning">{shares.problem}</p>}
      <div className="mt-2 flex gap-2">
        <button
          type="button"
          className="btn btn-sm"
          disabled={line.outlets.length >= 24}
          onClick={() =>
            set({
              ...line,
              outlets: [
                ...line.outlets,
                { label: `Outlet ${line.outlets.length + 1}`, depth: 0.3, stoneHead: 0.05, open: 1 },
              ],
            })
          }
        >
          <Plus size={16} aria-hidden="true" /> Outlet
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={line.outlets.length >= 24}
          onClick={() =>
            set({
              ...line,
              outlets: [...line.outlets, { label: 'Leak at the fitting', depth: 0, stoneHead: 1, open: 1 }],
            })
          }
        >
          <Plus size={16} aria-hidden="true" /> Leak
        </button>
      </div>
    </section>
  )
}

/** One outlet of the line: depth, air, and how it is throttled. */
function OutletRow({
  i,
  o,
  change,
  shares,
  set,
  line,
}: {
  readonly i: number
  readonly o: Outlet
  readonly change: (i: number, part: Partial<Outlet>) => void
  readonly shares: { readonly figures: readonly Figure[]; readonly problem: string }
  readonly set: (next: Line) => void
  readonly line: Line
}) {
  return (
    <tr>
      <td>
        <input
          className="field"
          aria-label={`Name of outlet ${i + 1}`}
          maxLength={40}
          defaultValue={o.label}
          onBlur={(e) =>
            e.target.value.trim() && e.target.value !== o.label && change(i, { label: e.target.value.trim() })
          }
        />
      </td>
      {OUTLET_FIELDS.map(([field, label, more]) => (
        <td key={field} className="w-32">
          <QuantityInput
            label={`${label} of outlet ${i + 1}`}
            si={o[field]}
            min={0}
            {...more}
            onCommit={(v) => change(i, { [field]: v })}
          />
        </td>
      ))}
      <td className="r">{shares.figures[i] && <FigureView figure={shares.figures[i]} inline />}</td>
      <td className="w-10">
        <IconButton
          label={`Remove ${o.label}`}
          icon={X}
          onClick={() => set({ ...line, outlets: line.outlets.filter((_, k) => k !== i) })}
        />
      </td>
    </tr>
  )
}

function solve(line: Line): { readonly figures: readonly Figure[]; readonly problem: string } {
  try {
    const pump = { shutOffPressure: pressureOfHead(line.shutOffHead), maxFlow: line.maxFlow }
    const r = airNetwork(
      pump,
      line.outlets.map((o, i) => ({
        id: String(i),
        label: o.label,
        depth: o.depth,
        linear: resistance(o.stoneHead),
        quadratic: 0,
        open: o.open,
      })),
    )
    return {
      problem: '',
      figures: r.outlets.map((o, i) => ({
        id: `air-share-${i}`,
        label: `Air at ${o.label.toLowerCase()}`,
        value: o.flow,
        dimension: 'flow',
        unit: 'L/min',
        provenance: 'computed',
        formula: 'p = p0 (1 − Σq/q0);  q = (p − ρ g depth) ÷ R',
        working: [
          put('p', 'line pressure, as water', headOfPressure(r.pressure), 'head', 'computed'),
          put('depth', 'water above the outlet', line.outlets[i]?.depth ?? 0, 'length', 'measured'),
          { ...put('Σq', 'all the pump gives', r.flow, 'flow', 'computed'), unit: 'L/min' },
          { ...put('share', 'of it', o.share, 'ratio', 'computed'), unit: '%' },
        ],
        source: 'network of resistances, linear pump curve assumed',
      })),
    }
  } catch (error) {
    if (!(error instanceof CoreError)) throw error
    return { figures: [], problem: error.message }
  }
}
