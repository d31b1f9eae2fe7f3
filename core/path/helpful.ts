import { nameOf, put, type Figure } from '../figures'
import { hookupChanges, netStaticHead } from '../duty'
import type { Outcome } from './outcome'
import { flowOfCase } from './flow'

/** Effect of one change at a time: new flow and the difference (m³/s). */
export interface PathChange {
  readonly id: string
  readonly label: string
  readonly flow: number
  readonly change: number
  readonly figure: Figure
}

const line = (o: Outcome, id: string, label: string, flow: number): PathChange => ({
  id,
  label,
  flow,
  change: flow - o.flow,
  figure: {
    id: `path-change-${id}`,
    label,
    value: flow - o.flow,
    dimension: 'flow',
    provenance: 'computed',
    conditions: ['only this change'],
    formula: 'ΔQ = Q(changed) − Q(as it is)',
    working: [
      put('Q(changed)', 'calculated again', flow, 'flow', 'computed'),
      put('Q', 'as it is', o.flow, 'flow', 'computed'),
    ],
  },
})

/**
 * The list of what would help or hurt: each layer out, each gap closed, each dirty layer rinsed, and the hookup’s own
 * changes.
 */
export function pathSensitivity(o: Outcome): readonly PathChange[] {
  const { case: c } = o
  const out: PathChange[] = []
  const layersWith = (id: string, change: object) =>
    c.fill.layers.map((l) => (l.id === id ? { ...l, ...change } : l))
  const names = o.layers.map((l) => l.placed.medium.name)
  for (const { placed, chamber } of o.layers) {
    const { layer, medium } = placed
    const twice = names.filter((n) => n === medium.name).length > 1
    const name = twice ? `${medium.name} in ${nameOf(chamber.chamber.name)}` : medium.name
    const without = c.fill.layers.filter((l) => l.id !== layer.id)
    out.push(
      line(
        o,
        `without-${layer.id}`,
        `Without ${nameOf(name)}`,
        flowOfCase({ ...c, fill: { ...c.fill, layers: without } }),
      ),
    )
    if (layer.gap > 0)
      out.push(
        line(
          o,
          `closed-${layer.id}`,
          `Gap at ${nameOf(name)} closed`,
          flowOfCase({ ...c, fill: { ...c.fill, layers: layersWith(layer.id, { gap: 0 }) } }),
        ),
      )
    if (layer.fouled > 0)
      out.push(
        line(
          o,
          `rinsed-${layer.id}`,
          `${name} rinsed`,
          flowOfCase({ ...c, fill: { ...c.fill, layers: layersWith(layer.id, { fouled: 0 }) } }),
        ),
      )
    else
      out.push(
        line(
          o,
          `half-${layer.id}`,
          `${name} half full of dirt`,
          flowOfCase({ ...c, fill: { ...c.fill, layers: layersWith(layer.id, { fouled: 0.5 }) } }),
        ),
      )
  }
  const { hookup } = c
  if (hookup)
    for (const change of hookupChanges(hookup.segments, netStaticHead(hookup))) {
      const lifted = change.id === 'lift' ? { outletAboveWater: 0 } : {}
      out.push(
        line(
          o,
          change.id,
          change.label,
          flowOfCase({ ...c, hookup: { ...hookup, ...lifted, segments: change.segments } }),
        ),
      )
    }
  return out.sort((a, b) => Math.abs(b.change) - Math.abs(a.change))
}
