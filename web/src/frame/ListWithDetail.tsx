import { useState, type ReactNode } from 'react'
import { NavLink } from 'react-router'

/** One line of a list. */
export interface ListLine {
  readonly id: string
  readonly name: string
  /** Mark before its name, such as a swatch. */
  readonly mark?: ReactNode
  readonly note: string
  readonly side?: ReactNode
}

interface Props {
  /** Name of the list and its navigation: “Tanks”. */
  readonly label: string
  /** The address that a line’s id goes behind: `/tanks`. */
  readonly path: string
  readonly lines: readonly ListLine[]
  readonly open: string | undefined
  /** More than a few words stand beside a name. */
  readonly wide?: boolean
  /** Further filters, beside the search. */
  readonly filter?: ReactNode
  /** The one that is open. */
  readonly children: ReactNode
}

/** Lines from which on a list can be searched, and most that are drawn at once. */
const SEARCHED_FROM = 15
const MOST_DRAWN = 100

/** Lines whose name or note has every word that was typed. */
export function found(lines: readonly ListLine[], text: string): readonly ListLine[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean)
  if (!words.length) return lines
  return lines.filter(({ name, note }) => {
    const all = `${name} ${note}`.toLowerCase()
    return words.every((w) => all.includes(w))
  })
}

/** A list with the one that is open beside it. A long list is searched, and drawn no farther than one looks through. */
export function ListWithDetail({ label, path, lines, open, wide, filter, children }: Props) {
  const [text, setText] = useState('')
  const matching = found(lines, text)
  const first = matching.slice(0, MOST_DRAWN)
  const more = matching.length - first.length
  // The one that is open stands among them wherever it comes.
  const own = first.some((l) => l.id === open) ? undefined : matching.find((l) => l.id === open)
  const columns = wide ? 'lg:grid-cols-[23rem_minmax(0,1fr)]' : 'lg:grid-cols-[20rem_minmax(0,1fr)]'
  return (
    <div className={`mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 ${columns}`}>
      <nav aria-label={label}>
        <div className="flex gap-4">
          {(lines.length >= SEARCHED_FROM || text) && (
            <label className="min-w-0 grow">
              <span className="sr-only">Search {label.toLowerCase()}</span>
              <input
                type="search"
                className="field mb-2"
                placeholder="Search"
                value={text}
                onChange={(e) => setText(e.target.value)}
              />
            </label>
          )}
          {filter}
        </div>
        {/* On a phone a long list does not keep one from what is open below it. */}
        <ul
          className={`rule-t ${lines.length >= SEARCHED_FROM ? 'max-lg:max-h-80 max-lg:overflow-y-auto' : ''}`}
        >
          {[...(own ? [own] : []), ...first].map((l) => (
            <li key={l.id} className="rule-b">
              <NavLink
                to={`${path}/${l.id}`}
                className={`flex items-baseline justify-between gap-3 px-2 py-1.5 ${l.id === open ? 'bg-base-200 font-bold' : 'hover:bg-base-200'}`}
              >
                <span className="min-w-0">
                  {l.mark} {l.name}
                  <span className={`muted block text-[0.82rem] font-normal ${l.mark ? 'pl-8' : ''}`}>
                    {l.note}
                  </span>
                </span>
                <span className="font-normal whitespace-nowrap">{l.side}</span>
              </NavLink>
            </li>
          ))}
        </ul>
        {more > 0 && (
          <p className="muted mt-2 px-2 text-[0.92rem]">{more} more: search for part of a name.</p>
        )}
        {matching.length === 0 && <p className="muted px-2 py-2">None has that in its name.</p>}
      </nav>
      {children}
    </div>
  )
}
