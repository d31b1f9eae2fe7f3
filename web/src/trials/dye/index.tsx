import { lazy, Suspense } from 'react'
import { retryWhenBack } from '../../api/retryWhenBack'
import { DyeChart } from '../../charts/DyeChart'
import type { Series } from '../../charts/SeriesChart'
import { Loading } from '../../frame/States'
import { DyeScreen } from '../screens/DyeScreen'
import { SetupNumber, SetupPoints, SetupWords } from '../setup'
import { DYE_POINTS } from './points'
import { role, TIME_OF_LOG } from '../../csv/target'
import type { TrialView } from '../kind'

const LogDye = lazy(() => retryWhenBack(() => import('./LogDye')))

export const dye: TrialView = {
  title: 'Dye',
  short: 'dye',
  how: 'Start as the dye goes in at the outlet, and watch it on its way back to the intake: tap how strong the colour is at each point, 0 to 10. Aquarium-safe dye only, no animals in the tank.',
  caution: 'Aquarium-safe dye only, and never with animals in the tank.',
  cells: () => [
    { field: 'seconds', label: 'Seconds', dimension: 'time' },
    { field: 'value', label: 'Strength', dimension: 'ratio' },
  ],
  series: (trial) =>
    (trial.setup.points?.length ? trial.setup.points : DYE_POINTS).map((p) => [p, p] as const),
  leads: '-coloured',
  Screen: DyeScreen,
  Setup: ({ trial }) => (
    <>
      <SetupPoints trial={trial} />
      <SetupNumber
        trial={trial}
        field="volume"
        label="Water it spreads in"
        dimension="volume"
        usual={0.1}
        hint="With the flow it gives the dead share."
      />
      <SetupWords trial={trial} field="unit" label="Unit of strength" hint="Empty for 0 to 10 by eye." />
    </>
  ),
  Drawing: ({ dossier, trial, readings, logs }) => {
    const draw = (series: readonly Series[]) => (
      <DyeChart trial={trial} readings={readings} logs={series} name={dossier.model.name} />
    )
    return logs.length ? (
      <Suspense fallback={<Loading />}>
        <LogDye logs={logs}>{draw}</LogDye>
      </Suspense>
    ) : (
      draw([])
    )
  },
  imports: [
    {
      id: 'dye',
      label: 'Dye against time, a column a point',
      roles: [
        TIME_OF_LOG,
        role('value', 'Strength at a point', 'ratio', '', /./, [0, 1e9], { required: true, many: true }),
      ],
    },
  ],
}
