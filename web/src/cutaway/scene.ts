import { FILTERS, type FilterKind } from '@ypsometer/core/kinds'
import { sectionWidths, type BodyRecord, type Chamber } from '@ypsometer/core/volumes'

/** A point of the section in metres: x to the right, y upwards from the body's foot. */
export type Point = readonly [x: number, y: number]

export interface SceneChamber {
  readonly chamber: Chamber
  readonly outline: readonly Point[]
  /** The part above the usable height, which could hold media and does not; empty when there is none. */
  readonly wasted: readonly Point[]
  readonly centre: Point
}

/** Strokes that make a kind recognisable: what they are, and where. */
export interface SceneStroke {
  readonly what: 'glass' | 'hose' | 'tube' | 'air' | 'lid' | 'foot' | 'cup' | 'level' | 'stand'
  readonly points: readonly Point[]
}

/** A section drawing in metres, ready to be scaled. */
export interface Scene {
  readonly bounds: { readonly x0: number; readonly y0: number; readonly x1: number; readonly y1: number }
  readonly body: readonly Point[]
  readonly chambers: readonly SceneChamber[]
  readonly strokes: readonly SceneStroke[]
  /** Tank water beside or around the body. */
  readonly tankWater: readonly Point[]
  /** The ways of the water, each in flow order. */
  readonly paths: readonly (readonly Point[])[]
  /** False for kinds that have no box around their parts: the body is then only its outside measure. */
  readonly boxed: boolean
  readonly bubbles: readonly Point[]
  readonly impeller: { readonly at: Point; readonly radius: number } | null
}

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

const rect = (x0: number, y0: number, x1: number, y1: number): readonly Point[] => [
  [x0, y0],
  [x1, y0],
  [x1, y1],
  [x0, y1],
]

interface Around {
  readonly strokes: readonly SceneStroke[]
  readonly tankWater: readonly Point[]
  /** One entry for each way in; all leave by the one exit. */
  readonly entries: readonly (readonly Point[])[]
  readonly exit: readonly Point[]
  readonly bounds: Scene['bounds']
  readonly bubbles?: readonly Point[]
}

const stroke = (what: SceneStroke['what'], ...points: Point[]): SceneStroke => ({ what, points })
const find = (list: readonly SceneChamber[], ...roles: Chamber['role'][]): SceneChamber | undefined =>
  list.find((c) => roles.includes(c.chamber.role))

/** What stands around each kind of body, so that it is seen for what it is. W and H are the body's outside sizes. */
function around(kind: FilterKind, W: number, H: number, list: readonly SceneChamber[]): Around {
  const pump = find(list, 'pump-well')
  switch (kind) {
    case 'canister': {
      const [inX, outX] = [W * 0.16, W * 0.84]
      const top = H * 1.26
      const joint = pump ? pump.chamber.y : H * 0.8
      return {
        strokes: [
          stroke('hose', [inX, H], [inX, top]),
          stroke('hose', [outX, H], [outX, top]),
          stroke('stand', [inX - 0.014, H * 1.09], [inX + 0.014, H * 1.09]),
          stroke('stand', [outX - 0.014, H * 1.09], [outX + 0.014, H * 1.09]),
          stroke('lid', [-0.006, joint], [W + 0.006, joint]),
          stroke('foot', [W * 0.1, 0], [W * 0.1, -0.008], [W * 0.22, -0.008], [W * 0.22, 0]),
          stroke('foot', [W * 0.78, 0], [W * 0.78, -0.008], [W * 0.9, -0.008], [W * 0.9, 0]),
        ],
        tankWater: [],
        entries: [
          [
            [inX, top],
            [inX, H * 0.97],
          ],
        ],
        exit: [[outX, H * 0.97], [outX, top]], // prettier-ignore
        bounds: { x0: -0.015, y0: -0.012, x1: W + 0.015, y1: top },
      }
    }
    case 'hang-on-back': {
      const lip = find(list, 'lip')
      const spill = lip ? lip.chamber.y + lip.chamber.solid.height * 0.2 : H * 0.7
      const glass = W + 0.012
      const deep = -H * 0.55
      const level = spill - 0.025
      const tube = glass + 0.035
      const far = glass + Math.max(0.1, W * 0.55)
      const well: Point = pump ? pump.centre : [W * 0.15, H * 0.5]
      const over = Math.max(H * 0.9, spill + 0.03)
      return {
        strokes: [
          stroke('glass', [glass, deep], [glass, spill - 0.004]),
          stroke('tube', [tube, deep + 0.02], [tube, over], [well[0], over], [well[0], well[1] + 0.01]),
          stroke('level', [glass, level], [far, level]),
          stroke('lid', [0, H], [W * 0.85, H]),
          stroke('stand', [W * 0.9, H * 0.06], [glass, H * 0.06]),
        ],
        tankWater: rect(glass, deep, far, level),
        entries: [
          [
            [tube, deep + 0.02],
            [tube, over],
            [well[0], over],
          ],
        ],
        exit: [[glass + 0.012, spill], [glass + 0.05, level - 0.02]], // prettier-ignore
        bounds: { x0: -0.01, y0: deep, x1: far, y1: over + 0.012 },
      }
    }
    case 'internal':
    case 'motor-sponge': {
      const glass = -0.022
      const level = H + 0.045
      const right = W + 0.09
      const outY = pump ? pump.centre[1] : H * 0.85
      return {
        strokes: [
          stroke('glass', [glass, -0.05], [glass, level + 0.02]),
          stroke('cup', [glass, H * 0.25], [0, H * 0.25]),
          stroke('cup', [glass, H * 0.75], [0, H * 0.75]),
          stroke('tube', [W, outY], [W + 0.03, outY]),
          stroke('level', [glass, level], [right, level]),
          stroke('glass', [glass, -0.05], [right, -0.05]),
        ],
        tankWater: rect(glass, -0.05, right, level),
        entries: [[[W + 0.05, H * 0.08]]],
        exit: [[W + 0.03, outY], [right - 0.01, outY + 0.01]], // prettier-ignore
        bounds: { x0: glass - 0.008, y0: -0.055, x1: right, y1: level + 0.022 },
      }
    }
    case 'air-sponge':
    case 'air-box':
    case 'fluidised': {
      const riser = find(list, 'centre-pipe')
      const rx = riser ? riser.centre[0] : W / 2
      const foot = riser ? riser.chamber.y : 0.01
      const top = riser ? riser.chamber.y + riser.chamber.solid.height : H
      const level = Math.max(top - 0.012, H * 0.9)
      const [left, right] = [-0.06, W + 0.06]
      const bubbles = Array.from({ length: 7 }, (_, i): Point => [
        rx + (i % 2 ? 0.0022 : -0.0022),
        foot + ((top - foot) * (i + 0.7)) / 7.4,
      ])
      const airX = W + 0.025
      return {
        strokes: [
          stroke('glass', [left, -0.02], [right, -0.02]),
          stroke('glass', [left, -0.02], [left, level + 0.03]),
          stroke('level', [left, level], [right, level]),
          stroke('air', [airX, level + 0.05], [airX, foot + 0.006], [rx + 0.004, foot + 0.006]),
        ],
        tankWater: rect(left, -0.02, right, level),
        entries: [[[left + 0.012, list[0] ? list[0].centre[1] : H * 0.3]]],
        exit: [[rx, top], [rx - 0.035, top + 0.004]], // prettier-ignore
        bounds: { x0: left - 0.006, y0: -0.028, x1: right, y1: level + 0.05 },
        bubbles,
      }
    }
    case 'sump': {
      const sock = find(list, 'pre-filter')
      const back: Point = pump ? pump.centre : [W * 0.85, H * 0.3]
      const top = H * 1.35
      const level = H * 0.66
      return {
        strokes: [
          stroke('tube', [sock ? sock.centre[0] : W * 0.1, top], [sock ? sock.centre[0] : W * 0.1, H * 0.92]),
          stroke('hose', [W * 0.95, back[1]], [W * 0.95, top]),
          stroke('level', [W * 0.01, level], [W * 0.99, level]),
          stroke('stand', [-0.02, top], [W + 0.02, top]),
        ],
        tankWater: rect(0.004, 0.004, W - 0.004, level),
        entries: [[[sock ? sock.centre[0] : W * 0.1, top]]],
        exit: [[W * 0.95, back[1]], [W * 0.95, top]], // prettier-ignore
        bounds: { x0: -0.02, y0: -0.012, x1: W + 0.02, y1: top + 0.012 },
      }
    }
  }
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
  const a = around(kind, W, H, list)
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
