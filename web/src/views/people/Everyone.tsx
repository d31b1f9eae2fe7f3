import { zodResolver } from '@hookform/resolvers/zod'
import { NewPerson, type Me, type PassMade, type PersonRow, type Role } from '@ypsometer/contract'
import { useId, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { z } from 'zod'
import { changePerson, endSessionsOf, invite, newLink, removePerson, usePeople } from '../../api/people'
import { against } from '../../frame/problemForm'
import { errorMessage } from '../../api/errorMessage'
import { SecretField } from '../../frame/SecretFields'
import { Failed, Loading } from '../../frame/States'
import { showWhen } from '../../settings/when'
import { ROLE_MAY, ROLE_OPTIONS, ROLE_WORDS } from './words'
import { Sheet } from '../../figures/Sheet'

/** Everyone of the bench; an owner looks after them here. */
export function Everyone({ me }: { readonly me: Me }) {
  const { data, error, refetch } = usePeople()
  const [link, setLink] = useState<PassMade | null>(null)
  const [failure, setFailure] = useState('')
  const owner = me.person?.role === 'owner'
  const doing = (work: () => Promise<unknown>): void => {
    setFailure('')
    work().catch((e: unknown) => setFailure(errorMessage(e)))
  }
  if (error) return <Failed error={error} what="the list of people" retry={() => void refetch()} />
  if (!data) return <Loading />
  return (
    <section aria-labelledby="everyone-title" className="min-w-0 space-y-4">
      <h2 id="everyone-title">Everyone</h2>
      <div className="overflow-x-auto">
        <Sheet
          columns={[
            'Name',
            'Role',
            ...(owner ? [{ label: 'Last here', className: 'max-sm:hidden' }, 'For them'] : []),
          ]}
        >
          {data.items.map((p) => (
            <Row key={p.id} person={p} me={me} onLink={(made) => setLink(made)} doing={doing} />
          ))}
        </Sheet>
      </div>
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
      {link && <LinkMade made={link} onClose={() => setLink(null)} />}
      {owner && <Invite onMade={setLink} />}
    </section>
  )
}

interface RowProps {
  readonly person: PersonRow
  readonly me: Me
  readonly onLink: (made: PassMade) => void
  readonly doing: (work: () => Promise<unknown>) => void
}

/** When somebody was last here, or that they have not come in yet. */
function LastHere({ person: p }: { readonly person: PersonRow }) {
  if (!p.joined) return <span className="text-warning">invited, not here yet</span>
  if (!p.seenAt) return <>not signed in</>
  return (
    <>
      {showWhen(p.seenAt)}
      <span className="muted"> · {p.sessions === 1 ? '1 session' : `${p.sessions} sessions`}</span>
    </>
  )
}

function Row({ person: p, me, onLink, doing }: RowProps) {
  const owner = me.person?.role === 'owner'
  return (
    <tr className="rule-b align-baseline">
      <td className="py-1.5 pr-4 font-bold">
        {p.name}
        {p.id === me.person?.id && <span className="muted font-normal"> (you)</span>}
        {owner && (
          <span className="num block text-[0.85rem] font-normal sm:hidden">
            <LastHere person={p} />
          </span>
        )}
      </td>
      <td className="pr-4">
        {owner ? (
          <select
            className="field !min-h-0 !w-auto !py-0.5"
            aria-label={`Role of ${p.name}`}
            value={p.role}
            onChange={(e) => doing(() => changePerson(p.id, { role: e.target.value as Role }))}
          >
            {ROLE_OPTIONS.map(([role, word]) => (
              <option key={role} value={role}>
                {word}
              </option>
            ))}
          </select>
        ) : (
          ROLE_WORDS[p.role]
        )}
      </td>
      {owner && (
        <td className="num pr-4 whitespace-nowrap max-sm:hidden">
          <LastHere person={p} />
        </td>
      )}
      {owner && (
        <td className="py-1">
          <Looking person={p} onLink={onLink} doing={doing} />
        </td>
      )}
    </tr>
  )
}

/** Deeds of an owner for somebody. */
function Looking({ person: p, onLink, doing }: Omit<RowProps, 'me'>) {
  const [sure, setSure] = useState(false)
  if (sure)
    return (
      <span className="flex flex-wrap gap-1">
        <button
          type="button"
          className="btn btn-xs btn-error"
          onClick={() => doing(() => removePerson(p.id))}
        >
          Remove {p.name}
        </button>
        <button type="button" className="btn btn-xs" onClick={() => setSure(false)}>
          Keep
        </button>
      </span>
    )
  return (
    <span className="flex flex-wrap gap-1">
      <button
        type="button"
        className="btn btn-xs"
        aria-label={`A one-time link for ${p.name}`}
        onClick={() => doing(async () => onLink(await newLink(p.id)))}
      >
        New link
      </button>
      <button
        type="button"
        className="btn btn-xs"
        aria-label={`End all sessions of ${p.name}`}
        disabled={p.sessions === 0}
        onClick={() => doing(() => endSessionsOf(p.id))}
      >
        End sessions
      </button>
      <button
        type="button"
        className="btn btn-xs"
        aria-label={`Remove ${p.name} …`}
        onClick={() => setSure(true)}
      >
        Remove …
      </button>
    </span>
  )
}

/** A link that was just made: told this once. */
function LinkMade({ made, onClose }: { readonly made: PassMade; readonly onClose: () => void }) {
  const address = `${location.origin}/join#${made.secret}`
  const [copied, setCopied] = useState(false)
  const id = useId()
  return (
    <div className="border-primary space-y-2 border-l-4 py-1 pl-4" role="status">
      <label htmlFor={id} className="block">
        For <strong>{made.person.name}</strong> alone: whoever opens it chooses their password. It holds once,
        until {showWhen(made.endsAt)}, and is shown only now.
      </label>
      <div className="flex flex-wrap items-center gap-2">
        <input
          id={id}
          className="field num max-w-xl"
          readOnly
          value={address}
          onFocus={(e) => e.target.select()}
        />
        <button
          type="button"
          className="btn btn-sm"
          onClick={() => void navigator.clipboard.writeText(address).then(() => setCopied(true))}
        >
          {copied ? 'Copied' : 'Copy'}
        </button>
        <button type="button" className="btn btn-sm btn-ghost" onClick={onClose}>
          Done
        </button>
      </div>
    </div>
  )
}

function Invite({ onMade }: { readonly onMade: (made: PassMade) => void }) {
  const role = useId()
  const {
    register,
    handleSubmit,
    setError,
    reset,
    formState: { errors, isSubmitting },
  } = useForm<z.infer<typeof NewPerson>>({
    resolver: zodResolver(NewPerson),
    defaultValues: { name: '', role: 'editor' },
  })
  const submit = handleSubmit(async (given) => {
    const went = await against(['name', 'role'], setError, async () =>
      onMade(await invite(given.name, given.role)),
    )
    if (went) reset()
  })
  return (
    <form onSubmit={(e) => void submit(e)} noValidate aria-labelledby="invite-title" className="space-y-2">
      <h2 id="invite-title">Invite somebody</h2>
      <div className="grid max-w-xl grid-cols-[minmax(0,1fr)] items-start gap-3 sm:grid-cols-[1fr_auto_auto]">
        <SecretField label="Their name" kind="username" error={errors.name} registered={register('name')} />
        <div>
          <label htmlFor={role} className="kicker block">
            Role
          </label>
          <select id={role} className="field" {...register('role')}>
            {ROLE_OPTIONS.map(([r, word]) => (
              <option key={r} value={r}>
                {word}: {ROLE_MAY[r]}
              </option>
            ))}
          </select>
        </div>
        <button type="submit" className="btn btn-primary btn-sm sm:mt-6" disabled={isSubmitting}>
          Make the link
        </button>
      </div>
      {errors.root && (
        <p role="alert" className="text-error">
          {errors.root.message}
        </p>
      )}
    </form>
  )
}
