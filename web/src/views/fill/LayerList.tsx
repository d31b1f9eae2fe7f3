import type { Fill } from '@ypsometer/contract'
import { isFillable, type FillLayer, type PlacedChamber } from '@ypsometer/core/fills/place'
import type { Medium } from '@ypsometer/core/media/medium'
import { freeFigure, bypassFigure } from '@ypsometer/core/path/figures'
import type { LayerFlow, Outcome } from '@ypsometer/core/path/outcome'
import { X } from 'lucide-react'
import { useState } from 'react'
import { moveLayer } from '@ypsometer/core/fills/move'
import { MediumSwatch } from '../../cutaway/mediaPatterns'
import { Sortable, useSortableRow } from '../../fields/Sortable'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { IconButton } from '../../frame/IconButton'
import { toast } from '../../frame/toastStore'
import { LayerSheet } from './LayerSheet'
import { newLayer, useNewest, writeLayers } from '../../fillPath/layerEdits'

interface Props {
  readonly fill: Fill
  readonly outcome: Outcome
  readonly media: readonly Medium[]
  readonly selected: string | null
  readonly onSelect: (id: string | null) => void
}

/** The layers chamber by chamber, in the order of the water; moved by dragging and by keyboard. */
export function LayerList({ fill, outcome, media, selected, onSelect }: Props) {
  const newest = useNewest(fill)
  const chambers = outcome.topology.chambers.filter((c) => isFillable(c.chamber))
  const rows = chambers.flatMap((c) => outcome.layers.filter((l) => l.chamber.chamber.id === c.chamber.id))
  const drawn = new Set(rows.map((r) => r.placed.layer.id))
  const move = (moved: string, over: string): void => {
    const on = rows.find((r) => r.placed.layer.id === over)
    if (!on) return
    const held = rows.findIndex((r) => r.placed.layer.id === moved)
    const at = rows.indexOf(on)
    const { chamberId } = on.placed.layer
    const there = rows.filter((r) => r.placed.layer.chamberId === chamberId && r.placed.layer.id !== moved)
    const index = there.indexOf(on) + (held < at ? 1 : 0)
    writeLayers(fill, moveLayer(fill.layers, moved, { chamberId, index }))
  }
  const change = (layer: FillLayer): void =>
    writeLayers(
      fill,
      fill.layers.map((l) => (l.id === layer.id ? layer : l)),
    )
  const remove = (l: LayerFlow): void => {
    const before = fill.layers
    writeLayers(
      fill,
      before.filter((x) => x.id !== l.placed.layer.id),
    )
    toast(`${l.placed.medium.name} removed.`, {
      label: 'Undo',
      // The fill as it is by then: what is written is based on what is seen.
      run: () => writeLayers(newest.current, before),
    })
  }
  return (
    <section aria-labelledby="layers-title">
      <h2 id="layers-title">Layers, in flow order</h2>
      <Sortable
        items={rows.map((r) => ({ id: r.placed.layer.id, name: r.placed.medium.name }))}
        onMove={move}
      >
        {chambers.map((c) => (
          <div key={c.chamber.id} className="mt-2">
            <div className="border-base-content flex flex-wrap items-baseline justify-between gap-x-3 border-b">
              <h3>{c.chamber.name}</h3>
              <span className="muted text-[0.85rem]">
                {c.free < -1e-6 ? (
                  <span className="text-error font-medium">
                    <FigureView figure={freeFigure(c)} inline said /> above the rim
                  </span>
                ) : (
                  <>
                    <FigureView figure={freeFigure(c)} inline said /> free
                  </>
                )}
              </span>
            </div>
            <ul>
              {rows
                .filter((r) => r.placed.layer.chamberId === c.chamber.id)
                .map((r) => (
                  <Row
                    key={r.placed.layer.id}
                    flow={r}
                    open={r.placed.layer.id === selected}
                    onOpen={() => onSelect(r.placed.layer.id === selected ? null : r.placed.layer.id)}
                    onRemove={() => remove(r)}
                  >
                    <LayerSheet
                      layer={r.placed.layer}
                      medium={r.placed.medium}
                      flow={r}
                      outcome={outcome}
                      media={media}
                      onChange={change}
                    />
                  </Row>
                ))}
              {fill.layers
                .filter((l) => l.chamberId === c.chamber.id && !drawn.has(l.id))
                .map((l) => {
                  const medium = media.find((m) => m.id === l.mediumId)
                  return (
                    <Unplaced
                      key={l.id}
                      l={l}
                      medium={medium}
                      fill={fill}
                      outcome={outcome}
                      media={media}
                      change={change}
                    />
                  )
                })}
            </ul>
            <AddLayer
              chamber={c}
              media={media}
              onAdd={(m) => {
                const layer = newLayer(c, m)
                writeLayers(fill, [...fill.layers, layer])
                onSelect(layer.id)
              }}
            />
          </div>
        ))}
      </Sortable>
    </section>
  )
}

interface RowProps {
  readonly flow: LayerFlow
  readonly open: boolean
  readonly onOpen: () => void
  readonly onRemove: () => void
  readonly children: React.ReactNode
}

/** A layer that cannot be where it is noted. */
function Unplaced({
  l,
  medium,
  fill,
  outcome,
  media,
  change,
}: {
  readonly l: FillLayer
  readonly medium: Medium | undefined
  readonly fill: Fill
  readonly outcome: Outcome
  readonly media: readonly Medium[]
  readonly change: (layer: FillLayer) => void
}) {
  return (
    <li className="border-error border-l-4 pl-2">
      <div className="flex items-center justify-between gap-2 py-1">
        <span className="text-error">{medium?.name ?? 'A deleted medium'}: these values do not fit</span>
        <IconButton
          label={`Remove ${medium?.name ?? 'it'}`}
          icon={X}
          onClick={() =>
            writeLayers(
              fill,
              fill.layers.filter((x) => x.id !== l.id),
            )
          }
        />
      </div>
      {medium && (
        <LayerSheet layer={l} medium={medium} flow={null} outcome={outcome} media={media} onChange={change} />
      )}
    </li>
  )
}

function Row({ flow, open, onOpen, onRemove, children }: RowProps) {
  const { layer, medium, thickness, volume, over } = flow.placed
  const { row, held, grip } = useSortableRow(layer.id, `Move ${medium.name}`)
  return (
    <li {...row} className={held}>
      <div className={`rule-b flex items-center gap-2 py-1 ${open ? 'bg-base-200' : ''}`}>
        {grip}
        <button
          type="button"
          className="flex min-w-0 flex-1 cursor-pointer flex-wrap items-baseline gap-x-3 text-left"
          aria-expanded={open}
          onClick={onOpen}
        >
          <span className="min-w-0">
            <MediumSwatch id={layer.id} medium={medium} /> {medium.name}
            {layer.bagged && <span className="muted"> · bagged</span>}
          </span>
          <span className={`ml-auto whitespace-nowrap ${over > 0 ? 'text-error' : ''}`}>
            <Num si={thickness} dimension="length" unit="mm" /> · <Num si={volume} dimension="volume" />
          </span>
        </button>
        <span className="w-16 text-right">
          {flow.bypassFraction > 0.0005 ? <FigureView figure={bypassFigure(flow)} inline said /> : ''}
        </span>
        <IconButton label={`Remove ${medium.name}`} icon={X} onClick={onRemove} />
      </div>
      {open && children}
    </li>
  )
}

function AddLayer({
  chamber,
  media,
  onAdd,
}: {
  readonly chamber: PlacedChamber
  readonly media: readonly Medium[]
  readonly onAdd: (m: Medium) => void
}) {
  const [key, setKey] = useState(0)
  return (
    <select
      key={key}
      className="field muted !min-h-0 !border-0 text-[0.92rem]"
      aria-label={`Add a layer to ${chamber.chamber.name}`}
      defaultValue=""
      onChange={(e) => {
        const m = media.find((x) => x.id === e.target.value)
        setKey(key + 1)
        if (m) onAdd(m)
      }}
    >
      <option value="">+ add a layer …</option>
      {media.map((m) => (
        <option key={m.id} value={m.id}>
          {m.name}
        </option>
      ))}
    </select>
  )
}
