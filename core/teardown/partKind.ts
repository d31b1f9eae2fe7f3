import type { FIXINGS, MATERIALS, Reach } from './vocabulary'

/** A part as it is usually met: its name and what follows from it. */
export interface PartKind {
  readonly name: string
  readonly checklist: string
  readonly material: (typeof MATERIALS)[number]
  readonly fixing: (typeof FIXINGS)[number]
  readonly reach?: Reach
  readonly job: string
}

/** A part by its name, job, checklist, material and fixing, and what reaching it opens up. */
export const part = (
  name: string,
  job: string,
  checklist: string,
  material: PartKind['material'],
  fixing: PartKind['fixing'],
  reach?: Reach,
): PartKind => ({
  name,
  job,
  checklist,
  material,
  fixing,
  ...(reach && { reach }),
})

/** The parts of a pump, from its cover down. */
export const PUMP_PARTS: readonly PartKind[] = [
  part('Impeller cover', 'holds the impeller in its well', 'general', 'hard plastic', 'quarter turn'),
  part('Impeller', 'moves the water', 'impeller', 'magnet', 'none', 'impeller'),
  part('Shaft', 'carries the impeller', 'shaft', 'ceramic', 'press'),
]
