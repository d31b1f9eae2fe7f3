import { FILTERS, type FilterKind } from './filters'
import { USUAL_NAME, type Chamber } from '../volumes/interior'

/** Usual outside sizes of a kind (m): width, depth, height. Common practice, no source. */
export const usualBody = (kind: FilterKind): readonly [number, number, number] => FILTERS[kind].body

/** Wall thickness assumed (m). */
const WALL = 0.004

/**
 * A sensible interior to start from: chambers of the kind scaled to the outside sizes (m), 4 mm walls, none measured
 * yet. `idOf` gives each its id. Common practice, no source.
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
  return FILTERS[kind].chambers.map(({ name, role, at: [x, y], size: [w, h], usable, use }) => {
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
