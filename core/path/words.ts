import type { Way } from '../volumes'

/** Name of a layer’s thickness, by the way the water runs. */
export const WAYS_WORDS: Readonly<Record<Way, string>> = {
  up: 'thickness, upwards',
  down: 'thickness, downwards',
  across: 'thickness, across',
  inward: 'thickness, inwards',
}
