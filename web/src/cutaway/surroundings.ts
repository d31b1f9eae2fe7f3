import { FILTERS, type FilterKind } from '@ypsometer/core/kinds/filters'
import { find, rect, type Point, type Scene, type SceneChamber, type SceneStroke } from './shapes'

export interface Around {
  readonly strokes: readonly SceneStroke[]
  readonly tankWater: readonly Point[]
  /** One entry for each way in; all leave by the one exit. */
  readonly entries: readonly (readonly Point[])[]
  readonly exit: readonly Point[]
  readonly bounds: Scene['bounds']
  readonly bubbles?: readonly Point[]
}

const stroke = (what: SceneStroke['what'], ...points: Point[]): SceneStroke => ({ what, points })
/** W and H are the body's outside sizes. */
type Stand = (W: number, H: number, list: readonly SceneChamber[]) => Around

const canister: Stand = (W, H, list) => {
  const pump = find(list, 'pump-well')
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

const hangOnBack: Stand = (W, H, list) => {
  const pump = find(list, 'pump-well')
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

const inTheTank: Stand = (W, H, list) => {
  const pump = find(list, 'pump-well')
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

const airDriven: Stand = (W, H, list) => {
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

const sump: Stand = (W, H, list) => {
  const pump = find(list, 'pump-well')
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

/** Surroundings of a body of a kind, so that it is seen for what it is: by where it stands and what drives it. */
export function surroundingsOf(kind: FilterKind): Stand {
  const { stands, drivenBy } = FILTERS[kind]
  if (stands === 'inside') return drivenBy === 'air' ? airDriven : inTheTank
  return { outside: canister, rim: hangOnBack, beneath: sump }[stands]
}
