import type { Every } from './recurrence'

/** Work that comes again, in the order it is named. */
export const TASKS = [
  'prefilter',
  'open',
  'impeller',
  'fine',
  'pads',
  'sponge',
  'carbon',
  'resin',
  'nitrate',
  'lamp',
  'rings',
] as const
export type Task = (typeof TASKS)[number]

/** In what a house rinses. */
export const RINSE_SCHOOLS = ['tank-water', 'dechlorinated', 'tap-prefilter'] as const
export type RinseSchool = (typeof RINSE_SCHOOLS)[number]

/** A task of upkeep. `every`: days, or whole months; common practice, no source, unless it is said. */
export interface TaskKind {
  readonly label: string
  readonly every: Every
  /** Does it touch the film that the tank lives by? */
  readonly biological: boolean
  /** How it is done, with what to take care of. */
  readonly how: string
}

/**
 * Pre-filter weekly; the body every 3 to 6 weeks; impeller every two months; fine pad 1 to 3 months; coarse and medium
 * pads 12 to 18 months or when limp; carbon 7 to 8 weeks; resin by look; nitrate media within 6 months; a lamp once a
 * year; O-rings every two years. Common practice, no source. Sintered media are never renewed.
 */
export const TASK_KINDS: Readonly<Record<Task, TaskKind>> = {
  prefilter: { label: 'Rinse the pre-filter', every: { days: 7 }, biological: false, how: 'Three minutes.' },
  open: {
    label: 'Open filter, rinse mechanical media',
    every: { days: 32 },
    biological: false,
    how: 'Unplug it and the heater first; both taps shut; two people for a full large body.',
  },
  impeller: {
    label: 'Clean impeller and housing',
    every: { months: 2 },
    biological: false,
    how: 'Unplug it first. Magnet, shaft and well wiped; nothing forced.',
  },
  fine: {
    label: 'Replace fine pad',
    every: { days: 60 },
    biological: false,
    how: 'Sooner when it is grey through.',
  },
  pads: {
    label: 'Replace coarse and medium pads when worn',
    every: { months: 15 },
    biological: true,
    how: 'Half of them on one day.',
  },
  sponge: {
    label: 'Squeeze half of the sponge',
    every: { days: 21 },
    biological: true,
    how: 'Half on one day: bacteria live in it. Unplug the pump first where there is one.',
  },
  carbon: {
    label: 'Carbon: a new bag',
    every: { days: 53 },
    biological: false,
    how: 'Used up after 7 to 8 weeks.',
  },
  resin: {
    label: 'Resin: look at it',
    every: { days: 30 },
    biological: false,
    how: 'New or recharged by its colour.',
  },
  nitrate: {
    label: 'Nitrate media: new',
    every: { months: 6 },
    biological: false,
    how: 'Within six months.',
  },
  lamp: {
    label: 'UV-C lamp: a new one',
    every: { months: 12 },
    biological: false,
    how: 'Unplug it; never look at a lit lamp; a cracked sleeve puts mains voltage beside water.',
  },
  rings: {
    label: 'Check and grease O-rings',
    every: { months: 24 },
    biological: false,
    how: 'Plug out, taps shut.',
  },
}

/** How a house keeps its filters. */
export interface UpkeepRule {
  /** By the calendar, or when the flow has fallen by a share. */
  readonly by: 'date' | 'flow'
  /** That share: nothing in the trade fixes it, this one is ours. */
  readonly fall: number
  readonly rinse: RinseSchool
  /** Days after setting up at which a house looks again. */
  readonly visits: readonly number[]
  /** Days between, where a house has its own. */
  readonly every: Readonly<Partial<Record<Task, number>>>
}

export const UPKEEP_RULE: UpkeepRule = {
  by: 'date',
  fall: 0.3,
  rinse: 'tank-water',
  visits: [1, 2, 14, 30, 90, 180, 365, 730],
  every: {},
}

const WATERS = {
  'tank-water': 'in tank water',
  dechlorinated: 'in dechlorinated tap water',
  tap: 'in tap water: nothing lives in it that counts',
} as const

/** In what a task is done by a school of rinsing; null where nothing is rinsed. */
export function waterOf(task: Task, school: RinseSchool): string | null {
  if (['fine', 'carbon', 'resin', 'nitrate', 'lamp', 'rings'].includes(task)) return null
  if (school === 'tap-prefilter') return task === 'prefilter' ? WATERS.tap : WATERS['tank-water']
  return WATERS[school]
}
