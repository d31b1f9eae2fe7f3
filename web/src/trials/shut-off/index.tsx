import { ValueScreen } from '../screens/ValueScreen'
import type { TrialView } from '../kind'

export const shutOff: TrialView = {
  title: 'Maximum head',
  short: 'shut-off',
  value: { label: 'Height above the water', dimension: 'head' },
  how: 'Raise the outlet until the water just stands in it, and measure from the surface.',
  Screen: ValueScreen,
}
