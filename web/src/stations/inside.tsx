import { interiorOf } from '@ypsometer/contract/records'
import { interiorProblems } from '@ypsometer/core/volumes/interior'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { Cutaway } from '../cutaway/Cutaway'
import { useDossierContext } from '../frame/dossier'
import { BodySheet, StartBody } from '../views/inside/BodySheet'
import { ChamberList } from '../views/inside/ChamberList'
import { ChamberSheet } from '../views/inside/ChamberSheet'
import { VolumeSheet } from '../views/inside/VolumeSheet'

/** The measured interior: section drawing and sheet side by side, every litre with a name. */
export default function Inside() {
  const { dossier } = useDossierContext()
  const interior = useMemo(() => interiorOf(dossier), [dossier])
  const [params, setParams] = useSearchParams()
  const chosen = params.get('chamber')
  const setChosen = (id: string): void =>
    setParams({ chamber: id }, { replace: true, preventScrollReset: true })
  const problems = useMemo(
    () => (interior ? interiorProblems(interior.chambers, interior.body) : []),
    [interior],
  )
  const body = dossier.bodies.at(-1)
  if (!interior || !body) return <StartBody />
  const selected = interior.chambers.find((c) => c.id === chosen)?.id ?? interior.chambers[0]?.id ?? null
  const row = dossier.chambers.find((c) => c.id === selected)
  return (
    <div className="grid gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1.05fr)_minmax(0,1fr)]">
      <div className="lg:sticky lg:top-4 lg:self-start">
        <Cutaway
          kind={dossier.model.kind}
          name={dossier.model.name}
          body={interior.body}
          chambers={interior.chambers}
          problems={problems}
          selected={selected}
          onSelect={setChosen}
        />
        {problems.length > 0 && (
          <ul className="border-error mt-3 border-l-4 pl-3" aria-label="What does not fit">
            {problems.map((p) => (
              <li key={`${p.chamberId}-${p.field}-${p.message}`} className="text-error py-0.5">
                <button
                  type="button"
                  className="cursor-pointer text-left underline decoration-dotted underline-offset-3"
                  onClick={() => setChosen(p.chamberId)}
                >
                  {p.message}
                </button>
              </li>
            ))}
          </ul>
        )}
      </div>
      <div className="space-y-9">
        <ChamberList chambers={dossier.chambers} selected={selected} onSelect={setChosen} />
        {row && (
          <ChamberSheet
            key={row.id}
            chamber={row}
            problems={problems.filter((p) => p.chamberId === row.id)}
          />
        )}
        {interior.chambers.length > 0 && <VolumeSheet />}
        <BodySheet body={body} />
      </div>
    </div>
  )
}
