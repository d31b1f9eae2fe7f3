/** Symptoms that a filter is rung up about. */
export const SYMPTOMS = [
  'rattle',
  'leak',
  'no-restart',
  'weak-flow',
  'fine-bubbles',
  'cloudy',
  'grows-noisy',
  'other',
] as const
export type Symptom = (typeof SYMPTOMS)[number]

/** A symptom in words, and what to ask first. */
export const SYMPTOM_WORDS: Readonly<Record<Symptom, { readonly name: string; readonly asks: string }>> = {
  rattle: {
    name: 'It rattles',
    asks: 'From when on: since it was set up, since it was opened, or out of nothing?',
  },
  leak: {
    name: 'Leak',
    asks: 'Where is the highest wet place? Water shows below where it comes out.',
  },
  'no-restart': { name: 'Will not start', asks: 'How long did it stand still?' },
  'weak-flow': { name: 'Weak flow', asks: 'Weaker than it was, or weaker than the label?' },
  'fine-bubbles': { name: 'Fine bubbles in the tank', asks: 'All the time, or in bursts?' },
  cloudy: { name: 'Cloudy water', asks: 'White, green or full of bits; and since what was done?' },
  'grows-noisy': { name: 'Louder than it was', asks: 'A hum, a whine, a grinding or a gurgle?' },
  other: {
    name: 'Something else',
    asks: 'What was done to it last? Most faults start with the last thing someone changed.',
  },
}

/** Outcomes of a check. `found`: that is it; `cured`, `remains`: put right, and the trouble went or stayed. */
export const OUTCOMES = ['clear', 'unsure', 'found', 'cured', 'remains'] as const
export type CheckOutcome = (typeof OUTCOMES)[number]
/** Outcomes of a step of setting up: right, not right yet, or not for this one. */
export const STEP_STATES = ['done', 'refused', 'none'] as const
export type StepState = (typeof STEP_STATES)[number]

/** Ways from one filter to the next: beside the ripe one for weeks, its ripe media moved, or at once with a starter. */
export const CHANGE_WAYS = ['beside', 'moved', 'starter'] as const
export type ChangeWay = (typeof CHANGE_WAYS)[number]
