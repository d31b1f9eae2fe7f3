import type { Priming } from '@ypsometer/core/parts/vocabulary'

export const PRIME_WORDS = {
  prime: 'Priming',
  restart: 'Restart after a power cut',
  leak: 'Leak watch',
  air: 'Draws air',
  rattle: 'Rattle',
} as const

/** How a model is primed; it says which. */
export const PRIMING_WORDS: Readonly<Record<Priming, string>> = {
  fill: 'filled three quarters, then switched on',
  button: 'dry, by its own button',
  levers: 'emptied of air by its levers',
}
