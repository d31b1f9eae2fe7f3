import {
  DndContext,
  DragOverlay,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type DragMoveEvent,
  type SensorDescriptor,
  type SensorOptions,
} from '@dnd-kit/core'
import type { LayerDay } from '@ypsometer/core/clogging/run'
import type { ForecastReport } from '@ypsometer/core/clogging/report'
import { isFillable } from '@ypsometer/core/fills/place'
import type { LayerFlow, Outcome } from '@ypsometer/core/path/outcome'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { showPercent } from '@ypsometer/core/units/format'
import { Download } from 'lucide-react'
import { useRef, useState, type SetStateAction, type JSX, type Dispatch, type RefObject } from 'react'
import { spreadLabels } from '../charts/labels'
import { units } from '../settings/settings'
import type { FindingSaid } from '../workers/pathWork'
import { layerBox, targetAt, type Box } from './layers'
import { type LayerPlace } from '@ypsometer/core/fills/move'
import { DirtShape } from './DirtShape'
import { LayerShape } from './LayerShape'
import { Pins } from './Pins'
import { MediaPatterns, MediumSwatch, textureOf } from './mediaPatterns'
import { Bar, download, said, Stroke, WaterPath } from './parts'
import { FlowArrows } from './FlowArrows'
import { Patterns } from './patterns'
import { Machinery, Section, useFrame } from './frame'

interface Props {
  readonly name: string
  readonly outcome: Outcome
  readonly selected: string | null
  readonly onSelect: (layerId: string) => void
  /** Arrows by flow and contact times, or thicknesses and room to drag. */
  readonly show: 'fill' | 'path'
  readonly findings?: readonly FindingSaid[]
  readonly onFinding?: (id: string) => void
  /** A forecast and the day of it whose dirt is drawn in the layers. */
  readonly dirt?: { readonly run: ForecastReport; readonly day: number } | null
  /** A layer is held over a place (null: over none), and let go there. */
  readonly onHold?: (layerId: string, to: LayerPlace | null) => void
  readonly onDrop?: (layerId: string, to: LayerPlace | null) => void
}

const LABELS = 196
const NARROW = 380
const MAX_HEIGHT = 470

/** A layer that keeps less of its permeability hardly lets water through. */
const HARDLY = 0.005

/** Dirt in a layer, where dirt is drawn; a cake on it shuts what is not full inside. */
function dirtText(at: LayerDay | undefined): string | null {
  if (!at) return null
  const open = at.keeps < HARDLY ? 'almost blocked' : `${showPercent(at.keeps)} of its permeability left`
  const caked = at.cake > at.held / 2 && at.keeps < 1 - at.full
  return `${showPercent(at.full)} full · ${caked ? 'a cake on it · ' : ''}${open}`
}

type Frame = ReturnType<typeof useFrame>

/** The body: its chambers, walls, and the ways of the water. */
function Vessel({ frame, faint }: { readonly frame: Frame; readonly faint: number }) {
  const { id, scene, scale, x, y, d } = frame
  return (
    <>
      {scene.chambers.map((c) => (
        <g key={c.chamber.id}>
          <path
            d={d(c.outline)}
            fill="var(--color-base-100)"
            stroke="var(--color-base-content)"
            strokeWidth="1.2"
          />
          {!isFillable(c.chamber) && <path d={d(c.outline)} fill={`url(#${id}-${c.chamber.use})`} />}
          {c.wasted.length > 0 && <path d={d(c.wasted)} fill={`url(#${id}-wasted)`} />}
        </g>
      ))}
      {scene.strokes.map((s, i) => (
        <Stroke key={i} stroke={s} d={d(s.points, false)} scale={scale} />
      ))}
      <g opacity={faint}>
        {scene.paths.map((points, i) => (
          <WaterPath key={i} points={points.map((q) => [x(q[0]), y(q[1])] as const)} />
        ))}
      </g>
    </>
  )
}

/** The layers in it, and the dirt in them. */
function Layers({
  p,
  boxes,
  frame: { id, narrow, scale, x, y },
  dirtOf,
  system,
}: {
  readonly p: Props
  readonly boxes: readonly {
    readonly l: Outcome['layers'][number]
    readonly box: ReturnType<typeof layerBox>
  }[]
  readonly frame: Frame
  readonly dirtOf: (layerId: string) => LayerDay | undefined
  readonly system: ReturnType<typeof units.use>
}) {
  const { selected } = p
  return (
    <>
      {boxes.map(({ l, box }) => (
        <LayerShape
          key={l.placed.layer.id}
          flow={l}
          box={{ x0: x(box.x0), x1: x(box.x1), y0: y(box.y1), y1: y(box.y0) }}
          scale={scale}
          fill={`url(#${id}-m-${textureOf(l.placed.medium)})`}
          selected={l.placed.layer.id === selected}
          onSelect={p.onSelect}
          // On a phone a finger on the drawing scrolls the page; layers are moved in the list there.
          movable={p.onDrop !== undefined && !narrow}
          says={`${l.placed.medium.name} in ${l.chamber.chamber.name.toLowerCase()}: ${said(l.placed.volume, 'volume', system)}, ${showPercent(l.bypassFraction)} of the water bypasses it`}
        />
      ))}
      {boxes.map(({ l, box }) => {
        const at = dirtOf(l.placed.layer.id)
        return (
          at && (
            <DirtShape
              key={l.placed.layer.id}
              way={l.chamber.way}
              at={at}
              box={{ x0: x(box.x0), x1: x(box.x1), y0: y(box.y1), y1: y(box.y0) }}
            />
          )
        )
      })}
    </>
  )
}

/** The section with its layers, to scale: each medium in its texture, water drawn by how much goes where. */
export function FillCutaway(p: Props) {
  const { outcome, selected, show, findings = [] } = p
  const { kind, body, chambers } = outcome.case
  const system = units.use()
  const root = useRef<HTMLDivElement>(null)
  const svg = useRef<SVGSVGElement>(null)
  const [held, setHeld] = useState<string | null>(null)
  const frame = useFrame({
    kind,
    body,
    chambers,
    root,
    labels: LABELS,
    narrowBelow: NARROW,
    maxHeight: MAX_HEIGHT,
    margin: 10,
  })
  const { id, scene, narrow, width, height, scale, margin, left, drawn, x, y } = frame
  const { bounds } = scene
  const boxes = outcome.layers.map((l) => ({ l, box: layerBox(l.chamber, l.placed) }))
  const labels = spreadLabels(
    boxes.map(({ box }) => y((box.y0 + box.y1) / 2)),
    35,
    16,
    height - 44,
  )
  const labelX = left + drawn + 26
  const dirtOf = (layerId: string): LayerDay | undefined => {
    if (!p.dirt) return undefined
    const { run, day } = p.dirt
    return run.days[Math.min(day, run.days.length - 1)]?.layers[run.layers.findIndex((l) => l.id === layerId)]
  }
  const placed = outcome.topology.chambers
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 5 } }))
  const targetOf = (e: DragMoveEvent | DragEndEvent): LayerPlace | null => {
    const at = e.activatorEvent as PointerEvent
    const frame = svg.current?.getBoundingClientRect()
    if (!frame) return null
    // The drawing may be shown smaller than it was laid out.
    const zoom = width / frame.width
    const px = (at.clientX + e.delta.x - frame.left) * zoom
    const py = (at.clientY + e.delta.y - frame.top) * zoom
    return targetAt(
      placed,
      String(e.active.id),
      bounds.x0 + (px - left) / scale,
      bounds.y1 - (py - margin) / scale,
    )
  }
  const nameOf = (layerId: string): string =>
    outcome.layers.find((l) => l.placed.layer.id === layerId)?.placed.medium.name ?? 'It'
  const heldLayer = outcome.layers.find((l) => l.placed.layer.id === held)
  const drawing = (
    <Section frame={frame} label={`Section of ${p.name} with its media, to scale`} svg={svg}>
      <Patterns id={id} />
      <MediaPatterns id={`${id}-m`} />
      <desc>{inWords(outcome)}</desc>
      <Vessel frame={frame} faint={show === 'path' ? 0.35 : 0.5} />
      <Layers p={p} boxes={boxes} frame={frame} dirtOf={dirtOf} system={system} />
      {show === 'path' &&
        placed.map((c) => <FlowArrows key={c.chamber.id} outcome={outcome} chamber={c} x={x} y={y} />)}
      <Machinery frame={frame} />
      {!narrow &&
        boxes.map(({ l, box }, i) => {
          const ly = labels[i] ?? 0
          const chosen = l.placed.layer.id === selected
          return (
            <LayerLabel
              key={l.placed.layer.id}
              l={l}
              x={x}
              box={box}
              y={y}
              labelX={labelX}
              ly={ly}
              chosen={chosen}
              show={show}
              dirtOf={dirtOf}
              system={system}
            />
          )
        })}
      {show === 'path' && (
        <Pins
          findings={findings}
          outcome={outcome}
          x={x}
          y={y}
          {...(p.onFinding && { onFinding: p.onFinding })}
        />
      )}
      <Bar scene={scene} scale={scale} x={margin} y={height - 14} system={system} />
    </Section>
  )
  return (
    <div ref={root}>
      {p.onDrop ? (
        <InHand
          sensors={sensors}
          nameOf={nameOf}
          setHeld={setHeld}
          p={p}
          targetOf={targetOf}
          drawing={drawing}
          heldLayer={heldLayer}
        />
      ) : (
        drawing
      )}
      <SectionTools root={root} p={p} show={show} />
      {narrow && <LayersBelow outcome={outcome} dirtOf={dirtOf} show={show} system={system} />}
    </div>
  )
}

/** Description of the drawing, for those who do not see it. */
const inWords = (o: Outcome): string =>
  `Flow order: ${o.layers
    .map((l) => `${l.placed.medium.name} (${showPercent(l.bypassFraction)} bypass)`)
    .join('; ')}.`

/** Downloads of the section. */
function SectionTools({
  root,
  p,
  show,
}: {
  readonly root: RefObject<HTMLDivElement | null>
  readonly p: Props
  readonly show: Props['show']
}) {
  return (
    <div className="no-print flex flex-wrap items-center gap-1">
      {(['svg', 'png'] as const).map((as) => (
        <button
          key={as}
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => download(root.current, `${p.name}-${show}`, as)}
        >
          <Download size={14} aria-hidden="true" /> {as.toUpperCase()}
        </button>
      ))}
      {show === 'path' && (
        <span className="muted ml-2 text-[0.85rem]">
          Solid: through the media. Dashed: bypass. Width = share of the flow.
        </span>
      )}
    </div>
  )
}

/** The layers below a narrow section, by name and number. */
function LayersBelow({
  outcome,
  dirtOf,
  show,
  system,
}: {
  readonly outcome: Outcome
  readonly dirtOf: (layerId: string) => LayerDay | undefined
  readonly show: Props['show']
  readonly system: UnitSystem
}) {
  return (
    <ol className="mt-1 text-[0.92rem]">
      {outcome.layers.map((l) => (
        <li key={l.placed.layer.id} className="rule-b flex justify-between gap-3 py-0.5">
          <span>
            <MediumSwatch id={l.placed.layer.id} medium={l.placed.medium} /> {l.placed.medium.name}
          </span>
          <span className="num">
            {dirtText(dirtOf(l.placed.layer.id)) ??
              (show === 'path'
                ? `${showPercent(l.bypassFraction)} bypass`
                : said(l.placed.volume, 'volume', system))}
          </span>
        </li>
      ))}
    </ol>
  )
}

/** The section with layers that can be taken into the hand. */
function InHand({
  sensors,
  nameOf,
  setHeld,
  p,
  targetOf,
  drawing,
  heldLayer,
}: {
  readonly sensors: SensorDescriptor<SensorOptions>[]
  readonly nameOf: (layerId: string) => string
  readonly setHeld: Dispatch<SetStateAction<string | null>>
  readonly p: Props
  readonly targetOf: (e: DragMoveEvent | DragEndEvent) => LayerPlace | null
  readonly drawing: JSX.Element
  readonly heldLayer: LayerFlow | undefined
}) {
  return (
    <DndContext
      sensors={sensors}
      autoScroll={false}
      accessibility={{
        restoreFocus: false,
        screenReaderInstructions: {
          draggable: 'Dragged with mouse or pen to another place. By keyboard, layers are moved in the list.',
        },
        announcements: {
          onDragStart: ({ active }) => `${nameOf(String(active.id))} in the hand.`,
          onDragOver: () => undefined,
          onDragEnd: ({ active }) => `${nameOf(String(active.id))} let go.`,
          onDragCancel: ({ active }) => `${nameOf(String(active.id))} left where it was.`,
        },
      }}
      onDragStart={(e) => setHeld(String(e.active.id))}
      onDragMove={(e) => p.onHold?.(String(e.active.id), targetOf(e))}
      onDragEnd={(e) => {
        setHeld(null)
        p.onDrop?.(String(e.active.id), targetOf(e))
      }}
      onDragCancel={(e) => {
        setHeld(null)
        p.onDrop?.(String(e.active.id), null)
      }}
    >
      {drawing}
      <DragOverlay dropAnimation={null}>
        {heldLayer && (
          <span className="bg-base-100 border-base-content num inline-flex items-center gap-2 border px-2 py-1 text-[0.9rem] whitespace-nowrap shadow-lg">
            <MediumSwatch id="held" medium={heldLayer.placed.medium} />
            {heldLayer.placed.medium.name}
          </span>
        )}
      </DragOverlay>
    </DndContext>
  )
}

/** A layer’s name beside the section, and its number. */
function LayerLabel({
  l,
  x,
  box,
  y,
  labelX,
  ly,
  chosen,
  show,
  dirtOf,
  system,
}: {
  readonly l: LayerFlow
  readonly x: (v: number) => number
  readonly box: Box
  readonly y: (v: number) => number
  readonly labelX: number
  readonly ly: number
  readonly chosen: boolean
  readonly show: Props['show']
  readonly dirtOf: (layerId: string) => LayerDay | undefined
  readonly system: UnitSystem
}) {
  return (
    <g pointerEvents="none">
      <path
        d={`M${x(box.x1) + 2} ${y((box.y0 + box.y1) / 2)}L${labelX - 14} ${ly - 2}h8`}
        fill="none"
        stroke="var(--color-secondary)"
        strokeWidth="0.7"
      />
      <text
        x={labelX}
        y={ly - 1}
        fontSize="14"
        fontWeight={chosen ? 700 : 400}
        fill="var(--color-base-content)"
      >
        {l.placed.medium.name}
      </text>
      <text
        x={labelX}
        y={ly + 13}
        fontSize="12.5"
        className="num"
        fill={
          l.placed.over > 0 || (show === 'path' && l.bypassFraction > 0.1)
            ? 'var(--color-error)'
            : 'var(--color-secondary)'
        }
      >
        {dirtText(dirtOf(l.placed.layer.id)) ??
          (show === 'path'
            ? `${showPercent(l.bypassFraction)} bypass · ${l.contact < 100 ? `${l.contact.toFixed(1)} s in it` : 'hardly moves'}`
            : `${said(l.placed.thickness, 'length', system)} · ${said(l.placed.volume, 'volume', system)}${l.placed.over > 0 ? ' · above the rim' : ''}`)}
      </text>
    </g>
  )
}
