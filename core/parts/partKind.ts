import type { FIXINGS, MATERIALS, Reach } from './vocabulary'

/** A part as it is usually met: its name and what follows from it. */
export interface PartKind {
  readonly name: string
  readonly checklist: string
  readonly material: (typeof MATERIALS)[number]
  readonly fixing: (typeof FIXINGS)[number]
  readonly reach?: Reach
  readonly job: string
  /** Names of the parts that must come off first; absent: all that come off before it. */
  readonly under?: readonly string[]
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

/**
 * The parts of a pump, from its cover down; `under` names what must come off to see the cover, and nothing else must.
 */
export const pumpParts = (...under: readonly string[]): readonly PartKind[] => [
  {
    ...part('Impeller cover', 'holds the impeller in its well', 'general', 'hard plastic', 'quarter turn'),
    under,
  },
  {
    ...part('Impeller', 'moves the water', 'impeller', 'magnet', 'none', 'impeller'),
    under: ['Impeller cover'],
  },
  { ...part('Shaft', 'holds the impeller', 'shaft', 'ceramic', 'press'), under: ['Impeller'] },
]

/** The ids of what must come off before a part of a kind, among the parts already logged; null for all of them. */
export const underneath = (
  kind: PartKind,
  logged: readonly { readonly id: string; readonly name: string }[],
): string[] | null =>
  kind.under ? logged.filter((p) => kind.under?.includes(p.name)).map((p) => p.id) : null
