import type { FilterKind } from '../kinds'

/** What reaching a part opens up; null for parts that are only on the way. */
export const REACHES = ['pre-filter', 'pad', 'media', 'impeller'] as const
export type Reach = (typeof REACHES)[number]

export const MATERIALS = ['hard plastic', 'soft plastic', 'rubber', 'silicone', 'ceramic', 'steel 304', 'steel 316', 'other steel', 'glass', 'foam', 'fibre', 'sintered', 'magnet', 'other'] as const // prettier-ignore
export const FIXINGS = ['none', 'clip', 'quarter turn', 'screw', 'press', 'thread', 'suction cup'] as const

/** Checks fitted to a kind of part: each finding with whether it is well. */
export interface Checklist {
  readonly id: string
  readonly label: string
  readonly findings: readonly { readonly id: string; readonly label: string; readonly good?: boolean }[]
}

const well = (id: string, label = id) => ({ id, label, good: true })
const ill = (id: string, label = id) => ({ id, label })

export const CHECKLISTS: readonly Checklist[] = [
  {
    id: 'o-ring',
    label: 'O-ring or seal',
    findings: [well('supple'), ill('dry'), ill('flat', 'pressed flat'), ill('cracked')],
  },
  {
    id: 'impeller',
    label: 'Impeller',
    findings: [well('clean'), ill('scoring', 'magnet scored'), ill('play'), ill('debris'), ill('chipped')],
  },
  { id: 'shaft', label: 'Shaft', findings: [well('smooth'), ill('worn'), ill('cracked'), ill('rust')] },
  { id: 'clip', label: 'Clip or latch', findings: [well('snaps'), ill('loose'), ill('whitened')] },
  {
    id: 'quartz',
    label: 'Quartz sleeve',
    findings: [well('clear'), ill('clouded'), ill('cracked', 'cracked: do not power it')],
  },
  { id: 'hose-joint', label: 'Hose joint', findings: [well('tight'), ill('slips'), ill('weeps')] },
  { id: 'lid', label: 'Lid', findings: [well('fits'), ill('rattles'), ill('lifts', 'lets water past')] },
  { id: 'feet', label: 'Feet', findings: [well('firm'), ill('hard', 'hard, hum'), ill('missing')] },
  {
    id: 'pad',
    label: 'Pad or sponge',
    findings: [well('springy'), ill('thin'), ill('torn'), ill('clogged')],
  },
  {
    id: 'general',
    label: 'Condition',
    findings: [well('sound'), ill('scratched'), ill('cracked'), ill('warped'), ill('soft')],
  },
]

/** A part as it is usually met: its name and what follows from it. */
export interface PartKind {
  readonly name: string
  readonly checklist: string
  readonly material: (typeof MATERIALS)[number]
  readonly fixing: (typeof FIXINGS)[number]
  readonly reach?: Reach
  readonly job: string
}

const part = (name: string, job: string, checklist: string, material: PartKind['material'], fixing: PartKind['fixing'], reach?: Reach): PartKind => ({
  name, job, checklist, material, fixing, ...(reach && { reach }),
}) // prettier-ignore

const PUMP: readonly PartKind[] = [
  part('Impeller cover', 'holds the impeller in its well', 'general', 'hard plastic', 'quarter turn'),
  part('Impeller', 'moves the water', 'impeller', 'magnet', 'none', 'impeller'),
  part('Shaft', 'carries the impeller', 'shaft', 'ceramic', 'press'),
]

/** Parts in the order they usually come off, by kind. Common practice, no source. */
export const PART_KINDS: Readonly<Record<FilterKind, readonly PartKind[]>> = {
  canister: [
    part('Quick-release taps', 'close the hoses', 'hose-joint', 'hard plastic', 'clip'),
    part('Hoses', 'lead water in and out', 'hose-joint', 'soft plastic', 'press'),
    part('Latch', 'holds the head down', 'clip', 'hard plastic', 'clip'),
    part('Pump head', 'motor and lid in one', 'lid', 'hard plastic', 'clip'),
    part('Main O-ring', 'seals head and body', 'o-ring', 'rubber', 'none'),
    part('Pre-filter basket', 'catches the coarse first', 'general', 'hard plastic', 'none', 'pre-filter'),
    part('Fine pad', 'catches the fine', 'pad', 'fibre', 'none', 'pad'),
    part('Coarse pad', 'catches the coarse', 'pad', 'foam', 'none', 'pad'),
    part('Upper tray', 'holds media', 'general', 'hard plastic', 'none'),
    part('Middle tray', 'holds media', 'general', 'hard plastic', 'none'),
    part('Lower tray', 'holds media', 'general', 'hard plastic', 'none'),
    part('Biological media', 'surface for bacteria', 'general', 'sintered', 'none', 'media'),
    part('Spray bar', 'spreads the return', 'general', 'hard plastic', 'press'),
    part('Intake strainer', 'keeps fish out', 'general', 'hard plastic', 'press'),
    ...PUMP,
    part('Feet', 'damp the hum', 'feet', 'rubber', 'press'),
  ],
  'hang-on-back': [
    part('Lid', 'keeps splash in', 'lid', 'hard plastic', 'none'),
    part('Cartridge', 'pad with carbon inside', 'pad', 'fibre', 'none', 'pad'),
    part('Media basket', 'holds media', 'general', 'hard plastic', 'none', 'media'),
    part('Lift tube', 'brings water up', 'hose-joint', 'hard plastic', 'press'),
    part('Intake strainer', 'keeps fish out', 'general', 'hard plastic', 'press', 'pre-filter'),
    ...PUMP,
  ],
  internal: [
    part('Suction cups', 'hold it to the glass', 'clip', 'rubber', 'suction cup'),
    part('Outlet nozzle', 'aims the return', 'general', 'hard plastic', 'press'),
    part('Lower compartment', 'takes the coarse sponge', 'clip', 'hard plastic', 'clip'),
    part('Coarse sponge', 'catches the coarse', 'pad', 'foam', 'none', 'pre-filter'),
    part('Media compartment', 'holds media', 'clip', 'hard plastic', 'clip', 'media'),
    part('Carbon pad', 'takes up dyes', 'pad', 'fibre', 'none', 'pad'),
    ...PUMP,
  ],
  'motor-sponge': [
    part('Suction cups', 'hold it to the glass', 'clip', 'rubber', 'suction cup'),
    part('Sponge', 'strains and carries bacteria', 'pad', 'foam', 'press', 'pre-filter'),
    part('Outlet nozzle', 'aims the return', 'general', 'hard plastic', 'press'),
    ...PUMP,
  ],
  'air-sponge': [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Elbow', 'lets the air into the riser', 'hose-joint', 'hard plastic', 'press'),
    part('Sponge', 'strains and carries bacteria', 'pad', 'foam', 'press', 'media'),
    part('Riser', 'lifts the water', 'general', 'hard plastic', 'press'),
    part('Weight', 'keeps it down', 'general', 'ceramic', 'none'),
  ],
  'air-box': [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Lid', 'keeps the floss in', 'lid', 'hard plastic', 'clip'),
    part('Floss', 'catches the fine', 'pad', 'fibre', 'none', 'pad'),
    part('Gravel', 'weight and surface', 'general', 'other', 'none', 'media'),
    part('Riser', 'lifts the water', 'general', 'hard plastic', 'press'),
  ],
  fluidised: [
    part('Air line', 'brings the air', 'hose-joint', 'silicone', 'press'),
    part('Lid', 'keeps the media in', 'lid', 'hard plastic', 'clip'),
    part('Moving media', 'surface for bacteria', 'general', 'soft plastic', 'none', 'media'),
    part('Stone', 'breaks up the air', 'general', 'ceramic', 'press'),
  ],
  sump: [
    part('Sock', 'catches the coarse', 'pad', 'fibre', 'none', 'pre-filter'),
    part('Media rack', 'holds media', 'general', 'hard plastic', 'none', 'media'),
    part('Baffles', 'hold the levels', 'general', 'glass', 'none'),
    part('Union', 'parts the return', 'hose-joint', 'hard plastic', 'thread'),
    part('Return pump', 'lifts the water', 'general', 'hard plastic', 'none'),
    ...PUMP,
  ],
}

/** What is known of a part by its name, or a general part. */
export const partKind = (kind: FilterKind, name: string): PartKind =>
  PART_KINDS[kind].find((p) => p.name.toLowerCase() === name.trim().toLowerCase()) ??
  part(name, '', 'general', 'hard plastic', 'none')

/** Checks before it runs again. Common practice, no source. */
export const REASSEMBLY: readonly (readonly [id: string, label: string])[] = [
  ['seated', 'Every part seated straight, seal in its groove'],
  ['latches', 'Latches closed in opposite pairs'],
  ['leftover', 'Nothing left over on the towel'],
]
