import { X } from 'lucide-react'
import { Link, useLocation } from 'react-router'
import { compareTray } from '../settings/settings'

/** Models put by to be compared; stays in sight while one looks for the next. */
export function CompareTray() {
  const list = compareTray.use()
  const { pathname } = useLocation()
  if (!list.length || !/^\/(models\/|$)/.test(pathname)) return null
  return (
    <aside
      aria-label="Selected to compare"
      className="no-print bg-base-100 border-base-content sticky bottom-0 z-20 flex flex-wrap items-center gap-x-4 gap-y-1 border-t px-4 py-2 sm:px-6"
    >
      <span className="kicker">Selected to compare</span>
      <ul className="flex flex-wrap gap-x-3 gap-y-1">
        {list.map((m) => (
          <li key={m.id} className="flex items-center gap-1">
            {m.name}
            <button
              type="button"
              className="btn btn-ghost btn-xs btn-square"
              aria-label={`Remove ${m.name}`}
              onClick={() => compareTray.set(list.filter((x) => x.id !== m.id))}
            >
              <X size={14} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <Link to={`/compare?m=${list.map((m) => m.id).join(',')}`} className="btn btn-sm btn-primary ml-auto">
        Compare {list.length}
      </Link>
    </aside>
  )
}
