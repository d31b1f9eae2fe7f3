import { PrimeScreen } from '../screens/PrimeScreen'
import { PRIME_WORDS } from './words'
import type { TrialView } from '../kind'

export const prime: TrialView = {
  title: 'Priming and restart',
  short: 'priming',
  how: 'Start at the switch; stop at full flow. Never run it dry.',
  caution: 'Never run it dry, never start a siphon by mouth; prime it as this model says.',
  value: { label: 'Amount', dimension: 'volume', unit: 'mL' },
  cells: (series) => [
    { field: 'seconds', label: 'Seconds', dimension: 'time' },
    ...(series === 'leak'
      ? [{ field: 'value', label: 'Water caught', dimension: 'volume', unit: 'mL' } as const]
      : []),
  ],
  series: () => Object.entries(PRIME_WORDS),
  outcomes: [
    ['yes', 'yes'],
    ['no', 'no'],
  ],
  Screen: PrimeScreen,
}
