import { lazy, Suspense } from 'react'
import { retryWhenBack } from '../../api/retryWhenBack'
import { Loading } from '../../frame/States'
import { HoldingScreen } from '../screens/HoldingScreen'
import { SetupWords } from '../setup'
import type { TrialView } from '../kind'

const HoldingChart = lazy(() => retryWhenBack(() => import('./HoldingChart')))

export const holding: TrialView = {
  title: 'Cups and clips',
  short: 'holding',
  how: 'Start with the weight on; stop when it lets go, or end the watch while it still holds.',
  caution: 'Keep hands clear of what may fall; do not test strength by standing on it.',
  series: () => [
    ['cups', 'Cups'],
    ['clips', 'Clips'],
    ['bracket', 'Bracket'],
  ],
  outcomes: [
    ['let-go', 'let go'],
    ['still', 'still held'],
  ],
  Screen: HoldingScreen,
  Setup: ({ trial }) => <SetupWords trial={trial} field="load" label="What hangs on it" />,
  Drawing: ({ dossier, readings }) =>
    readings.length > 0 && (
      <Suspense fallback={<Loading />}>
        <HoldingChart readings={readings} name={dossier.model.name} />
      </Suspense>
    ),
}
