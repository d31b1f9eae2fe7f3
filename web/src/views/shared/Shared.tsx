import type { SharedReview } from '@ypsometer/contract'
import type { Drawing } from '@ypsometer/contract/review'
import type { Length } from '@ypsometer/core/review/blocks'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { useState } from 'react'
import { useParams } from 'react-router'
import { ApiProblem } from '../../api/client'
import { useShared } from '../../api/reviews'
import { decimal, DECIMALS, SYSTEMS, units, type Decimal } from '../../settings/settings'
import { Loading } from '../../frame/States'
import { showDay } from '../../settings/when'
import { LengthKeys } from '../../review/LengthKeys'
import { SheetView } from '../../review/SheetView'
import { Heading } from '../../frame/Heading'

/** A review by its link: no account, no cookie, nothing else of the bench. */
export function Shared() {
  const { secret = '' } = useParams()
  const [edition, setEdition] = useState<number | null>(null)
  const { data, error, isPending } = useShared(secret, edition)
  return (
    <div className="min-h-screen px-4 py-5 sm:px-8">
      <main id="main" className="mx-auto max-w-[46rem]">
        {isPending && <Loading />}
        {error && <Refused error={error} />}
        {data && <Read data={data} secret={secret} onEdition={setEdition} />}
      </main>
    </div>
  )
}

const Refused = ({ error }: { readonly error: Error }) => (
  <div role="alert">
    <Heading>{error instanceof ApiProblem ? error.problem.title : 'It cannot be read now'}</Heading>
    <p className="mt-2">
      {error instanceof ApiProblem
        ? error.problem.detail
        : 'The server does not answer. Try again in a while.'}
    </p>
  </div>
)

interface ReadProps {
  readonly data: SharedReview
  readonly secret: string
  readonly onEdition: (number: number) => void
}

function Read({ data: { withdrawn, editions, edition }, secret, onEdition }: ReadProps) {
  const [length, setLength] = useState<Length>('whole')
  const system = units.use()
  const sign = decimal.use()
  if (withdrawn || !edition)
    return (
      <>
        <Heading>This review was withdrawn</Heading>
        {withdrawn && (
          <p className="mt-2" dir="auto" style={{ overflowWrap: 'anywhere' }}>
            On {showDay(withdrawn.on)}: {withdrawn.why}
          </p>
        )}
      </>
    )
  const newest = editions.at(-1)?.number ?? edition.number
  return (
    <>
      <div className="no-print mb-4 flex flex-wrap items-center gap-x-4 gap-y-2 text-[0.92rem]">
        <LengthKeys length={length} onLength={setLength} />
        <select
          className="select select-sm w-auto"
          aria-label="Units"
          value={system}
          onChange={(e) => units.set(e.target.value as UnitSystem)}
        >
          {SYSTEMS.map(([k, words]) => (
            <option key={k} value={k}>
              {words}
            </option>
          ))}
        </select>
        <select
          className="select select-sm w-auto"
          aria-label="Numbers as"
          value={sign}
          onChange={(e) => decimal.set(e.target.value as Decimal)}
        >
          {DECIMALS.map((d) => (
            <option key={d} value={d}>
              {d === '.' ? '1.5' : '1,5'}
            </option>
          ))}
        </select>
      </div>
      {editions.length > 1 && (
        <nav aria-label="Editions" className="no-print mb-4 text-[0.92rem]">
          {edition.number < newest && (
            <p className="text-warning">This edition was corrected since: read the newest.</p>
          )}
          <ul className="flex flex-wrap gap-x-4">
            {editions.map((e) => (
              <li key={e.number}>
                <button
                  type="button"
                  className={`link ${e.number === edition.number ? 'font-bold' : ''}`}
                  aria-current={e.number === edition.number ? 'page' : undefined}
                  onClick={() => onEdition(e.number)}
                >
                  Edition {e.number}, {showDay(e.publishedOn)}
                </button>
              </li>
            ))}
          </ul>
        </nav>
      )}
      <SheetView
        doc={{ words: edition.words, sheet: edition.sheet, edition, core: edition.core }}
        length={length}
        drawing={edition.drawing as Drawing | null}
        photo={(id) => `/api/v1/shared/${secret}/photos/${id}`}
      />
    </>
  )
}
