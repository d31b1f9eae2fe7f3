import type { Fill } from '@ypsometer/contract'
import type { FillLayer, PlacedChamber, PlacedLayer } from '@ypsometer/core/fills/place'
import type { Medium } from '@ypsometer/core/media/medium'
import { useEffect, useRef } from 'react'
import { changeRow } from '../api/rows'

/** Writes a fill’s layers as a whole. */
export const writeLayers = (fill: Fill, layers: readonly FillLayer[]): void =>
  changeRow('fills', fill, { layers })

/** A layer of a medium as it comes: a pad one sheet thick, anything else what is left of the chamber. */
export function newLayer(chamber: PlacedChamber, medium: Medium): FillLayer {
  const room = Math.max(0.005, Math.floor(chamber.free * 1000) / 1000)
  return {
    id: `l${crypto.randomUUID().slice(0, 8)}`,
    chamberId: chamber.chamber.id,
    mediumId: medium.id,
    measure: 'height',
    amount: medium.sheetThickness ?? room,
    bagged: false,
    gap: 0,
    crossed: true,
    sealed: false,
    fouled: 0,
  }
}

/** The same layer with its amount given another way. */
export function measuredAs(l: PlacedLayer, measure: FillLayer['measure']): FillLayer {
  const amount = {
    height: l.thickness,
    volume: l.volume,
    mass: l.mass,
    packs:
      l.medium.sheetThickness !== null
        ? Math.max(1, Math.round(l.thickness / l.medium.sheetThickness))
        : Math.max(1, Math.round(l.packs ?? 1)),
  }[measure]
  return { ...l.layer, measure, amount: Number(amount.toPrecision(6)) }
}

/** The fill as it stands when something is done later, such as an undo. */
export function useNewest(fill: Fill): { readonly current: Fill } {
  const newest = useRef(fill)
  useEffect(() => {
    newest.current = fill
  })
  return newest
}
