import { CoreError } from '../errors'
import {
  sectionWidths,
  solidVolume,
  TAPE_AND_SCALE,
  volumeUncertainty,
  type MeasuringTools,
  type Solid,
} from './solids'

/** Roles of a chamber. */
export const CHAMBER_ROLES = [
  'pre-filter',
  'tray',
  'cartridge-slot',
  'compartment',
  'pump-well',
  'centre-pipe',
  'side-channel',
  'settling-void',
  'head-space',
  'lip',
] as const
export type ChamberRole = (typeof CHAMBER_ROLES)[number]

/** Ways water may run through a chamber. */
export const WAYS = ['up', 'down', 'across', 'inward'] as const
export type Way = (typeof WAYS)[number]

/** The names a litre may have; each has exactly one. */
export const LITRE_NAMES = [
  'biological',
  'mechanical',
  'chemical',
  'void',
  'channel',
  'machinery',
  'wasted',
] as const
export type LitreName = (typeof LITRE_NAMES)[number]

/** Usual name of a role’s litres, unless the reviewer says otherwise. */
export const USUAL_NAME: Readonly<Record<ChamberRole, LitreName>> = {
  'pre-filter': 'mechanical',
  tray: 'biological',
  'cartridge-slot': 'mechanical',
  compartment: 'biological',
  'pump-well': 'machinery',
  'centre-pipe': 'channel',
  'side-channel': 'channel',
  'settling-void': 'void',
  'head-space': 'wasted',
  lip: 'channel',
}

/**
 * A chamber: its solid, where its lower left corner stands in the body's section (m), and how high it may be filled.
 */
export interface Chamber {
  readonly id: string
  readonly name: string
  readonly role: ChamberRole
  readonly solid: Solid
  readonly x: number
  readonly y: number
  /** Height that may be filled (m); null when all of it may. */
  readonly usableHeight: number | null
  /** Height of the rim above the chamber's own floor (m); null when the walls go up to its full height. */
  readonly rim?: number | null
  /** Volume of what stands in the chamber for good (m³), by the water it displaced; its litres are machinery. */
  readonly displaced?: number | null
  readonly use: LitreName
  /** False while its sizes are the template's: drawn dashed, and said. */
  readonly measured: boolean
  /** Which way the water runs through it; null or absent: as is usual for its kind. */
  readonly way?: Way | null
  /** True when it stands beside the chamber before it, so that the water parts between them; null: as is usual. */
  readonly beside?: boolean | null
  /** Head (m) above which water spills past it: a cartridge's weir, a relief flap. Null when it cannot. */
  readonly overflowSill?: number | null
  /** Gap between the chamber and the wall it stands in, on two sides (m). */
  readonly wallGap?: number | null
}

/** The body from outside and what was weighed, SI; null for what is not measured. */
export interface BodyRecord {
  readonly outerWidth: number
  readonly outerDepth: number
  readonly outerHeight: number
  /** Water held by the whole body (m³), by weight or vessel. */
  readonly waterFill: number | null
  readonly emptyMass: number | null
  readonly fullMass: number | null
}

/** A body of which nothing is measured: for what asks of the inside only its chambers, or nothing. */
export const UNMEASURED_BODY: BodyRecord = {
  outerWidth: 1,
  outerDepth: 1,
  outerHeight: 1,
  waterFill: null,
  emptyMass: null,
  fullMass: null,
}

/** A chamber with its litres named. */
export interface NamedChamber {
  readonly chamber: Chamber
  readonly volume: number
  readonly uncertainty: number
  readonly usable: number
  readonly lost: number
}

/** The interior, every litre named once: `byName` sums to `gross`. Volumes in m³, u standard. */
export interface VolumeAudit {
  readonly chambers: readonly NamedChamber[]
  readonly gross: number
  readonly uncertainty: number
  readonly byName: Readonly<Record<LitreName, number>>
  /** Litres that hold or could at once hold media: biological, mechanical and chemical. */
  readonly usableMedia: number
  readonly wastedShare: number
  /** Volume that water fills: all but what stands in the chambers for good (m³). */
  readonly water: number
  /** (water the chambers hold − water fill)/water fill, when a fill was measured; `closes` within 1 %. */
  readonly closure: {
    readonly waterFill: number
    readonly difference: number
    readonly closes: boolean
  } | null
  readonly outsideBulk: number
  readonly usablePerBulk: number
}

/** How high a chamber may be filled (m): to what is said of it, and never above its rim. */
export const fillableHeight = ({ solid, rim, usableHeight }: Chamber): number =>
  Math.max(0, Math.min(usableHeight ?? solid.height, rim ?? solid.height, solid.height))

/** Sum and water fill must agree within this share. */
export const CLOSURE_LIMIT = 0.01

/**
 * Names every litre once. A chamber's usable part carries its use; what lies above its usable height could hold media
 * and does not, so it is wasted; what stands in it for good, by the water it displaced, is machinery. Chambers are
 * taken as measured apart, so their uncertainties add in quadrature.
 * @throws OutOfRange naming `chambers[i].field` for a solid that cannot be.
 */
export function volumeAudit(
  chambers: readonly Chamber[],
  body: BodyRecord,
  tools: MeasuringTools = TAPE_AND_SCALE,
): VolumeAudit {
  const byName = Object.fromEntries(LITRE_NAMES.map((n) => [n, 0])) as Record<LitreName, number>
  let displaced = 0
  const named = chambers.map((chamber): NamedChamber => {
    const volume = solidVolume(chamber.solid)
    const share = fillableHeight(chamber) / chamber.solid.height
    const taken = Math.min(volume, Math.max(0, chamber.displaced ?? 0))
    displaced += taken
    const free = volume - taken
    const usable = free * share
    byName[chamber.use] += usable
    byName.wasted += free - usable
    byName.machinery += taken
    return {
      chamber,
      volume,
      uncertainty: volumeUncertainty(chamber.solid, tools),
      usable,
      lost: free - usable,
    }
  })
  const gross = named.reduce((sum, n) => sum + n.volume, 0)
  const usableMedia = byName.biological + byName.mechanical + byName.chemical
  const bulk = body.outerWidth * body.outerDepth * body.outerHeight
  const water = gross - displaced
  const difference = body.waterFill ? water / body.waterFill - 1 : 0
  return {
    chambers: named,
    gross,
    water,
    uncertainty: Math.hypot(...named.map((n) => n.uncertainty)),
    byName,
    usableMedia,
    wastedShare: gross > 0 ? byName.wasted / gross : 0,
    closure: body.waterFill
      ? { waterFill: body.waterFill, difference, closes: Math.abs(difference) <= CLOSURE_LIMIT }
      : null,
    outsideBulk: bulk,
    usablePerBulk: bulk > 0 ? usableMedia / bulk : 0,
  }
}

/** Something about the interior that cannot be so, at the chamber and field where it shows. */
export interface InteriorProblem {
  readonly chamberId: string
  readonly field: string
  readonly message: string
}

const mm = (v: number): string => `${Math.round(v * 1000)} mm`
const SLACK = 0.0005

/** Chambers that may share section area with others: water runs through or around them. */
const PASSES: readonly ChamberRole[] = ['centre-pipe', 'side-channel', 'lip']

/**
 * Misfits of an interior: a solid that cannot be, a chamber past its body, chambers that overlap, a usable height
 * above the rim.
 */
export function interiorProblems(chambers: readonly Chamber[], body: BodyRecord): readonly InteriorProblem[] {
  const out: InteriorProblem[] = []
  const say = (chamberId: string, field: string, message: string): void =>
    void out.push({ chamberId, field, message })
  for (const c of chambers) {
    try {
      solidVolume(c.solid)
    } catch (error) {
      if (error instanceof CoreError) say(c.id, error.field, error.message)
      continue
    }
    if ((c.displaced ?? 0) > solidVolume(c.solid))
      say(
        c.id,
        'displaced',
        `${c.name} has more displaced in it than it holds (${(solidVolume(c.solid) * 1000).toFixed(2)} L).`,
      )
    const wide = Math.max(sectionWidths(c.solid).foot, sectionWidths(c.solid).top)
    const rim = c.rim ?? c.solid.height
    if (rim > c.solid.height + SLACK)
      say(c.id, 'rim', `${c.name} has its rim at ${mm(rim)}, above its own height of ${mm(c.solid.height)}.`)
    if (c.usableHeight !== null && c.usableHeight > rim + SLACK)
      say(
        c.id,
        'usableHeight',
        `${c.name} may be filled to ${mm(c.usableHeight)}, above its rim at ${mm(rim)}: the stack would rattle and water would bypass it.`,
      )
    if (c.x < -SLACK || c.x + wide > body.outerWidth + SLACK)
      say(
        c.id,
        'width',
        `${c.name} reaches from ${mm(c.x)} to ${mm(c.x + wide)} across, and the body is ${mm(body.outerWidth)} wide.`,
      )
    if (c.y < -SLACK || c.y + c.solid.height > body.outerHeight + SLACK)
      say(
        c.id,
        'height',
        `${c.name} reaches from ${mm(c.y)} to ${mm(c.y + c.solid.height)} up, and the body is ${mm(body.outerHeight)} high.`,
      )
  }
  chambers.forEach((a, i) =>
    chambers.slice(i + 1).forEach((b) => {
      if (PASSES.includes(a.role) || PASSES.includes(b.role)) return
      const x = overlap(a.x, a.x + sectionWidths(a.solid).foot, b.x, b.x + sectionWidths(b.solid).foot)
      const y = overlap(a.y, a.y + a.solid.height, b.y, b.y + b.solid.height)
      if (x > SLACK * 2 && y > SLACK * 2)
        say(
          b.id,
          'y',
          `${b.name} overlaps ${a.name} by ${mm(y)} of height: one of them is measured or placed wrong.`,
        )
    }),
  )
  return out
}

const overlap = (a0: number, a1: number, b0: number, b1: number): number =>
  Math.min(a1, b1) - Math.max(a0, b0)

/** A lift this heavy (kg) gets its caution. Common practice, no source. */
export const HEAVY = 20

/**
 * Weight ready to run (kg): as weighed, or empty plus the water it holds; media in it weigh more than the water they
 * replace.
 */
export function fullWeight(
  body: BodyRecord,
  gross: number,
): { readonly mass: number; readonly weighed: boolean } | null {
  if (body.fullMass !== null) return { mass: body.fullMass, weighed: true }
  return body.emptyMass === null
    ? null
    : { mass: body.emptyMass + (body.waterFill ?? gross) * 998, weighed: false }
}
