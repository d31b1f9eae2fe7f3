import { outbox } from '../api/app'
import { complaint, useParked } from './useAutosaved'

interface Props {
  readonly row: { readonly id: string }
  readonly field: string
  /** Name of what is written as a whole, as "The layers of this fill". */
  readonly what: string
}

/** Objection of the server to something that is written as a whole and has no field of its own. */
export function Parked({ row, field, what }: Props) {
  const parked = useParked(row, field)
  if (!parked) return null
  const refused = complaint(parked, field)
  // Refused for another field that was sent along.
  if (!refused && parked.state !== 'conflict') return null
  return (
    <p
      role="alert"
      className={`border-l-4 pl-3 ${refused ? 'border-error text-error' : 'border-warning text-warning'}`}
    >
      {refused ? `${what} cannot be kept so: ${refused}. ` : `${what} changed elsewhere meanwhile. `}
      <button
        type="button"
        className="btn btn-xs btn-warning"
        onClick={() => outbox.resolve(parked.key, 'mine')}
      >
        {refused ? 'Try again' : 'Keep my version'}
      </button>{' '}
      <button type="button" className="btn btn-xs" onClick={() => outbox.resolve(parked.key, 'theirs')}>
        {refused ? 'Discard my change' : 'Use their version'}
      </button>
    </p>
  )
}
