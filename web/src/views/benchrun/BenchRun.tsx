import type { Trial } from '@ypsometer/contract'
import { useParams } from 'react-router'
import { useDossier } from '../../api/queries'
import { Failed, Loading } from '../../frame/States'
import { DossierProvider } from '../dossier/Dossier'
import { ClockScreen } from './ClockScreen'
import { DyeScreen } from './DyeScreen'
import { HoldingScreen } from './HoldingScreen'
import { PrimeScreen } from './PrimeScreen'
import type { ScreenProps } from './screen'
import { ValueScreen } from './ValueScreen'

const SCREENS: Readonly<Record<Trial['kind'], (p: ScreenProps) => React.ReactNode>> = {
  vessel: ClockScreen,
  weighed: ClockScreen,
  meter: ClockScreen,
  air: ClockScreen,
  read: ValueScreen,
  'shut-off': ValueScreen,
  'meter-check': ValueScreen,
  power: ValueScreen,
  noise: ValueScreen,
  dye: DyeScreen,
  holding: HoldingScreen,
  prime: PrimeScreen,
}

/** The bench posture: one thing per screen, a target as large as a hand, readings kept as they come. */
export function BenchRun() {
  const { id = '', trialId = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  const trial = dossier?.trials.find((t) => t.id === trialId)
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this bench" retry={() => void refetch()} />
    )
  if (!trial) return <Failed error={new Error('this trial is not in the dossier')} what="this trial" />
  const readings = dossier.readings
    .filter((r) => r.trialId === trialId)
    .sort((a, b) => a.takenAt.localeCompare(b.takenAt))
  const Screen = SCREENS[trial.kind]
  return (
    <DossierProvider dossier={dossier}>
      <Screen key={trial.id} dossier={dossier} trial={trial} readings={readings} />
    </DossierProvider>
  )
}
