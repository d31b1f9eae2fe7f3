/** Goals that reaching a part opens up; null for parts that are only on the way. */
export const REACHES = ['pre-filter', 'pad', 'media', 'impeller'] as const
export type Reach = (typeof REACHES)[number]

export const MATERIALS = ['hard plastic', 'soft plastic', 'rubber', 'silicone', 'ceramic', 'steel 304', 'steel 316', 'other steel', 'glass', 'foam', 'fibre', 'sintered', 'magnet', 'other'] as const // prettier-ignore
export const FIXINGS = ['none', 'clip', 'quarter turn', 'screw', 'press', 'thread', 'suction cup'] as const

/** Ways a filter is primed; the model says which. */
export const PRIMINGS = ['fill', 'button', 'levers'] as const
export type Priming = (typeof PRIMINGS)[number]

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

/** Checks before it runs again. Common practice, no source. */
export const REASSEMBLY: readonly (readonly [id: string, label: string])[] = [
  ['seated', 'Every part seated straight, seal in its groove'],
  ['latches', 'Latches closed in opposite pairs'],
  ['leftover', 'Nothing left over on the towel'],
]

/** Findings of a part that are not well, by its checklist, in words. */
export function faultsOf(part: {
  readonly checklist: string
  readonly findings: readonly string[]
}): string[] {
  const known = CHECKLISTS.find((l) => l.id === part.checklist)?.findings ?? []
  return part.findings.flatMap((id) => known.filter((f) => f.id === id && !f.good).map((f) => f.label))
}
