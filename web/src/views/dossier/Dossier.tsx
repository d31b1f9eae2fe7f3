import type { Dossier } from '@ypsometer/contract'
import type { Assessment } from '@ypsometer/core/judging/assess'
import { STATION, STATIONS, stationsDone, type Station } from '@ypsometer/core/judging/stations'
import { History as HistoryIcon, Trash2 } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { lazy, Suspense, useEffect, useRef, useState, type RefObject } from 'react'
import { Link, Navigate, NavLink, Outlet, useLocation, useNavigate, useParams } from 'react-router'
import { retryWhenBack } from '../../api/retryWhenBack'
import { useDossier } from '../../api/dossier'
import { useLabelBias } from '../../api/shelf'
import { useMedia, useJudgedClasses } from '../../api/lists'
import { removeRow } from '../../frame/removed'
import { Rehearsal } from '../../frame/warmViews'
import { savesData } from '../../frame/savesData'
import { Present } from '../../frame/Present'
import { Failed, Loading } from '../../frame/States'
import { DossierProvider } from '../../frame/dossier'
import { useAssessment } from '../../workers/useAssessment'
import { KIND_WORDS } from '../../words'
import { toGap, useArrival } from '../../frame/nextStep'
import { Heading } from '../../frame/Heading'

export const ToFirstStation = () => <Navigate to="claims" replace />

/** Has an element gone off the top of the window? `there` says when it is on the page to be watched. */
function useAway(of: RefObject<Element | null>, there: boolean): boolean {
  const [away, setAway] = useState(false)
  useEffect(() => {
    const el = of.current
    if (!el || typeof IntersectionObserver === 'undefined') return
    const watch = new IntersectionObserver(([e]) =>
      setAway(e !== undefined && !e.isIntersecting && e.boundingClientRect.top < 0),
    )
    watch.observe(el)
    return () => watch.disconnect()
  }, [of, there])
  return away
}

const Ahead = lazy(() => retryWhenBack(() => import('../../fillPath/ahead')))
/** A station is looked at for so long before anything is done for the next (ms). */
const REST = 1500
/** Has this station been open for a while? Once it was, the next that it leads to goes on with what was begun. */
function useRested(station: string): boolean {
  const [rested, setRested] = useState(false)
  useEffect(() => {
    if (savesData()) return undefined
    const timer = setTimeout(() => setRested(true), REST)
    return () => clearTimeout(timer)
  }, [station])
  return rested
}

/** A model's dossier: its name, the stations of the work along the top, and the station that is open. */
export function DossierView() {
  const { id = '' } = useParams()
  const { dossier, worked, error, isPending, refetch } = useDossier(id)
  const { stock, isPending: stockPending } = useJudgedClasses(dossier?.model.houseRuleId ?? null)
  const library = useMedia()
  const bias = useLabelBias()
  const waiting = library.isPending || bias.isPending || stockPending
  const by = waiting ? null : { media: library.media, stockClasses: stock, bias: bias.data }
  const { assessment, failure } = useAssessment(dossier, by, worked)
  const navigate = useNavigate()
  const station = useLocation().pathname.split('/')[3] ?? ''
  const rested = useRested(station)
  useArrival()
  const top = useRef<HTMLDivElement>(null)
  const stuck = useAway(top, dossier !== undefined)
  if (!dossier)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this dossier" retry={() => void refetch()} />
    )
  const { model } = dossier
  return (
    <>
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-1">
        <div className="flex flex-wrap items-baseline gap-x-3">
          <Heading part={STATION[station as Station]?.name}>{model.name}</Heading>
          <p className="muted">
            {model.maker} · {KIND_WORDS[model.kind]}
          </p>
          <Present at={id} />
        </div>
        <div className="flex items-center gap-4">
          {assessment && assessment.progress.next.station !== 'verdict' && (
            <Link
              to={toGap(assessment.progress.next.station, assessment.progress.next.gap)}
              className="btn btn-sm"
            >
              Next: {assessment.progress.next.action}
            </Link>
          )}
          <Link
            to={`/history?model=${id}`}
            className="btn btn-ghost btn-xs btn-square"
            aria-label="History"
            title="History"
          >
            <HistoryIcon size={15} aria-hidden="true" />
          </Link>
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
      <div ref={top} aria-hidden="true" />
      <StationRuler assessment={assessment} dossier={dossier} stuck={stuck} />
      {failure && (
        <p role="alert" className="text-error mt-3">
          Cannot calculate: {failure}
        </p>
      )}
      <Unreadable rows={dossier.unreadable ?? []} />
      <div className="mt-4" data-loading={assessment || failure ? undefined : ''}>
        <DossierProvider dossier={dossier} assessment={assessment} stock={stock ?? []}>
          <Outlet />
          {rested && (
            <Suspense>
              <Ahead station={station} />
              <Rehearsal />
            </Suspense>
          )}
        </DossierProvider>
      </div>
    </>
  )
}

/** Rows kept that cannot be read: named, left out of every number, and removable. */
function Unreadable({ rows }: { readonly rows: NonNullable<Dossier['unreadable']> }) {
  if (!rows.length) return null
  return (
    <ul role="alert" className="text-error mt-3">
      {rows.map((r) => (
        <li key={r.id}>
          One {r.one} cannot be read and counts nowhere ({r.field}: {r.message}).{' '}
          <button
            type="button"
            className="btn btn-xs"
            onClick={() => removeRow(r.collection, r, `A ${r.one} that could not be read`)}
          >
            Remove it
          </button>
        </li>
      ))}
    </ul>
  )
}

/** How far a station is; nothing while that is being worked out. */
const howFar = (done: number | null): string =>
  done === null ? '…' : done >= 1 ? 'done' : `${Math.round(done * 100)} %`

/** The stations of the work as a ruler, each filled as far as it is done. */
function StationRuler({
  assessment,
  dossier,
  stuck,
}: {
  readonly assessment: Assessment | null
  readonly dossier: Dossier
  /** Stands at the top of the window, over what has been scrolled. */
  readonly stuck: boolean
}) {
  const done = stationsDone(dossier, assessment)
  return (
    <div
      className={`no-print bg-base-100 z-20 sm:sticky sm:top-0 -mx-4 flex items-end gap-4 px-4 sm:-mx-6 sm:px-6 ${stuck ? 'border-base-300 border-b' : ''}`}
    >
      {stuck && (
        <p className="max-w-40 truncate pb-2 font-bold max-lg:hidden" aria-hidden="true">
          {dossier.model.name}
        </p>
      )}
      <nav
        aria-label="Stations"
        className="mt-1.5 grid min-w-0 flex-1 grid-cols-3 gap-y-1 sm:grid-cols-5 lg:grid-cols-9"
      >
        {STATIONS.map((station) => (
          <NavLink
            key={station}
            to={station}
            className={({ isActive }) => `group relative block pt-1 ${isActive ? 'font-bold' : ''}`}
          >
            {({ isActive }) => (
              <>
                <span className="flex items-baseline justify-between px-2">
                  <span className={isActive ? '' : 'group-hover:underline'}>{STATION[station].name}</span>
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
    </div>
  )
}
