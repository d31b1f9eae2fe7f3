import { fullWeight } from '@ypsometer/core/volumes/interior'
import { stripCautions } from '@ypsometer/core/teardown/cautions'
import { Timer, TriangleAlert } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { useDossierContext } from '../frame/dossier'
import { DossierCutaway } from '../cutaway/DossierCutaway'
import { ContentsSheet } from '../views/strip/ContentsSheet'
import { PartSheet } from '../views/strip/PartSheet'
import { PartTable } from '../views/strip/PartTable'
import { ReachSheet } from '../views/strip/ReachSheet'
import { SpecimenRecord } from '../views/strip/SpecimenRecord'
import { WrongWays } from '../views/strip/WrongWays'
import { Explained } from '../figures/Explained'

/**
 * The teardown record: the unit, what was in the box, every part in the order it came off, and how far things are to
 * reach.
 */
export default function Strip() {
  const { dossier } = useDossierContext()
  const [chosen, setChosen] = useState<string | null>(null)
  const parts = [...dossier.parts].sort((a, b) => a.position - b.position)
  const part = parts.find((p) => p.id === chosen) ?? parts[0]
  const body = dossier.bodies.at(-1)
  const mass = body
    ? (fullWeight(body, body.outerWidth * body.outerDepth * body.outerHeight * 0.7)?.mass ?? null)
    : null
  const cautions = stripCautions(dossier.model.kind, parts, mass)
  return (
    <div className="space-y-9">
      <ul className="border-warning border-l-4 pl-3" aria-label="Cautions">
        {cautions.map((c) => (
          <li key={c.id} className="flex gap-2 py-0.5">
            <TriangleAlert size={17} className="text-warning mt-1 shrink-0" aria-hidden="true" />
            <span>{c.text}</span>
          </li>
        ))}
      </ul>
      <section aria-labelledby="parts-title">
        <div className="flex flex-wrap items-end justify-between gap-3">
          <div>
            <h2 id="parts-title">Parts, in removal order</h2>
            <p className="muted">
              Drag a row by its handle, or move it with the keyboard: Space takes it, arrows move it, Space
              lets go.
            </p>
          </div>
          <Link to={`/models/${dossier.model.id}/strip/run`} className="btn btn-primary btn-sm">
            <Timer size={16} aria-hidden="true" /> {parts.length ? 'Continue teardown' : 'Start teardown'}
          </Link>
        </div>
        {parts.length === 0 ? (
          <p className="mt-2 max-w-2xl">
            No parts yet. Put the filter on a towel and press Start <Explained>teardown</Explained>. Tap the
            big button each time a part comes off. Add conditions, prices and photos later.
          </p>
        ) : (
          <div className="mt-2 grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
            <PartTable parts={parts} selected={part?.id ?? null} onSelect={setChosen} />
            {part && <PartSheet key={part.id} part={part} parts={parts} />}
          </div>
        )}
      </section>
      <div className="grid grid-cols-1 gap-x-10 gap-y-9 lg:grid-cols-2">
        <ReachSheet parts={parts} />
        {parts.length > 0 && <WrongWays parts={parts} />}
        <ContentsSheet />
        <SpecimenRecord />
        <DossierCutaway />
      </div>
    </div>
  )
}
