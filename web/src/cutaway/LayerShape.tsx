import { useDraggable } from '@dnd-kit/core'
import type { LayerFlow } from '@ypsometer/core/path/outcome'
import type { Box } from './layers'

interface LayerProps {
  readonly flow: LayerFlow
  readonly box: Box
  readonly scale: number
  readonly fill: string
  readonly selected: boolean
  readonly movable: boolean
  readonly onSelect: (id: string) => void
  readonly says: string
}

/** One layer: its texture, set in from the walls by its gap (never less than can be seen), water in the gap. */
export function LayerShape({ flow, box, scale, fill, selected, movable, onSelect, says }: LayerProps) {
  const { layer, gap } = flow.placed
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({ id: layer.id, disabled: !movable })
  const across = flow.chamber.way === 'across'
  const inset = gap > 0 ? Math.max(3, gap * scale) : 0
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0]
  const inner = across
    ? { x: box.x0, y: box.y0 + inset, width: w, height: Math.max(1, h - 2 * inset) }
    : { x: box.x0 + inset, y: box.y0, width: Math.max(1, w - 2 * inset), height: h }
  const { role: _role, ...more } = attributes
  return (
    <g
      ref={(node: SVGGElement | null) => setNodeRef(node as Element as HTMLElement | null)}
      {...(movable ? more : {})}
      {...(movable ? listeners : {})}
      role="button"
      tabIndex={0}
      aria-pressed={selected}
      aria-label={says}
      data-layer={layer.id}
      className={`outline-offset-2 ${movable ? 'cursor-grab touch-none' : 'cursor-pointer'}`}
      opacity={isDragging ? 0.55 : 1}
      onClick={() => onSelect(layer.id)}
      onKeyDown={(e) => {
        if (e.key !== 'Enter' && e.key !== ' ') return
        e.preventDefault()
        onSelect(layer.id)
      }}
    >
      {inset > 0 && (
        <rect x={box.x0} y={box.y0} width={w} height={h} fill="var(--color-primary)" fillOpacity="0.22" />
      )}
      <rect {...inner} fill="var(--color-base-100)" />
      <rect
        {...inner}
        fill={fill}
        stroke={flow.placed.over > 0 ? 'var(--color-error)' : 'var(--color-base-content)'}
        strokeWidth={selected ? 3 : 1.1}
        strokeDasharray={layer.bagged ? '3 2' : undefined}
      />
      {layer.fouled > 0 && (
        <rect {...inner} fill="var(--color-warning)" fillOpacity={0.15 + 0.55 * layer.fouled} />
      )}
      {layer.sealed && !across && (
        <path
          d={`M${box.x0 - 4} ${box.y0}v${h}M${box.x1 + 4} ${box.y0}v${h}`}
          stroke="var(--color-base-content)"
          strokeWidth="3"
        />
      )}
    </g>
  )
}
