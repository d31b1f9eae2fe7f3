import { fieldsOf, type Entry } from '../api/outboxPolicy'
import { outbox, useMayWrite } from '../api/app'
import { useOtherIn } from '../api/presence'
import { complaint } from './useAutosaved'

interface ShellProps {
  readonly id: string
  readonly label: string
  readonly hideLabel?: boolean
  readonly hint?: React.ReactNode
  readonly error?: string | null
  readonly question?: React.ReactNode
  readonly onAgree?: () => void
  readonly onRevert?: () => void
  readonly parked?: Entry | undefined
  /** The row and the column it shows. */
  readonly row: { readonly id: string }
  readonly field: string
  readonly showValue?: (value: unknown) => React.ReactNode
  readonly children: React.ReactNode
}

/** Label, control and whatever has to be said about it: an error, a question, a refusal, a conflict. */
export function FieldShell(p: ShellProps) {
  const refused = complaint(p.parked, p.field)
  const current: Readonly<Record<string, unknown>> | null =
    p.parked?.state === 'conflict' ? { ...(p.parked.problem?.current as object | undefined) } : null
  const show = p.showValue ?? ((v: unknown) => String(v ?? 'empty'))
  const key = p.parked?.key ?? ''
  const mayWrite = useMayWrite()
  const other = useOtherIn(p.row.id, p.field)
  return (
    <div className="min-w-0" data-row={p.row.id} data-field={p.field}>
      <label htmlFor={p.id} className={p.hideLabel ? 'sr-only' : 'kicker block'}>
        {p.label}
      </label>
      <fieldset
        disabled={!mayWrite}
        className={`min-w-0 ${other ? 'outline-primary outline-2 outline-offset-2' : ''}`}
      >
        {p.children}
      </fieldset>
      {other && <p className="text-primary mt-1 text-[0.8rem]">{other} is in this field</p>}
      <div id={`${p.id}-said`} aria-live="polite">
        {p.error && <Said tone="error">{p.error}</Said>}
        {p.question && (
          <Said tone="warning">
            {p.question}{' '}
            <button type="button" className="btn btn-xs btn-warning" onClick={p.onAgree}>
              Yes, keep it
            </button>{' '}
            <button type="button" className="btn btn-xs btn-ghost" onClick={p.onRevert}>
              Undo
            </button>
          </Said>
        )}
        {!p.error && !p.question && refused && <Said tone="error">{refused}</Said>}
        {current && (
          <Said tone="warning">
            Changed elsewhere to <strong>{show(current[p.field])}</strong>; you typed{' '}
            <strong>{show(p.parked && fieldsOf(p.parked)[p.field])}</strong>.{' '}
            <button
              type="button"
              className="btn btn-xs btn-warning"
              onClick={() => outbox.resolve(key, 'mine')}
            >
              Keep my version
            </button>{' '}
            <button type="button" className="btn btn-xs" onClick={() => outbox.resolve(key, 'theirs')}>
              Use their version
            </button>
          </Said>
        )}
        {!p.error && !p.question && !refused && !current && p.hint && (
          <p className="muted text-[0.8rem]">{p.hint}</p>
        )}
      </div>
    </div>
  )
}

function Said({
  tone,
  children,
}: {
  readonly tone: 'error' | 'warning'
  readonly children: React.ReactNode
}) {
  return (
    <p className={`mt-1 text-[0.88rem] leading-snug ${tone === 'error' ? 'text-error' : 'text-warning'}`}>
      {children}
    </p>
  )
}
