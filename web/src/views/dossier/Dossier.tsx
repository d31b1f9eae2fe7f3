import type { Dossier } from '@ypsometer/contract'
import type { Assessment } from '@ypsometer/core/judging'
import { STATIONS, stationsDone, type Station } from '@ypsometer/core/judging/stations'
import { Trash2 } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { Link, Navigate, NavLink, Outlet, useNavigate, useParams } from 'react-router'
import { useDossier, useStockClasses } from '../../api/queries'
import { removeRow } from '../../frame/removed'
import { Failed, Loading } from '../../frame/States'
import { DossierProvider } from '../../frame/dossier'
import { useAssessment } from '../../workers/useAssessment'
import { KIND_WORDS } from '../words'

export const ToFirstStation = () => <Navigate to="claims" replace />

/** A model's dossier: its name, the stations of the work along the top, and the station that is open. */
export function DossierView() {
  const { id = '' } = useParams()
  const { dossier, error, isPending, refetch } = useDossier(id)
  const stock = useStockClasses()
  const { assessment, failure } = useAssessment(dossier, stock.data)
  const navigate = useNavigate()
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this dossier" retry={() => void refetch()} />
    )
  const { model } = dossier
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
          <p className="muted">
            <Link to="/" className="hover:underline">
              Shelf
            </Link>{' '}
            / {model.maker} · {KIND_WORDS[model.kind]}
          </p>
          <h1>{model.name}</h1>
        </div>
        <div className="flex items-center gap-4">
          {assessment && assessment.progress.next.station !== 'verdict' && (
            <Link to={assessment.progress.next.station} className="btn btn-sm">
              Next: {assessment.progress.next.action}
            </Link>
          )}
          <IconButton
            label="Delete this model"
            icon={Trash2}
            onClick={() => {
              removeRow('models', model, `${model.maker} ${model.name}`)
              void navigate('/')
            }}
          />
        </div>
      </div>
      <StationRuler assessment={assessment} dossier={dossier} />
      {failure && (
        <p role="alert" className="text-error mt-3">
          The numbers could not be worked out: {failure}
        </p>
      )}
      <div className="mt-5">
        <DossierProvider dossier={dossier} assessment={assessment} stock={stock.data ?? []}>
          <Outlet />
        </DossierProvider>
      </div>
    </>
  )
}

const STATION_WORDS: Readonly<Record<Station, string>> = {
  claims: 'Claims',
  strip: 'Strip',
  inside: 'Inside',
  bench: 'Bench',
  fill: 'Fill',
  path: 'Path',
  tanks: 'Tanks',
  verdict: 'Verdict',
}

/** How far a station is; nothing while that is being worked out. */
const howFar = (done: number | null): string =>
  done === null ? '…' : done >= 1 ? 'done' : `${Math.round(done * 100)} %`

/** The stations of the work as a ruler, each filled as far as it is done. */
function StationRuler({
  assessment,
  dossier,
}: {
  readonly assessment: Assessment | null
  readonly dossier: Dossier
}) {
  const done = stationsDone(dossier, assessment)
  return (
    <nav aria-label="Stations" className="no-print mt-3 grid grid-cols-4 gap-y-1 sm:grid-cols-8">
      {STATIONS.map((station) => (
        <NavLink
          key={station}
          to={station}
          className={({ isActive }) => `group relative block pt-1 ${isActive ? 'font-bold' : ''}`}
        >
          {({ isActive }) => (
            <>
              <span className="flex items-baseline justify-between px-2">
                <span className={isActive ? '' : 'group-hover:underline'}>{STATION_WORDS[station]}</span>
                <span className="num muted text-[0.8rem] font-normal max-sm:sr-only">
                  {howFar(done[station])}
                </span>
              </span>
              <svg
                viewBox="0 0 100 12"
                preserveAspectRatio="none"
                className="mt-0.5 block h-3 w-full"
                aria-hidden="true"
              >
                <path
                  d="M0 12V0M10 12V8M20 12V8M30 12V8M40 12V8M50 12V5M60 12V8M70 12V8M80 12V8M90 12V8M100 12V0"
                  stroke="var(--color-secondary)"
                  strokeWidth="1"
                  vectorEffect="non-scaling-stroke"
                  fill="none"
                />
                <rect
                  x="0"
                  y="7"
                  width={(done[station] ?? 0) * 100}
                  height="5"
                  fill="var(--color-base-content)"
                />
              </svg>
              <span className={`block h-1 ${isActive ? 'bg-base-content' : 'bg-base-300'}`} />
            </>
          )}
        </NavLink>
      ))}
    </nav>
  )
}
