/** Particle classes by size (m), coarsest first: what a sieve of each mesh would hold back. */
export const PARTICLE_CLASSES = [
  { id: 'pieces', label: 'over 1 mm', from: 1e-3, to: 4e-3 },
  { id: 'coarse', label: '250 µm to 1 mm', from: 2.5e-4, to: 1e-3 },
  { id: 'medium', label: '100 to 250 µm', from: 1e-4, to: 2.5e-4 },
  { id: 'fine', label: '20 to 100 µm', from: 2e-5, to: 1e-4 },
  { id: 'haze', label: 'under 20 µm', from: 2e-6, to: 2e-5 },
] as const
export type ParticleClass = (typeof PARTICLE_CLASSES)[number]
export const CLASSES = PARTICLE_CLASSES.length

/** Size that stands for a class: the geometric mean of its ends (m). */
export const classSize = ({ from, to }: Pick<ParticleClass, 'from' | 'to'>): number => Math.sqrt(from * to)

/** Share of a class, spread evenly over the logarithm of size, that is larger than an opening (m). */
export const classShareAbove = ({ from, to }: Pick<ParticleClass, 'from' | 'to'>, opening: number): number =>
  Math.min(1, Math.max(0, Math.log(to / opening) / Math.log(to / from)))

/**
 * Mass shares of the particle classes, by who is fed. Small fish leave fine dirt, messy ones lumps.
 * Common practice, no source.
 */
const SHARES = {
  small: [0.15, 0.25, 0.2, 0.22, 0.18],
  usual: [0.3, 0.25, 0.15, 0.16, 0.14],
  messy: [0.45, 0.25, 0.12, 0.1, 0.08],
} as const
const OF_CLASS: Readonly<Record<string, keyof typeof SHARES>> = {
  delicate: 'small',
  light: 'small',
  heavy: 'messy',
  turtle: 'messy',
  'turtle-current': 'messy',
  'turtle-hatchling': 'messy',
}
export const sharesOf = (stock: { readonly code: string | null }): readonly number[] =>
  SHARES[OF_CLASS[stock.code ?? ''] ?? 'usual']
