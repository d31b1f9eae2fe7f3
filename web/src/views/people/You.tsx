import { zodResolver } from '@hookform/resolvers/zod'
import { NewPassword, type Me } from '@ypsometer/contract'
import { useForm } from 'react-hook-form'
import type { z } from 'zod'
import { useEntries } from '../../api/app'
import { changePassword, endSession, signOut, useSessions } from '../../api/people'
import { FormEnd } from '../../frame/FormEnd'
import { against } from '../../frame/problemForm'
import { SecretField } from '../../frame/SecretFields'
import { toast } from '../../frame/toastStore'
import { showWhen } from '../../settings/when'
import { agentWords, ROLE_MAY, ROLE_WORDS } from './words'

/** Oneself: where one is signed in, one's password, and the way out. */
export function You({ me }: { readonly me: Me }) {
  const kept = useEntries().length
  if (!me.person) return null
  const { name, role } = me.person
  return (
    <section aria-labelledby="you-title" className="space-y-5">
      <div>
        <h2 id="you-title">{name}</h2>
        <p className="muted">
          {ROLE_WORDS[role]}: {ROLE_MAY[role]}
        </p>
      </div>
      <Sessions />
      <ChangePassword name={name} />
      <div>
        <button type="button" className="btn btn-sm" onClick={() => void signOut()}>
          Sign out
        </button>
        {kept > 0 && (
          <p className="text-warning mt-1 text-[0.88rem]">
            {kept === 1 ? 'One entry has' : `${kept} entries have`} not reached the server: kept on this
            device until you sign in here again.
          </p>
        )}
      </div>
    </section>
  )
}

function Sessions() {
  const { data } = useSessions()
  return (
    <div>
      <h3 className="kicker">Where you are signed in</h3>
      <ul>
        {data?.items.map((s) => (
          <li key={s.id} className="rule-b flex items-baseline justify-between gap-3 py-1">
            <span className="min-w-0">
              {agentWords(s.agent)} <span className="muted num">{s.address}</span>
              <span className="muted block text-[0.85rem]">
                {s.here ? 'here, now' : `last used ${showWhen(s.seenAt)}`}
              </span>
            </span>
            {!s.here && (
              <button type="button" className="btn btn-xs" onClick={() => void endSession(s.id)}>
                Sign out this device
              </button>
            )}
          </li>
        ))}
      </ul>
    </div>
  )
}

function ChangePassword({ name }: { readonly name: string }) {
  const {
    register,
    handleSubmit,
    setError,
    reset,
    formState: { errors, isSubmitting },
  } = useForm<z.infer<typeof NewPassword>>({
    resolver: zodResolver(NewPassword),
    defaultValues: { password: '', next: '' },
  })
  const submit = handleSubmit(async ({ password, next }) => {
    const went = await against(['password', 'next'], setError, () => changePassword(password, next))
    if (!went) return
    reset()
    toast('Your password is changed; other sessions of yours have ended.')
  })
  return (
    <details>
      <summary className="cursor-pointer">Change your password</summary>
      <form onSubmit={(e) => void submit(e)} noValidate className="mt-2 space-y-3">
        <input type="text" autoComplete="username" value={name} readOnly hidden />
        <SecretField
          label="Present password"
          kind="current-password"
          error={errors.password}
          registered={register('password')}
        />
        <SecretField
          label="New password"
          kind="new-password"
          hint="At least 12 characters."
          error={errors.next}
          registered={register('next')}
        />
        <FormEnd error={errors.root?.message} busy={isSubmitting} small>
          Change it
        </FormEnd>
      </form>
    </details>
  )
}
