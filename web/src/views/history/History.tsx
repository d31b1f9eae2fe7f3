import type { Change } from '@ypsometer/contract'
import { claimName } from '@ypsometer/core/trials/printed'
import { Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { useMayWrite } from '../../api/app'
import { undoChange, useHistory } from '../../api/history'
import { useCandidates } from '../../api/shelf'
import { errorMessage } from '../../api/errorMessage'
import { units } from '../../settings/settings'
import { Failed, Loading } from '../../frame/States'
import { toast } from '../../frame/toastStore'
import { doneTo, fieldsOf, fieldWords, oneOf, showField } from '../../figures/fieldWords'
import { Heading } from '../../frame/Heading'

const DAY = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  year: 'numeric',
})
const CLOCK = new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit' })

/** Name of the row that was changed; a claim is named by its figure. */
const nameOf = ({ resource, name }: Change): string =>
  (resource === 'claims' && claimName(name)) || name.replace(/-/g, ' ')

/** Changes by the day they were made, in their order. */
function byDay(changes: readonly Change[]): (readonly [day: string, changes: Change[]])[] {
  const days: (readonly [string, Change[]])[] = []
  for (const c of changes) {
    const day = DAY.format(new Date(c.at))
    const last = days.at(-1)
    if (last?.[0] === day) last[1].push(c)
    else days.push([day, [c]])
  }
  return days
}

/** History and when: of a dossier, of one row, or of the whole bench; any of it can be taken back. */
export function History() {
  const [params] = useSearchParams()
  const [model, row] = [params.get('model'), params.get('row')]
  const { data, error, refetch, hasNextPage, fetchNextPage, isFetchingNextPage } = useHistory({ model, row })
  const { data: candidates = [] } = useCandidates()
  const changes = data?.pages.flatMap((p) => p.items) ?? []
  const name = model
    ? (candidates.find((c) => c.id === model)?.candidate?.name ??
      changes.find((c) => c.rowId === model)?.name ??
      'a model')
    : row
      ? changes.find((c) => c.name)?.name || (changes[0] && `a ${oneOf(changes[0].resource)}`)
      : null
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4">
        <Heading>{name ? `History of ${name}` : 'History'}</Heading>
        {model && (
          <Link to={`/models/${model}`} className="link">
            Open the filter
          </Link>
        )}
        {(model || row) && (
          <Link to="/history" className="link">
            All history
          </Link>
        )}
      </div>
      {error && <Failed error={error} what="the history" retry={() => void refetch()} />}
      {!data && !error && <Loading />}
      {data && changes.length === 0 && (
        <p className="muted mt-3 max-w-xl">
          No changes yet. Demo data, and anything recorded before history began, is not listed.
        </p>
      )}
      <div className="mt-4 max-w-4xl space-y-6">
        {byDay(changes).map(([day, list]) => (
          <section key={day} aria-label={day}>
            <h2 className="kicker rule-b pb-1">{day}</h2>
            <ol>
              {list.map((c) => (
                <One key={c.id} change={c} whole={row === null} />
              ))}
            </ol>
          </section>
        ))}
        {hasNextPage && (
          <button
            type="button"
            className="btn btn-sm"
            disabled={isFetchingNextPage}
            onClick={() => void fetchNextPage()}
          >
            Earlier
          </button>
        )}
      </div>
    </>
  )
}

/** One change; `whole` when it stands among those of other rows. */
function One({ change: c, whole }: { readonly change: Change; readonly whole: boolean }) {
  const system = units.use()
  const mayWrite = useMayWrite()
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const undo = (): void => {
    setBusy(true)
    setFailure('')
    undoChange(c.id)
      .then(() => toast('Undone.'))
      .catch((e: unknown) => setFailure(errorMessage(e)))
      .finally(() => setBusy(false))
  }
  const fields = fieldsOf(c)
  const said = doneTo(c.action, c.resource)
  return (
    <li className="rule-b grid grid-cols-[3.2rem_minmax(0,1fr)] items-start gap-x-3 py-2 sm:grid-cols-[3.2rem_minmax(0,1fr)_auto]">
      <time dateTime={c.at} className="num muted pt-px text-[0.9rem]">
        {CLOCK.format(new Date(c.at))}
      </time>
      <div className="min-w-0">
        <p>
          <strong>{c.who?.name ?? 'The program'}</strong> {c.undoes === null ? said : `undid: ${said}`}{' '}
          {whole ? (
            <Link to={`/history?row=${c.rowId}`} className="link">
              {nameOf(c) || '(no name)'}
            </Link>
          ) : (
            nameOf(c)
          )}
          {c.undoneBy !== null && <span className="muted"> · undone since</span>}
        </p>
        {fields.length > 0 && (
          <dl className="mt-0.5 grid gap-x-4 text-[0.93rem] sm:grid-cols-[minmax(6rem,auto)_minmax(0,1fr)]">
            {fields.map((f) => (
              <div key={f} className="contents">
                <dt className="muted">{fieldWords(f)}</dt>
                <dd className="break-words">
                  <s className="text-secondary decoration-1">
                    {showField(c.resource, f, c.before, system, c.name)}
                  </s>
                  <span aria-hidden="true"> → </span>
                  <span className="sr-only">became</span>
                  <span>{showField(c.resource, f, c.after, system, c.name)}</span>
                </dd>
              </div>
            ))}
          </dl>
        )}
        {failure && (
          <p role="alert" className="text-error text-[0.9rem]">
            {failure}
          </p>
        )}
      </div>
      {c.undoable && mayWrite && (
        <button
          type="button"
          className="btn btn-xs max-sm:col-start-2 max-sm:mt-1 max-sm:justify-self-start"
          disabled={busy}
          onClick={undo}
        >
          <Undo2 size={13} aria-hidden="true" /> Undo
          <span className="sr-only">
            : {said} {nameOf(c)}
          </span>
        </button>
      )}
    </li>
  )
}
