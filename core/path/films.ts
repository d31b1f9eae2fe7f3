import type { FilmLayer, Films } from '../biology'
import type { Medium } from '../media'
import { SINTERED_SURFACE, type PlacedLayer } from '../fills'

/** Media thrown away within so many days take their film with them (common practice, no source). */
const KEPT_DAYS = 120

/**
 * Does a medium’s surface carry a film that counts? Foam does, as what it is; a turning wheel will stop one day, and
 * what is swapped within four months takes its film along.
 */
export const filmCounts = (m: Pick<Medium, 'form' | 'lifeDays' | 'effectiveSurface'>): boolean =>
  m.effectiveSurface !== null && m.form !== 'contactor' && (m.lifeDays === null || m.lifeDays > KEPT_DAYS)

/** What of a fill worked through its films follow from: flows m³/s. */
interface Filled {
  readonly flow: number
  readonly layers: readonly {
    readonly placed: PlacedLayer
    readonly through: number
    readonly counts: boolean
  }[]
  readonly worth: { readonly calibration: number | null }
}

/**
 * The films of a fill as it lies: usable surface less what is fouled, each with the water that comes through its layer;
 * what goes round does not count. Weighed media count as weighed.
 */
export function filmsOf(o: Filled): Films {
  const layers = o.layers
    .filter((l) => filmCounts(l.placed.medium))
    .map((l): FilmLayer => ({
      area:
        l.placed.volume *
        (l.placed.medium.effectiveSurface ?? 0) *
        (1 - l.placed.layer.fouled) *
        (l.counts ? (o.worth.calibration ?? 1) : 1),
      flow: l.through,
    }))
  return { flow: o.flow, layers }
}

/** Films of good sintered media (kg) that meet a share of the water, where no fill is on record. */
export const filmsOfMass = (mass: number, flow: number, meets: number): Films => ({
  flow,
  layers: [{ area: mass * SINTERED_SURFACE, flow: flow * meets }],
})

/** Films at another flow than the one they were worked out at: each layer keeps its share of the water. */
export function filmsAt({ flow, layers }: Films, at: number): Films {
  const ratio = flow > 0 ? at / flow : 0
  return { flow: at, layers: layers.map((l) => ({ ...l, flow: l.flow * ratio })) }
}
