import { FILTERS } from '../kinds'
import { isFillable, type FillLayer, type PlacedChamber, type PlacedLayer } from '../fills'
import { isStraining, type Medium } from '../media'
import { topologyOf, type PathCase } from '../path'
import type { School } from '../path/rules'
import type { IntakeLayer } from './waterways'

/** A coarse sponge as it is pulled over an intake strainer (common practice, no source): 30 mm of foam, 200 cm². */
const SPONGE = { thickness: 0.03, area: 0.02 } as const
const COARSE_PORES = 15

/** The coarsest foam of the media, as an intake sponge; null where there is none. */
export function usualSponge(media: readonly Medium[]): IntakeLayer | null {
  const medium = media
    .filter((m) => m.form === 'foam' && m.poresPerInch !== null && m.poresPerInch <= COARSE_PORES)
    .sort((a, b) => (a.poresPerInch ?? 0) - (b.poresPerInch ?? 0))[0]
  return medium ? { ...SPONGE, medium, inTank: true } : null
}

/** A filter and what stands ahead of it. */
export interface Arrangement {
  readonly path: PathCase
  readonly intake: readonly IntakeLayer[]
}

const STAGES = {
  'strain-first': ['coarse', 'medium', 'fine', 'biological', 'chemical'],
  'polish-last': ['coarse', 'medium', 'biological', 'chemical', 'fine'],
  'prefilter-low': ['coarse', 'medium', 'fine', 'biological', 'chemical'],
} as const satisfies Readonly<Record<School, readonly Medium['job'][]>>

/** May media be laid here in another order? Not under the trays, and not where water comes from all round. */
const isRoom = (p: PlacedChamber): boolean =>
  isFillable(p.chamber) && p.chamber.role !== 'settling-void' && p.way !== 'inward'

/**
 * The same media in a school’s order: laid one on another through the chambers as the water comes, by volume. The third
 * school strains in a pre-filter ahead of the body, as wide as its widest chamber, and has the media alone inside.
 */
export function bySchool(a: Arrangement, school: School): Arrangement {
  const { path } = a
  if (FILTERS[path.kind].mediaMove) return a
  const room = topologyOf(path).chambers.filter(isRoom)
  const all = room.flatMap((c) => c.layers)
  const outside = school === 'prefilter-low'
  const stages: readonly string[] = STAGES[school]
  const inside = all
    .filter((l) => !outside || !isStraining(l.medium))
    .sort((x, y) => stages.indexOf(x.medium.job) - stages.indexOf(y.medium.job))
  const kept = path.fill.layers.filter((l) => !room.some((c) => c.chamber.id === l.chamberId))
  const layers = [...kept, ...pack(room, inside)]
  const area = Math.max(0, ...room.map((c) => c.area))
  const strained = all
    .filter((l) => isStraining(l.medium))
    .sort((x, y) => stages.indexOf(x.medium.job) - stages.indexOf(y.medium.job))
  return {
    path: { ...path, fill: { ...path.fill, layers } },
    intake:
      outside && area > 0
        ? strained.map((l) => ({ medium: l.medium, thickness: l.volume / area, area, inTank: false }))
        : a.intake,
  }
}

/** Layers filled into chambers one after another; what does not fit into one goes on in the next. */
function pack(room: readonly PlacedChamber[], layers: readonly PlacedLayer[]): readonly FillLayer[] {
  const left = room.map((r) => r.usable)
  const out: FillLayer[] = []
  let at = 0
  for (const l of layers) {
    let volume = l.volume
    for (let part = 0; volume > 1e-9 && at < room.length; part++) {
      const last = at === room.length - 1
      // What is more than there is room for stays in the last: it was so before.
      const put = last ? volume : Math.min(volume, left[at] as number)
      if (put > 1e-9)
        out.push({
          ...l.layer,
          id: part === 0 ? l.layer.id : `${l.layer.id}/${part}`,
          chamberId: (room[at] as PlacedChamber).chamber.id,
          measure: 'volume',
          amount: put,
        })
      left[at] = (left[at] as number) - put
      volume -= put
      if (volume > 1e-9 || (left[at] as number) < 1e-9) at = Math.min(at + 1, room.length - 1)
      if (last) break
    }
  }
  return out
}

/** Without a pre-filter: nothing ahead of the body, and its pre-filter chambers empty. */
export const withoutPrefilter = ({ path }: Arrangement): Arrangement => {
  const pre = path.chambers.filter((c) => c.role === 'pre-filter').map((c) => c.id)
  const layers = path.fill.layers.filter((l) => !pre.includes(l.chamberId))
  // What is nothing but pre-filter, as a sponge on a motor, stays as it is.
  return { path: layers.length ? { ...path, fill: { ...path.fill, layers } } : path, intake: [] }
}

/** Has it one, in its body or ahead of it? */
export const hasPrefilter = ({ path, intake }: Arrangement): boolean =>
  intake.length > 0 ||
  path.fill.layers.some((l) => path.chambers.find((c) => c.id === l.chamberId)?.role === 'pre-filter')

/** With one: as it is, or with Pre-filter sponge on the intake. */
export const withPrefilter = (a: Arrangement): Arrangement => {
  const sponge = hasPrefilter(a) ? null : usualSponge(a.path.media)
  return sponge ? { ...a, intake: [sponge] } : a
}
