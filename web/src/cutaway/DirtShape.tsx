import type { LayerDay } from '@ypsometer/core/clogging/run'
import type { Way } from '@ypsometer/core/volumes/interior'
import type { Box } from './layers'

interface Props {
  readonly way: Way
  readonly at: LayerDay
  readonly box: Box
}

/** Grams of dry dirt that a cake must weigh to be drawn as thick as it can be. */
const THICK = 4e-3
const MOST = 5

/** Dirt in a layer: darker where it is fuller, slice by slice as the water comes, and a crust before it. */
export function DirtShape({ way, at, box }: Props) {
  const n = at.slices.length
  const [w, h] = [box.x1 - box.x0, box.y1 - box.y0]
  const slice = (i: number) => {
    if (way === 'across') return { x: box.x0 + (w * i) / n, y: box.y0, width: w / n, height: h }
    // The water of a chamber that is filled from below meets its lowest slice first.
    const from = way === 'up' ? box.y1 - (h * (i + 1)) / n : box.y0 + (h * i) / n
    return { x: box.x0, y: from, width: w, height: h / n }
  }
  const crust = Math.min(1, at.cake / THICK) * MOST
  const edge = {
    across: { x: box.x0, y: box.y0, width: crust, height: h },
    up: { x: box.x0, y: box.y1 - crust, width: w, height: crust },
    down: { x: box.x0, y: box.y0, width: w, height: crust },
    inward: { x: box.x0, y: box.y0, width: w, height: crust },
  }[way]
  return (
    <g pointerEvents="none" fill="var(--color-dirt)">
      {way === 'inward' ? (
        <rect x={box.x0} y={box.y0} width={w} height={h} fillOpacity={0.85 * at.full} />
      ) : (
        at.slices.map((full, i) => <rect key={i} {...slice(i)} fillOpacity={0.85 * full} />)
      )}
      {crust > 0.4 && <rect {...edge} fillOpacity={0.9} />}
    </g>
  )
}
