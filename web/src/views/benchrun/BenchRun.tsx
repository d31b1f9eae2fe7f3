import { useParams } from 'react-router'
import { useDossier } from '../../api/dossier'
import { KINDS } from '../../trials'
import { TrialViewContext } from '../../trials/view'
import { Failed, Loading } from '../../frame/States'
import { DossierProvider } from '../../frame/dossier'

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
  const view = KINDS[trial.kind]
  return (
    <DossierProvider dossier={dossier}>
      <TrialViewContext value={view}>
        <view.Screen key={trial.id} dossier={dossier} trial={trial} readings={readings} />
      </TrialViewContext>
    </DossierProvider>
  )
}
