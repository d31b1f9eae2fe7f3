import type { FillLayer } from './place'

/** A place for a layer: a chamber, and where among the layers there. */
export interface LayerPlace {
  readonly chamberId: string
  readonly index: number
}

/** The layers with one of them put in another place. */
export function moveLayer(layers: readonly FillLayer[], id: string, to: LayerPlace): readonly FillLayer[] {
  const held = layers.find((l) => l.id === id)
  if (!held) return layers
  const others = layers.filter((l) => l.id !== id)
  const there = others.filter((l) => l.chamberId === to.chamberId)
  const next = there[to.index]
  const last = there.at(-1)
  const at = next ? others.indexOf(next) : last ? others.indexOf(last) + 1 : others.length
  return [...others.slice(0, at), { ...held, chamberId: to.chamberId }, ...others.slice(at)]
}
