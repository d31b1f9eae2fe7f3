import type { Edition, Review } from '@ypsometer/contract'
import type { Snapshot } from '@ypsometer/contract/review'
import type { Length } from '@ypsometer/core/review/blocks'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { useReviewParts } from '../../api/reviews'
import { useReviews } from '../../api/lists'
import { HistoryLink } from '../../frame/HistoryLink'
import { Failed, Loading } from '../../frame/States'
import { showDay } from '../../settings/when'
import type { ReviewDoc } from '../../review/document'
import { LengthKeys } from '../../review/LengthKeys'
import { SheetView } from '../../review/SheetView'
import { Editing } from './Editing'
import { MovedSince } from './MovedSince'
import { Outs } from './Outs'
import { Publishing } from './Publishing'
import { Shares } from './Shares'
import { STATE_WORDS } from './words'

/** One review: the sheet as it is read, and beside it the words, the publishing and the ways out. */
export function ReviewDesk() {
  const { id = '' } = useParams()
  const { reviews, error, isPending, refetch } = useReviews()
  const review = reviews?.find((r) => r.id === id)
  if (!reviews)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="this review" retry={() => void refetch()} />
    )
  if (!review) return <p>This review does not exist. It may have been deleted.</p>
  return <Desk key={id} review={review} />
}

const DRAFT = 'draft'

function Desk({ review }: { readonly review: Review }) {
  const { draft, published, shares, moved } = useReviewParts(review.id, review.editions)
  const [length, setLength] = useState<Length>('whole')
  const [paper, setPaper] = useState('a4')
  const editions = published.data?.items ?? []
  const [which, setWhich] = useState<string | null>(null)
  const shownNumber = which ?? (review.state === 'draft' ? DRAFT : String(review.editions))
  const edition = editions.find((e) => String(e.number) === shownNumber)
  const snapshot = edition?.snapshot ?? draft.data?.snapshot
  if (!snapshot)
    return draft.error ? (
      <Failed error={draft.error} what="the numbers of this review" retry={() => void draft.refetch()} />
    ) : (
      <Loading />
    )
  const photo = (p: string): string => `/api/v1/reviews/${review.id}/photos/${p}`
  const doc = docOf(review, snapshot, edition ?? null)
  return (
    <>
      <div className="no-print mb-4 flex flex-wrap items-end gap-x-5 gap-y-2">
        <div className="min-w-0 flex-1">
          <p className="kicker">
            <Link to="/reviews" className="link">
              Reviews
            </Link>{' '}
            ·{' '}
            <span className={review.state === 'withdrawn' ? 'text-error' : ''}>
              {STATE_WORDS[review.state]}
            </span>
          </p>
          <p className="muted text-[0.92rem]">
            Numbers of{' '}
            <Link to={`/models/${review.modelId}/verdict`} className="link">
              {snapshot.sheet.name}
            </Link>{' '}
            as they stood on {showDay(snapshot.on)}
          </p>
        </div>
        <LengthKeys length={length} onLength={setLength} />
        {editions.length > 0 && (
          <label>
            <span className="kicker block">Edition</span>
            <select
              className="select select-sm w-auto"
              value={shownNumber}
              onChange={(e) => setWhich(e.target.value)}
            >
              <option value={DRAFT}>the draft as it is now</option>
              {editions.map((e) => (
                <option key={e.number} value={String(e.number)}>
                  {e.number}, {showDay(e.publishedOn)}
                </option>
              ))}
            </select>
          </label>
        )}
      </div>
      {review.state === 'withdrawn' && (
        <p
          role="note"
          className="border-error text-error mb-4 border-l-4 pl-3"
          style={{ overflowWrap: 'anywhere' }}
        >
          Withdrawn on {showDay(review.withdrawnOn ?? review.takenOn)}: {review.withdrawnWhy}
        </p>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)] gap-x-12 gap-y-8 lg:grid-cols-[minmax(0,1fr)_23rem]">
        <div className={`min-w-0 slip-${paper}${length === 'page' ? '-tight' : ''}`}>
          <SheetView doc={doc} length={length} drawing={snapshot.drawing} photo={photo} />
        </div>
        <aside className="no-print min-w-0 space-y-8" aria-label="Work on it">
          <Publishing review={review} sheet={(draft.data?.snapshot ?? snapshot).sheet} />
          {moved.data && <MovedSince since={moved.data.since} items={moved.data.items} />}
          <Editing review={review} sections={(draft.data?.snapshot ?? snapshot).sheet.sections} />
          <Outs
            photo={photo}
            doc={doc}
            length={length}
            snapshot={snapshot}
            paper={paper}
            onPaper={setPaper}
          />
          <HistoryLink of={{ row: review.id }} />
          {review.editions > 0 && <Shares review={review} shares={shares.data?.items ?? []} />}
        </aside>
      </div>
    </>
  )
}

/** An edition as it was said; else the draft with the words as they are now. */
function docOf(review: Review, snapshot: Snapshot, edition: Edition | null): ReviewDoc {
  const { title, intro, words, buy, buyWhy } = review
  return {
    words: edition?.words ?? { title, intro, words, buy, buyWhy },
    sheet: snapshot.sheet,
    edition,
    core: snapshot.core,
  }
}
