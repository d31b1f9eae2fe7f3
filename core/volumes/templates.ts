import type { FilterKind } from '../kinds'
import { USUAL_NAME, type Chamber, type ChamberRole, type LitreName } from './interior'

/** Usual outside sizes of each kind (m): width, depth, height. Common practice, no source. */
export const USUAL_BODY: Readonly<Record<FilterKind, readonly [number, number, number]>> = {
  canister: [0.21, 0.21, 0.42],
  'hang-on-back': [0.2, 0.11, 0.2],
  internal: [0.09, 0.1, 0.32],
  'motor-sponge': [0.08, 0.08, 0.2],
  'air-sponge': [0.16, 0.1, 0.2],
  'air-box': [0.11, 0.1, 0.12],
  fluidised: [0.12, 0.1, 0.3],
  sump: [0.7, 0.35, 0.38],
}

type Part = readonly [
  name: string,
  role: ChamberRole,
  x: number,
  y: number,
  w: number,
  h: number,
  usable?: number | undefined,
  use?: LitreName,
]

/** Chambers in flow order as shares of the body's inside: x, y (from the lower left), width, height, usable share. */
const LAYOUT: Readonly<Record<FilterKind, readonly Part[]>> = {
  canister: [
    ['Side channel', 'side-channel', 0, 0.03, 0.09, 0.75],
    ['Settling space', 'settling-void', 0.1, 0.02, 0.86, 0.1],
    ['Lower tray', 'tray', 0.11, 0.13, 0.85, 0.2, 0.92, 'mechanical'],
    ['Middle tray', 'tray', 0.11, 0.34, 0.85, 0.2, 0.92],
    ['Upper tray', 'tray', 0.11, 0.55, 0.85, 0.2, 0.92],
    ['Head space', 'head-space', 0.11, 0.76, 0.85, 0.05],
    ['Pump head', 'pump-well', 0.28, 0.83, 0.46, 0.14],
  ],
  'hang-on-back': [
    ['Pump well', 'pump-well', 0.02, 0.08, 0.26, 0.72],
    ['Cartridge slot', 'cartridge-slot', 0.3, 0.08, 0.16, 0.7, 0.95],
    ['Media basket', 'compartment', 0.48, 0.08, 0.3, 0.7, 0.9],
    ['Lip', 'lip', 0.8, 0.66, 0.18, 0.14],
  ],
  internal: [
    ['Coarse compartment', 'compartment', 0.06, 0.04, 0.88, 0.24, 0.96, 'mechanical'],
    ['Middle compartment', 'compartment', 0.06, 0.29, 0.88, 0.24, 0.96],
    ['Upper compartment', 'compartment', 0.06, 0.54, 0.88, 0.16, 0.96, 'chemical'],
    ['Pump', 'pump-well', 0.2, 0.72, 0.6, 0.24],
  ],
  'motor-sponge': [
    ['Sponge', 'pre-filter', 0.05, 0.02, 0.9, 0.58],
    ['Pump', 'pump-well', 0.2, 0.63, 0.6, 0.34],
  ],
  'air-sponge': [
    ['Left sponge', 'pre-filter', 0.02, 0.1, 0.36, 0.38, undefined, 'biological'],
    ['Right sponge', 'pre-filter', 0.62, 0.1, 0.36, 0.38, undefined, 'biological'],
    ['Riser', 'centre-pipe', 0.45, 0.14, 0.1, 0.84],
  ],
  'air-box': [
    ['Floss', 'compartment', 0.06, 0.44, 0.88, 0.28, undefined, 'mechanical'],
    ['Gravel', 'compartment', 0.06, 0.06, 0.88, 0.36],
    ['Riser', 'centre-pipe', 0.42, 0.08, 0.16, 0.9],
  ],
  fluidised: [
    ['Moving media', 'compartment', 0.08, 0.08, 0.84, 0.6],
    ['Room to turn', 'settling-void', 0.08, 0.69, 0.84, 0.24],
    ['Riser', 'centre-pipe', 0.44, 0.1, 0.12, 0.84],
  ],
  sump: [
    ['Sock', 'pre-filter', 0.02, 0.3, 0.16, 0.6],
    ['Media chamber', 'compartment', 0.2, 0.06, 0.42, 0.62, 0.9],
    ['Baffles', 'side-channel', 0.63, 0.06, 0.06, 0.62],
    ['Return chamber', 'pump-well', 0.71, 0.06, 0.27, 0.62],
  ],
}

/** Wall thickness assumed (m). */
const WALL = 0.004

/**
 * A sensible interior to start from: chambers of the kind scaled to the outside sizes (m), 4 mm walls, none measured yet.
 * `idOf` gives each its id. Common practice, no source.
 */
export function templateChambers(
  kind: FilterKind,
  outer: { readonly width: number; readonly depth: number; readonly height: number },
  idOf: (name: string) => string,
): readonly Chamber[] {
  const inner = {
    width: outer.width - 2 * WALL,
    depth: outer.depth - 2 * WALL,
    height: outer.height - 2 * WALL,
  }
  const mm = (v: number): number => Math.round(v * 1000) / 1000
  return LAYOUT[kind].map(([name, role, x, y, w, h, usable, use]) => {
    const pipe = role === 'centre-pipe'
    const height = mm(h * inner.height)
    return {
      id: idOf(name),
      name,
      role,
      solid: pipe
        ? { shape: 'cylinder', diameter: mm(w * inner.width), height }
        : {
            shape: 'box',
            width: mm(w * inner.width),
            depth: mm(inner.depth * (role === 'side-channel' ? 0.5 : 1)),
            height,
          },
      x: mm(WALL + x * inner.width),
      y: mm(WALL + y * inner.height),
      usableHeight: usable === undefined ? null : mm(usable * h * inner.height),
      use: use ?? USUAL_NAME[role],
      measured: false,
    }
  })
}
