import { Link, useRouteError } from 'react-router'
import { ApiProblem, Unreachable } from '../api/client'
import { Heading } from './Heading'

export const Loading = () => (
  <p className="muted p-6" role="status" data-loading>
    Loading …
  </p>
)

/** Why something could not be read, and what can be done. */
export function Failed({
  error,
  what,
  retry,
}: {
  readonly error: Error
  readonly what: string
  readonly retry?: () => void
}) {
  const text =
    error instanceof Unreachable
      ? `Offline. ${what[0]?.toUpperCase()}${what.slice(1)} cannot be loaded now. Your changes are safe on this device.`
      : error instanceof ApiProblem && error.problem.status === 404
        ? `${what[0]?.toUpperCase()}${what.slice(1)} does not exist. It may have been deleted.`
        : `${what[0]?.toUpperCase()}${what.slice(1)} cannot be loaded: ${error.message}`
  return (
    <div role="alert" className="border-warning my-4 max-w-xl border-l-4 pl-4">
      <p>{text}</p>
      <p className="mt-2 flex gap-3">
        {retry && (
          <button type="button" className="btn btn-sm" onClick={retry}>
            Try again
          </button>
        )}
        <Link to="/" className="btn btn-sm btn-ghost">
          Go to the shelf
        </Link>
      </p>
    </div>
  )
}

export function Crash() {
  const error = useRouteError()
  return (
    <div className="p-6">
      <Heading>Something went wrong on this page</Heading>
      <p className="mt-2 max-w-xl">
        {error instanceof Error ? error.message : 'Unknown error.'} Your changes are safe on this device.
      </p>
      <p className="mt-3 flex gap-3">
        <button type="button" className="btn btn-sm" onClick={() => location.reload()}>
          Reload
        </button>
        <a href="/" className="btn btn-sm btn-ghost">
          Go to the shelf
        </a>
      </p>
    </div>
  )
}

export const NotFound = () => (
  <div>
    <Heading>Page not found</Heading>
    <p className="mt-2">
      <Link to="/" className="link">
        Go to the shelf
      </Link>
    </p>
  </div>
)
