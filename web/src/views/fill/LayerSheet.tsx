import { isFillable, MEASURES, type FillLayer } from '@ypsometer/core/fills/place'
import type { LayerFlow, Outcome } from '@ypsometer/core/path/outcome'
import { headFigure, layerMassFigure, bypassFigure, RESISTANCE_WORDS } from '@ypsometer/core/path/figures'
import { resistanceOf, type Medium } from '@ypsometer/core/media/medium'
import { useId } from 'react'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { measuredAs } from '../../fillPath/layerEdits'
import { MEASURE_WORDS } from '../../fillPath/words'

interface Props {
  /** The layer as it is recorded, which may hold what cannot be. */
  readonly layer: FillLayer
  readonly medium: Medium
  /** Flow in it; null while it cannot be worked out. */
  readonly flow: LayerFlow | null
  readonly outcome: Outcome
  readonly media: readonly Medium[]
  readonly onChange: (layer: FillLayer) => void
}

const RANGE = {
  height: { dimension: 'length', unit: 'mm', min: 0.0005, max: 1 },
  volume: { dimension: 'volume', min: 1e-6, max: 1 },
  mass: { dimension: 'mass', min: 0.001, max: 200 },
  packs: { dimension: 'ratio', min: 0.1, max: 500 },
} as const

/** One layer: what of which medium, where, how much, and how it sits. */
export function LayerSheet({ layer, medium, flow, outcome, media, onChange }: Props) {
  const id = useId()
  const set = (more: Partial<FillLayer>): void => onChange({ ...layer, ...more })
  const chambers = outcome.topology.chambers.filter((c) => isFillable(c.chamber))
  const check = (field: 'bagged' | 'crossed' | 'sealed', words: string) => (
    <label className="flex items-center gap-2">
      <input
        type="checkbox"
        className="checkbox"
        checked={layer[field]}
        onChange={(e) => set({ [field]: e.target.checked })}
      />
      {words}
    </label>
  )
  return (
    <div className="border-base-content mb-2 ml-8 border-l-2 py-2 pl-4">
      <div className="grid gap-x-5 gap-y-2 sm:grid-cols-2">
        <div>
          <label className="kicker" htmlFor={`${id}-m`}>
            Medium
          </label>
          <select
            id={`${id}-m`}
            className="field"
            value={layer.mediumId}
            onChange={(e) => set({ mediumId: e.target.value })}
          >
            {media.map((m) => (
              <option key={m.id} value={m.id}>
                {m.name}
              </option>
            ))}
          </select>
        </div>
        <div>
          <label className="kicker" htmlFor={`${id}-c`}>
            Chamber
          </label>
          <select
            id={`${id}-c`}
            className="field"
            value={layer.chamberId}
            onChange={(e) => set({ chamberId: e.target.value })}
          >
            {chambers.map((c) => (
              <option key={c.chamber.id} value={c.chamber.id}>
                {c.chamber.name}
              </option>
            ))}
          </select>
        </div>
        <Amount layer={layer} flow={flow} onChange={onChange} medium={medium} set={set} />
        <div>
          <span className="kicker">Gap at the sides</span>
          <QuantityInput
            label={`Gap at ${medium.name}`}
            si={layer.gap}
            dimension="length"
            unit="mm"
            min={0}
            max={0.5}
            onCommit={(gap) => set({ gap })}
          />
        </div>
      </div>
      <div className="mt-2 grid gap-x-5 gap-y-1 sm:grid-cols-2">
        {check('bagged', 'In a mesh bag')}
        {layer.gap > 0 && check('crossed', 'The next layer covers the gap')}
        {check('sealed', 'Cut to reach the wall outside its chamber')}
        <label className="flex items-center gap-2">
          <input
            type="range"
            className="range range-xs w-28"
            min={0}
            max={95}
            step={5}
            value={Math.round(layer.fouled * 100)}
            aria-label={`Dirt in ${medium.name}, per cent of what it can hold`}
            onChange={(e) => set({ fouled: Number(e.target.value) / 100 })}
          />
          <span>
            <span className="num">{Math.round(layer.fouled * 100)}</span> % full of dirt
          </span>
        </label>
      </div>
      {flow && (
        <p className="mt-2">
          Weighs <FigureView figure={layerMassFigure(flow)} inline said digits={2} /> dry. Head loss{' '}
          <FigureView figure={headFigure(flow)} inline said unit="mm" digits={2} /> (
          {RESISTANCE_WORDS[resistanceOf(medium).from].words}). Bypass{' '}
          <FigureView figure={bypassFigure(flow)} inline said />.
        </p>
      )}
    </div>
  )
}

/** How much of it there is, and how that is given. */
function Amount({
  layer,
  flow,
  onChange,
  medium,
  set,
}: {
  readonly layer: FillLayer
  readonly flow: LayerFlow | null
  readonly onChange: (layer: FillLayer) => void
  readonly medium: Medium
  readonly set: (more: Partial<FillLayer>) => void
}) {
  return (
    <div>
      <span className="kicker">Amount, as</span>
      <div className="grid grid-cols-2 gap-2">
        <select
          aria-label="Unit of the amount"
          className="field"
          value={layer.measure}
          disabled={!flow}
          onChange={(e) => flow && onChange(measuredAs(flow.placed, e.target.value as FillLayer['measure']))}
        >
          {MEASURES.map((m) => (
            <option key={m} value={m}>
              {MEASURE_WORDS[m]}
            </option>
          ))}
        </select>
        <QuantityInput
          key={layer.measure}
          label={`Amount of ${medium.name}`}
          si={layer.amount}
          {...RANGE[layer.measure]}
          onCommit={(amount) => set({ amount })}
        />
      </div>
    </div>
  )
}
