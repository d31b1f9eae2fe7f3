import { ClockScreen } from '../screens/ClockScreen'
import { SetupNumber, SetupWords } from '../setup'
import { AirLine } from './AirLine'
import { AIR_WORDS } from './words'
import type { TrialView } from '../kind'

const AIR = { field: 'value', label: 'Air flow', dimension: 'flow', unit: 'L/min' } as const

export const air: TrialView = {
  title: 'Air against water',
  short: 'air-driven',
  value: { label: AIR.label, dimension: AIR.dimension, unit: AIR.unit },
  clock: {
    live: ['air'],
    second: {
      instrument: 'air',
      min: 0,
      max: 0.1,
      alsoOf: 'supplied',
      take: (si) => `Use ${(si * 60000).toFixed(2)} L/min from the air meter`,
    },
    timed: 'water',
  },
  how: 'Set the air. Time the water it lifts into a vessel.',
  cells: (series) =>
    series === 'water'
      ? [
          { field: 'volume', label: 'Volume', dimension: 'volume' },
          { field: 'seconds', label: 'Seconds', dimension: 'time' },
          AIR,
        ]
      : [AIR],
  series: () => Object.entries(AIR_WORDS),
  Screen: ClockScreen,
  Setup: ({ trial }) => (
    <>
      <SetupNumber
        trial={trial}
        field="riserDiameter"
        label="Riser, inside"
        dimension="length"
        usual={0.018}
        unit="mm"
      />
      <SetupNumber
        trial={trial}
        field="submergence"
        label="Air enters below the water"
        dimension="length"
        usual={0.3}
      />
      <SetupWords trial={trial} field="stone" label="Stone or nozzle" />
    </>
  ),
  Below: AirLine,
}
