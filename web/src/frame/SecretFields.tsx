import { useId, useState } from 'react'
import type { FieldError, UseFormRegisterReturn } from 'react-hook-form'

interface Props {
  readonly label: string
  readonly kind: 'current-password' | 'new-password' | 'username'
  readonly error?: FieldError | undefined
  readonly hint?: string
  readonly registered: UseFormRegisterReturn
}

/** A name or a password to sign in with, known as such to what fills them in. A password can be looked at. */
export function SecretField({ label, kind, error, hint, registered }: Props) {
  const id = useId()
  const [shown, setShown] = useState(false)
  const secret = kind !== 'username'
  return (
    <div>
      <label htmlFor={id} className="kicker block">
        {label}
      </label>
      <div className="flex items-center gap-2">
        <input
          id={id}
          className="field"
          type={secret && !shown ? 'password' : 'text'}
          autoComplete={kind}
          autoCapitalize="off"
          spellCheck={false}
          aria-invalid={error ? true : undefined}
          aria-describedby={`${id}-said`}
          {...registered}
        />
        {secret && (
          <button type="button" className="btn btn-ghost btn-xs" onClick={() => setShown(!shown)}>
            {shown ? 'Hide' : 'Show'}
          </button>
        )}
      </div>
      <p
        id={`${id}-said`}
        className={`text-[0.85rem] ${error ? 'text-error' : 'muted'}`}
        role={error ? 'alert' : undefined}
      >
        {error?.message ?? hint}
      </p>
    </div>
  )
}
