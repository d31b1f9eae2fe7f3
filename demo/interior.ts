import { templateChambers, usualBody } from '@ypsometer/core/kinds/templates'
import type { Chamber } from '@ypsometer/core/volumes/interior'
import { idOf } from './ids'
import type { Truth } from './truth'

/** Outside sizes (m) and empty weight (kg) of the bench units; others have their kind's usual body. */
const BODIES: Readonly<
  Record<string, readonly [width: number, depth: number, height: number, empty: number]>
> = {
  'Ledger 700': [0.16, 0.16, 0.36, 2.6],
  'Torrent 1400': [0.18, 0.18, 0.42, 2.9],
  'Plainbody 1000': [0.19, 0.19, 0.4, 2.5],
  'Terrace 1200': [0.21, 0.21, 0.43, 3.4],
  'Undercroft 90': [0.6, 0.3, 0.36, 12.5],
}
const EMPTY = {
  canister: 2.8,
  'hang-on-back': 0.9,
  internal: 0.6,
  'motor-sponge': 0.3,
  'air-sponge': 0.2,
  'air-box': 0.18,
  fluidised: 0.4,
  sump: 12,
} as const

/** Width, depth, height (m) and empty weight (kg) of a demo model's body. */
export const bodyOf = (t: Truth): readonly [number, number, number, number] => {
  const [w, d, h] = BODIES[t.name] ?? usualBody(t.kind)
  return [w, d, h, BODIES[t.name]?.[3] ?? EMPTY[t.kind]]
}

export const modelIdOf = (t: Truth): string => idOf(`${t.maker} ${t.name}`)

/** The interior as it was measured: the kind's chambers to this body. */
export function chambersOf(t: Truth): readonly Chamber[] {
  const [width, depth, height] = bodyOf(t)
  return templateChambers(t.kind, { width, depth, height }, (n) => n).map((c, i) => ({
    ...c,
    id: idOf(`${modelIdOf(t)}-chamber-${i}`),
    measured: true,
    // The Terrace's trays stand 2 mm off the wall on both long sides.
    ...(t.name === 'Terrace 1200' &&
      c.role === 'tray' &&
      c.solid.shape === 'box' && {
        solid: { ...c.solid, depth: Math.round((c.solid.depth - 0.004) * 1000) / 1000 },
        wallGap: 0.002,
      }),
    // The Gale's slot has a weir: water goes over it once the cartridge holds back 15 mm.
    ...(t.name === 'Gale HB' && c.role === 'cartridge-slot' && { overflowSill: 0.015 }),
  }))
}
