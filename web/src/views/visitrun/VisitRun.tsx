import { keepText, keptText } from '../../api/room'
import type { Dossier, Visit } from '@ypsometer/contract'
import { ArrowLeft } from 'lucide-react'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useDossier } from '../../api/dossier'
import { useMedia } from '../../api/lists'
import { DossierProvider } from '../../frame/dossier'
import { KeptNote } from '../../frame/KeptNote'
import { Failed, Loading } from '../../frame/States'
import { Toasts } from '../../frame/Toasts'
import { useAwake } from '../../trials/screens/useAwake'
import { STEPS } from './steps'
import { Heading } from '../../frame/Heading'

/** A visit in the bench posture: one thing a screen, each can be skipped, all of it kept as it comes. */
export function VisitRun() {
  const { id = '', visitId = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this check-up" retry={() => void refetch()} />
    )
  const visit = dossier.visits.find((v) => v.id === visitId)
  if (!visit) return <Failed error={new Error('this check-up does not exist')} what="this check-up" />
  return (
    <DossierProvider dossier={dossier}>
      <Walk key={visitId} dossier={dossier} visit={visit} />
    </DossierProvider>
  )
}

const keyOf = (id: string): string => `ypsometer.visit.${id}`
const readStep = (id: string): number =>
  Math.min(STEPS.length - 1, Math.max(0, Number(keptText(keyOf(id))) || 0))

function Walk({ dossier, visit }: { readonly dossier: Dossier; readonly visit: Visit }) {
  const [at, setAt] = useState(() => readStep(visit.id))
  const { media = [] } = useMedia()
  useAwake()
  const go = (to: number): void => {
    setAt(to)
    keepText(keyOf(visit.id), String(to))
  }
  const step = STEPS[at]
  if (!step) return null
  const done = step.done(visit)
  const back = `/models/${dossier.model.id}/visits${visit.tankId ? `?tank=${visit.tankId}` : ''}`
  return (
    <div className="flex h-dvh flex-col">
      <header className="rule-b flex items-center gap-3 px-3 py-1.5">
        <Link to={back} className="btn btn-ghost h-14 w-14 p-0" aria-label="Back to Long-term">
          <ArrowLeft aria-hidden="true" />
        </Link>
        <div className="min-w-0 flex-1 leading-tight">
          <Heading className="truncate text-[1.15rem]">
            {`${visit.stage === 'set-up' ? 'Setting up' : 'Check-up of'} ${dossier.model.name}`}
          </Heading>
          <KeptNote />
        </div>
        <span className="num muted whitespace-nowrap" aria-live="polite">
          {at + 1} of {STEPS.length}
        </span>
      </header>
      <div className="flex gap-0.5 px-3 pt-2" aria-hidden="true">
        {STEPS.map((s, i) => (
          <span
            key={s.id}
            className={`h-1.5 flex-1 ${i === at ? 'bg-primary' : s.done(visit) ? 'bg-base-content' : 'bg-base-300'}`}
          />
        ))}
      </div>
      <main className="min-h-0 flex-1 overflow-y-auto px-4 py-3 sm:mx-auto sm:w-full sm:max-w-3xl">
        <h2 className="text-[1.35rem]">{step.title}</h2>
        <p className="muted mb-4 text-[1.02rem]">{step.why}</p>
        <step.Screen dossier={dossier} visit={visit} media={media} />
      </main>
      <Toasts />
      <nav aria-label="Steps" className="grid grid-cols-[1fr_2fr] gap-2 p-3">
        <button
          type="button"
          className="btn h-16 text-[1.1rem]"
          disabled={at === 0}
          onClick={() => go(at - 1)}
        >
          Back
        </button>
        {at < STEPS.length - 1 ? (
          <button type="button" className="btn btn-primary h-16 text-[1.2rem]" onClick={() => go(at + 1)}>
            {done ? 'Next' : 'Skip'}
          </button>
        ) : (
          <Link to={back} className="btn btn-primary h-16 text-[1.2rem]">
            Done
          </Link>
        )}
      </nav>
    </div>
  )
}
