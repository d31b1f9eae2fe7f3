import type { Dimension } from '@ypsometer/core/units'
import type { TrialKind } from '@ypsometer/core/bench'

/** How a kind of trial is called, what it asks for, and how its readings are taken. */
export interface KindWords {
  readonly title: string
  readonly short: string
  /** What the number typed is, where one is. */
  readonly value?: { readonly label: string; readonly dimension: Dimension; readonly unit?: string }
  readonly clock?: boolean
  readonly how: string
}

export const KINDS: Readonly<Record<TrialKind, KindWords>> = {
  vessel: {
    title: 'Flow, vessel and stopwatch',
    short: 'timed vessel',
    clock: true,
    how: 'Hold the outlet over a marked vessel; start as the water falls in, stop at the mark.',
  },
  weighed: {
    title: 'Flow, scale and stopwatch',
    short: 'weighed',
    value: { label: 'Scale gained', dimension: 'mass' },
    clock: true,
    how: 'Time the water into a vessel on a scale, then note what the scale gained.',
  },
  meter: {
    title: 'Flow, by meter',
    short: 'meter',
    value: { label: 'Pulses counted', dimension: 'ratio' },
    clock: true,
    how: 'Count the meter’s pulses for half a minute or more.',
  },
  read: {
    title: 'Flow, read off',
    short: 'read off',
    value: { label: 'Flow', dimension: 'flow' },
    how: 'A flow some instrument shows, or a point of somebody’s curve. Say whose in the note.',
  },
  'shut-off': {
    title: 'Height at which the flow stops',
    short: 'shut-off',
    value: { label: 'Height above the water', dimension: 'head' },
    how: 'Raise the outlet until the water just stands in it, and measure from the surface.',
  },
  'meter-check': {
    title: 'Check of the meter',
    short: 'meter check',
    value: { label: 'Pulses counted', dimension: 'ratio' },
    how: 'Let a known volume through and note the pulses; two or more checks give the meter’s factor.',
  },
  power: {
    title: 'Power',
    short: 'watts',
    value: { label: 'Watts', dimension: 'power' },
    how: 'Plug it through a power meter and let it settle for a minute.',
  },
  noise: {
    title: 'Noise',
    short: 'noise',
    value: { label: 'Level', dimension: 'sound' },
    how: 'Same spot, same distance: levels with the filter running and without.',
  },
  dye: {
    title: 'Dye',
    short: 'dye',
    clock: true,
    how: 'Start as the dye goes in at the intake; tap how strong the colour is at each point, 0 to 10. Aquarium-safe dye only, no animals in the tank.',
  },
  holding: {
    title: 'Cups and clips',
    short: 'holding',
    clock: true,
    how: 'Start with the weight on; stop when it lets go, or end the watch while it still holds.',
  },
  prime: {
    title: 'Priming and restart',
    short: 'priming',
    clock: true,
    how: 'Start at the switch; stop at full flow. Never run it dry.',
  },
  air: {
    title: 'Air against water',
    short: 'air-driven',
    value: { label: 'Air flow', dimension: 'flow', unit: 'L/min' },
    clock: true,
    how: 'Set the air, time the water it lifts into a vessel.',
  },
}

export const KIND_ORDER = Object.keys(KINDS) as readonly TrialKind[]

export const NOISE_WORDS = { with: 'With the filter', without: 'Without it' } as const
export const PRIME_WORDS = {
  prime: 'Priming',
  restart: 'Restart after a power cut',
  leak: 'Leak watch',
  air: 'Draws air',
  rattle: 'Rattle',
} as const
export const AIR_WORDS = {
  water: 'Water lifted',
  supplied: 'Air supplied',
  riser: 'Air up the riser',
} as const
export const SERIES_WORDS: Readonly<Record<string, string>> = { ...NOISE_WORDS, ...PRIME_WORDS, ...AIR_WORDS }

export const OUTCOME_WORDS: Readonly<Record<string, string>> = {
  'let-go': 'let go',
  still: 'still held',
  yes: 'yes',
  no: 'no',
}

/** Points watched in a dye trial unless others are named. */
export const DYE_POINTS = ['far corner', 'intake'] as const
