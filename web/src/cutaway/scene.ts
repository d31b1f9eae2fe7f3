import { FILTERS, type FilterKind } from '@ypsometer/core/kinds/filters'
import { sectionWidths } from '@ypsometer/core/volumes/solids'
import type { BodyRecord, Chamber } from '@ypsometer/core/volumes/interior'
import { find, rect, type Point, type Scene, type SceneChamber } from './shapes'
import { surroundingsOf, type Around } from './surroundings'

function chamberShape(c: Chamber): SceneChamber {
  const { foot, top } = sectionWidths(c.solid)
  const wide = Math.max(foot, top)
  const h = c.solid.height
  const left = (w: number): number => c.x + (wide - w) / 2
  const at = (height: number): readonly [number, number] => {
    const w = foot + ((top - foot) * height) / h
    return [left(w), left(w) + w]
  }
  const [f0, f1] = at(0)
  const [t0, t1] = at(h)
  const low = c.solid.shape === 'wedge' ? c.solid.lowHeight : h
  const outline: Point[] = [
    [f0, c.y],
    [f1, c.y],
    [t1, c.y + low],
    [t0, c.y + h],
  ]
  const used = c.usableHeight ?? h
  const wasted: Point[] = []
  if (used < h && c.solid.shape !== 'wedge') {
    const [u0, u1] = at(Math.max(0, used))
    wasted.push([u0, c.y + used], [u1, c.y + used], [t1, c.y + h], [t0, c.y + h])
  }
  return { chamber: c, outline, wasted, centre: [c.x + wide / 2, c.y + h / 2] }
}

/** The top and the foot of a chamber, a little inside it. */
const ends = (c: SceneChamber): { readonly top: number; readonly foot: number } => ({
  top: c.chamber.y + c.chamber.solid.height - 0.004,
  foot: c.chamber.y + 0.004,
})
const within = (v: number, low: number, high: number): number => Math.min(Math.max(v, low), high)

/**
 * Where the water passes a chamber: up the whole of a pipe; down a side channel, out of its foot at the height of what
 * comes next; through the middle of anything else, or beside a pipe that stands in it.
 */
function passes(
  c: SceneChamber,
  next: SceneChamber | undefined,
  pipe: SceneChamber | undefined,
): readonly Point[] {
  const { top, foot } = ends(c)
  const [x, y] = c.centre
  if (c.chamber.role === 'centre-pipe') return [[x, foot], [x, top + 0.004]] // prettier-ignore
  if (c.chamber.role === 'side-channel')
    return [[x, top], [x, next ? within(next.centre[1], foot, top) : foot]] // prettier-ignore
  const left = pipe && pipe.chamber.x - c.chamber.x
  const stands = pipe !== undefined && left !== undefined && left > 0 && Math.abs(pipe.centre[0] - x) < left
  return [[stands ? c.chamber.x + left / 2 : x, y]]
}

/** The water's ways: one through all chambers in flow order; into an air sponge, one for each sponge. */
function waterWays(
  kind: FilterKind,
  through: readonly SceneChamber[],
  a: Around,
): readonly (readonly Point[])[] {
  const pipe = through.find((c) => c.chamber.role === 'centre-pipe')
  const along = (list: readonly SceneChamber[]): readonly Point[] =>
    list.flatMap((c, i) => passes(c, list[i + 1], pipe))
  if (!FILTERS[kind].pairedSponges) return a.entries.map((entry) => [...entry, ...along(through), ...a.exit])
  const middle = pipe?.centre[0] ?? 0
  return through
    .filter((c) => c !== pipe)
    .map((c): readonly Point[] => {
      const side = c.centre[0] < middle ? -1 : 1
      return [[c.centre[0] + side * 0.06, c.centre[1]], c.centre, ...(pipe ? along([pipe]) : []), ...a.exit]
    })
}

/** The section of a filter from its measured geometry alone. */
export function buildScene(kind: FilterKind, body: BodyRecord, chambers: readonly Chamber[]): Scene {
  const list = chambers.map(chamberShape)
  const { outerWidth: W, outerHeight: H } = body
  const a = surroundingsOf(kind)(W, H, list)
  const pump = find(list, 'pump-well')
  const through = list.filter((c) => c.chamber.role !== 'head-space')
  const all = [...list.flatMap((c) => c.outline), ...a.strokes.flatMap((s) => s.points)]
  const xs = all.map((p) => p[0])
  const ys = all.map((p) => p[1])
  return {
    bounds: {
      x0: Math.min(a.bounds.x0, ...xs),
      y0: Math.min(a.bounds.y0, ...ys),
      x1: Math.max(a.bounds.x1, ...xs),
      y1: Math.max(a.bounds.y1, ...ys),
    },
    body: rect(0, 0, W, H),
    chambers: list,
    strokes: a.strokes,
    tankWater: a.tankWater,
    paths: waterWays(kind, through, a),
    boxed: FILTERS[kind].boxed,
    bubbles: a.bubbles ?? [],
    impeller: pump
      ? {
          at: pump.centre,
          radius: Math.min(sectionWidths(pump.chamber.solid).foot, pump.chamber.solid.height) * 0.28,
        }
      : null,
  }
}

const ROUND = [5, 2, 1]

/** A length of a scale bar that is round in a unit (m) and at most a third of the drawing (m). */
export function scaleBar(width: number, unit = 0.01): number {
  const most = width / 3 / unit
  const decade = 10 ** Math.floor(Math.log10(most))
  return (ROUND.find((r) => r * decade <= most) ?? 1) * decade * unit
}
