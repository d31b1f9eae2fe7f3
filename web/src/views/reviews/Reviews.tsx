import type { Review } from '@ypsometer/contract'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate, useSearchParams } from 'react-router'
import { actOnReview } from '../../api/reviews'
import { useCandidates } from '../../api/shelf'
import { useReviews } from '../../api/lists'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { errorMessage } from '../../api/errorMessage'
import { Failed, Loading } from '../../frame/States'
import { showDay } from '../../settings/when'
import { STATE_WORDS } from './words'
import { Heading } from '../../frame/Heading'

/** Reviews in the making, published, corrected and withdrawn. */
export function Reviews() {
  const { reviews, error, isPending, refetch } = useReviews()
  const { data: candidates = [] } = useCandidates()
  const [params] = useSearchParams()
  const wanted = params.get('model')
  if (!reviews)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="the reviews" retry={() => void refetch()} />
    )
  const nameOf = (r: Review): string =>
    candidates.find((c) => c.id === r.modelId)?.candidate?.name ?? 'one of your filters'
  const shown = [...reviews]
    .filter((r) => wanted === null || r.modelId === wanted)
    .sort((a, b) => b.updatedAt.localeCompare(a.updatedAt))
  return (
    <>
      <Heading>Reviews</Heading>
      <p className="muted max-w-2xl">
        Your text around the numbers of one day. Published editions never change; a correction is a new
        edition.
      </p>
      <Begin wanted={wanted} />
      {shown.length === 0 ? (
        <p className="mt-5 max-w-xl">
          No reviews yet. Choose a filter; today’s numbers are frozen into the draft.
        </p>
      ) : (
        <ul className="rule-t mt-5">
          {shown.map((r) => (
            <li key={r.id} className="rule-b flex items-baseline justify-between gap-3 py-2">
              <span className="min-w-0" style={{ overflowWrap: 'anywhere' }}>
                <Link to={`/reviews/${r.id}`} className="link" dir="auto">
                  {r.title.trim() || `Review of ${nameOf(r)}`}
                </Link>
                <span className="muted block text-[0.88rem]">
                  {nameOf(r)} ·{' '}
                  <span className={r.state === 'withdrawn' ? 'text-error' : ''}>{STATE_WORDS[r.state]}</span>
                  {r.publishedOn && ` ${showDay(r.publishedOn)}`}
                  {r.editions > 1 && ` · ${r.editions} editions`}
                  {' · '}numbers of {showDay(r.takenOn)}
                </span>
              </span>
              {r.editions === 0 && (
                <IconButton
                  label={`Delete the draft ${r.title || nameOf(r)}`}
                  icon={Trash2}
                  onClick={() => removeRow('reviews', r, 'The draft')}
                />
              )}
            </li>
          ))}
        </ul>
      )}
    </>
  )
}

/** Takes a model’s numbers and opens the draft. */
function Begin({ wanted }: { readonly wanted: string | null }) {
  const { data: candidates = [] } = useCandidates()
  const navigate = useNavigate()
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const shelf = candidates
    .flatMap((c) => (c.candidate ? [c.candidate] : []))
    .sort((a, b) => a.name.localeCompare(b.name))
  const begin = async (modelId: string): Promise<void> => {
    const id = crypto.randomUUID()
    setBusy(true)
    setFailure('')
    try {
      const name = shelf.find((c) => c.id === modelId)?.name ?? ''
      await actOnReview('/reviews', { id, modelId, title: name })
      await navigate(`/reviews/${id}`)
    } catch (error) {
      setFailure(errorMessage(error))
    } finally {
      setBusy(false)
    }
  }
  const own = shelf.find((c) => c.id === wanted)
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3">
      {own ? (
        <button type="button" className="btn btn-primary" disabled={busy} onClick={() => void begin(own.id)}>
          Write a review of {own.name}
        </button>
      ) : (
        <select
          className="select w-auto max-w-full"
          aria-label="Write a review of"
          value=""
          disabled={busy || !shelf.length}
          onChange={(e) => void begin(e.target.value)}
        >
          <option value="" disabled>
            Write a review of …
          </option>
          {shelf.map((c) => (
            <option key={c.id} value={c.id}>
              {c.name}, {c.maker}
            </option>
          ))}
        </select>
      )}
      {wanted !== null && (
        <Link to="/reviews" className="link">
          All reviews
        </Link>
      )}
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
    </div>
  )
}
