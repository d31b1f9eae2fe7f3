import { isFillable, type PlacedChamber, type PlacedLayer } from '@ypsometer/core/fills/place'
import type { LayerPlace } from '@ypsometer/core/fills/move'
import { sectionWidths } from '@ypsometer/core/volumes/solids'

/** A rectangle of the section, m. */
export interface Box {
  readonly x0: number
  readonly y0: number
  readonly x1: number
  readonly y1: number
}

/** Where a chamber stands in the section, as high as it may be filled. */
export function chamberBox({ chamber: c, way, length }: PlacedChamber): Box {
  const wide = Math.max(sectionWidths(c.solid).foot, sectionWidths(c.solid).top)
  const limit =
    way === 'up' || way === 'down' ? length : Math.min(c.usableHeight ?? c.solid.height, c.solid.height)
  return { x0: c.x, y0: c.y, x1: c.x + wide, y1: c.y + limit }
}

/** Where a layer lies in the section, by the way the water runs. */
export function layerBox(chamber: PlacedChamber, l: PlacedLayer): Box {
  const b = chamberBox(chamber)
  const end = l.from + l.thickness
  switch (chamber.way) {
    case 'up':
      return { ...b, y0: b.y0 + l.from, y1: b.y0 + end }
    case 'down':
      return { ...b, y0: b.y1 - end, y1: b.y1 - l.from }
    case 'across':
      return { ...b, x0: b.x0 + l.from, x1: b.x0 + end }
    case 'inward':
      return { x0: b.x0 + l.from, x1: b.x1 - l.from, y0: b.y0, y1: b.y1 - l.from }
  }
}

/** The place under a point (m); null outside every chamber that may be filled. */
export function targetAt(
  chambers: readonly PlacedChamber[],
  held: string,
  x: number,
  y: number,
): LayerPlace | null {
  for (const chamber of chambers) {
    if (!isFillable(chamber.chamber)) continue
    const b = chamberBox(chamber)
    const tall = b.y0 + chamber.chamber.solid.height
    if (x < b.x0 || x > b.x1 || y < b.y0 || y > tall) continue
    const others = chamber.layers.filter((l) => l.layer.id !== held)
    const along = chamber.way === 'across' ? x - b.x0 : chamber.way === 'down' ? b.y1 - y : y - b.y0
    // Where the others stand once the held one is out of the way.
    let from = 0
    let index = 0
    for (const l of others) {
      if (along > from + l.thickness / 2) index++
      from += l.thickness
    }
    return { chamberId: chamber.chamber.id, index }
  }
  return null
}
