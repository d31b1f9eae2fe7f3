import type { ClaimQuantity as CoreQuantity, Inside, ModelRecord } from '@ypsometer/core/trials/records'
import { CLAIM_QUANTITIES } from '@ypsometer/core/trials/records'
import {
  floorArea,
  tankExtent,
  tankVolume,
  type TankShape,
  type TankVolume,
} from '@ypsometer/core/tanks/volume'
import { tankFigures } from '@ypsometer/core/tanks/figures'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { FittingModel } from '@ypsometer/core/judging/fitting'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import type { Figure } from '@ypsometer/core/figures/figure'
import { SOLID_FIELDS, type Solid } from '@ypsometer/core/volumes/solids'
import type { BodyRecord, Chamber as CoreChamber } from '@ypsometer/core/volumes/interior'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { PathRecord } from '@ypsometer/core/path/fromModel'
import type { Medium } from './fills'
import type { Dossier } from './dossier'
import type { Trial } from './models'
import type { Body, Chamber } from './teardown'
import type { Tank } from './tanks'

const isNumeric = (q: string): q is CoreQuantity => (CLAIM_QUANTITIES as readonly string[]).includes(q)

/** How a trial was timed, as the core takes it. */
export const timingMethod = (t: Pick<Trial, 'vesselUncertainty' | 'clockResolution' | 'reaction'>) => ({
  vessel: t.vesselUncertainty,
  resolution: t.clockResolution,
  reaction: t.reaction,
})

/** Biological media of the unit as it came: the newest specimen's that has them, or null. */
export function mediaMassOf(d: Pick<Dossier, 'specimens'>): ModelRecord['mediaMass'] {
  const known = d.specimens.findLast((s) => s.mediaMass !== null)
  return known?.mediaMass == null ? null : { mass: known.mediaMass, weighed: known.mediaMassBy === 'scale' }
}

/** The inside of a dossier with what may be filled in; null while no body or no library is at hand. */
function insideOf(d: Dossier, media: readonly Medium[] | undefined): Inside | null {
  const interior = interiorOf(d)
  if (!interior || !media) return null
  return {
    ...interior,
    media,
    fills: d.fills,
    fillOfTrial: Object.fromEntries(d.trials.map((t) => [t.id, t.fillId])),
  }
}

/**
 * A dossier as the core reads it: claims as numbers, trials with their runs in the order taken, and what is inside
 * where the library of media is given.
 */
export function modelRecord(d: Dossier, media?: readonly Medium[]): ModelRecord {
  return {
    kind: d.model.kind,
    mainsFrequency: d.model.mainsFrequency,
    claims: d.claims.flatMap((c) =>
      isNumeric(c.quantity) && c.value !== null
        ? [
            {
              quantity: c.quantity,
              value: c.value,
              mainsFrequency: c.mainsFrequency,
              where: c.printedOn,
              qualifier: c.qualifier,
            },
          ]
        : [],
    ),
    // The one it stands on comes first: that is the one everything is judged on.
    hookups: standingFirst(d).map(({ fitted: { outlets, inlet }, ...h }) => ({ ...h, outlets, inlet })),
    trials: d.trials.map((t) => ({
      id: t.id,
      kind: t.kind,
      setup: t.setup,
      outReason: t.outReason,
      daysInUse: t.daysInUse,
      note: t.note,
      logs: d.logs.filter((l) => l.trialId === t.id),
      state: t.state,
      hookupId: t.hookupId,
      lift: t.lift,
      waterTemperature: t.waterTemperature,
      salinity: t.salinity,
      valve: t.valve,
      mainsFrequency: t.mainsFrequency,
      method: timingMethod(t),
      runs: d.readings.filter((r) => r.trialId === t.id).sort((a, b) => a.takenAt.localeCompare(b.takenAt)),
      when: t.createdAt,
    })),
    mediaMass: mediaMassOf(d),
    inside: insideOf(d, media),
    parts: d.parts,
  }
}

/** A tank without what only a stored row has. */
type TankSizes = Omit<Tank, 'id' | 'version' | 'createdAt' | 'updatedAt' | 'deletedAt'>

/** The shape of a tank row, with only the lengths that shape has. */
export function tankShape(t: TankSizes): TankShape {
  switch (t.shape) {
    case 'box':
      return { shape: 'box', length: t.length, width: t.width, height: t.height }
    case 'cylinder':
      return { shape: 'cylinder', diameter: t.diameter, height: t.height }
    case 'bow-front':
      return { shape: 'bow-front', length: t.length, width: t.width, bowWidth: t.bowWidth, height: t.height }
    case 'corner':
      return { shape: 'corner', side: t.side, endPanel: t.endPanel, front: t.front, height: t.height }
  }
}

/** Volumes of a tank row. @throws OutOfRange naming the column that does not fit. */
export const tankWater = (t: TankSizes): TankVolume =>
  tankVolume(tankShape(t), {
    waterLevel: t.waterLevel,
    substrateDepth: t.substrateDepth,
    substratePorosity: t.substratePorosity,
    decorVolume: t.decorVolume,
  })

/** A tank as judging reads it. @throws OutOfRange naming the column that does not fit. */
export function tankRecord(t: Tank, stock: StockClass): TankRecord {
  const { waterTemperature, ...rest } = t
  return {
    ...rest,
    ...tankExtent(tankShape(t)),
    temperature: waterTemperature,
    stock,
    water: tankFigures(tankWater(t), t.height, t).water,
    surface: floorArea(tankShape(t)),
  }
}

/** Sizes of a dossier that have to fit a tank; null while its body is not measured. */
export function fittingModel(d: Dossier, fullMass: Figure | null, water: Figure | null): FittingModel | null {
  const body = d.bodies.at(-1)
  if (!body) return null
  const hookup = mainHookup(d)
  return {
    kind: d.model.kind,
    outerWidth: body.outerWidth,
    outerDepth: body.outerDepth,
    outerHeight: body.outerHeight,
    heightWithHoses: body.heightWithHoses,
    overhang: body.overhang,
    hookOpening: body.hookOpening,
    intakeReach: body.intakeReach,
    fullMass,
    water,
    hoses: hookup?.segments ?? [],
    parts: d.parts,
    heater: hookup?.fitted.heater ?? null,
  }
}

/** A chamber without what only a stored row has. */
type MeasuredChamber = Omit<Chamber, 'version' | 'createdAt' | 'updatedAt' | 'deletedAt' | 'modelId'>

/** The solid of a chamber row, with only the lengths its shape has. */
export const chamberSolid = (c: MeasuredChamber): Solid =>
  ({ shape: c.shape, ...Object.fromEntries(SOLID_FIELDS[c.shape].map((f) => [f, c[f]])) }) as Solid

/** A chamber row as the core takes it. */
export const chamberRecord = (c: MeasuredChamber): CoreChamber => ({
  id: c.id,
  name: c.name,
  role: c.role,
  solid: chamberSolid(c),
  x: c.x,
  y: c.y,
  usableHeight: c.usableHeight,
  rim: c.rim,
  displaced: c.displaced,
  use: c.use,
  measured: c.measured,
  way: c.way,
  beside: c.beside,
  overflowSill: c.overflowSill,
  wallGap: c.wallGap,
})

/** A core chamber as the columns of a row, for templates. */
export const chamberColumns = (c: CoreChamber) => ({
  name: c.name,
  role: c.role,
  ...c.solid,
  x: c.x,
  y: c.y,
  usableHeight: c.usableHeight,
  rim: c.rim ?? null,
  displaced: c.displaced ?? null,
  way: c.way ?? null,
  beside: c.beside ?? null,
  overflowSill: c.overflowSill ?? null,
  wallGap: c.wallGap ?? null,
  use: c.use,
  measured: c.measured,
})

/** The interior of a dossier in flow order; null while no body is recorded. */
export function interiorOf(
  d: Pick<Dossier, 'bodies' | 'chambers'>,
): { readonly body: BodyRecord; readonly chambers: readonly CoreChamber[] } | null {
  const body: Body | undefined = d.bodies.at(-1)
  if (!body) return null
  return { body, chambers: [...d.chambers].sort((a, b) => a.position - b.position).map(chamberRecord) }
}

/** Record of a dossier for its path; null while no body is recorded. */
export function pathRecord(
  d: Dossier,
  media: readonly Medium[],
  assessment: Pick<Assessment, 'pump' | 'trials'>,
  hookupId: string | null,
): PathRecord | null {
  const model = modelRecord(d, media)
  if (!model.inside) return null
  const hookup = d.hookups.find((h) => h.id === hookupId) ?? mainHookup(d)
  return {
    model,
    assessment,
    ...model.inside,
    hookupId: hookup?.id ?? null,
    second: hookup?.fitted.second ?? null,
  }
}

/** The hookup a model stands on: the one it was last timed on with something in it, else the first. */
export function mainHookup(d: Pick<Dossier, 'trials' | 'hookups'>): Dossier['hookups'][number] | undefined {
  const timed = d.trials.findLast((t) => t.state !== 'empty' && d.hookups.some((h) => h.id === t.hookupId))
  return d.hookups.find((h) => h.id === timed?.hookupId) ?? d.hookups[0]
}

/** The same by its id. */
export const usualHookup = (d: Dossier): string | null => mainHookup(d)?.id ?? null

/** Its hookups, the one it stands on first. */
function standingFirst(d: Dossier): Dossier['hookups'] {
  const main = mainHookup(d)
  return main ? [main, ...d.hookups.filter((h) => h !== main)] : d.hookups
}
