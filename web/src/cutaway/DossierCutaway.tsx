import { interiorOf } from '@ypsometer/contract/records'
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import { Cutaway } from './Cutaway'
import { useDossierContext } from '../frame/dossier'

/** The cutaway beside another station: the map of the filter; choosing a chamber opens it in Inside. */
export function DossierCutaway() {
  const { dossier } = useDossierContext()
  const navigate = useNavigate()
  const interior = useMemo(() => interiorOf(dossier), [dossier])
  if (!interior) return null
  return (
    <section aria-label="Section">
      <Cutaway
        kind={dossier.model.kind}
        name={dossier.model.name}
        body={interior.body}
        chambers={interior.chambers}
        onSelect={(id) => void navigate(`../inside?chamber=${id}`)}
      />
    </section>
  )
}
