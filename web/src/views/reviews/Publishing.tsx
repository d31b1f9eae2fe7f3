import type { Review } from '@ypsometer/contract'
import { useState } from 'react'
import { actOnReview } from '../../api/reviews'
import { errorMessage } from '../../api/errorMessage'
import { toast } from '../../frame/toastStore'

/** Ends of a review: published, corrected, withdrawn; and its numbers taken anew. */
export function Publishing({ review }: { readonly review: Review }) {
  const [what, setWhat] = useState('')
  const [why, setWhy] = useState('')
  const [back, setBack] = useState('')
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const again = review.editions > 0
  const act = async (path: string, body: object, said: string): Promise<void> => {
    setBusy(true)
    setFailure('')
    try {
      await actOnReview(`/reviews/${review.id}/${path}`, body)
      setWhat('')
      setWhy('')
      setBack('')
      toast(said)
    } catch (error) {
      setFailure(errorMessage(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <section aria-labelledby="publish-title" className="space-y-3">
      <h2 id="publish-title">{again ? 'Publish a correction' : 'Publish it'}</h2>
      <p className="muted text-[0.92rem]">
        {again
          ? 'Another edition, with what was wrong and why. The one before stays readable.'
          : 'After publishing, this edition cannot be changed.'}
      </p>
      {again && (
        <>
          <Field label="What was wrong" value={what} onChange={setWhat} />
          <Field label="Why it was" value={why} onChange={setWhy} />
        </>
      )}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-primary btn-sm"
          disabled={busy || !review.title.trim() || (again && !(what.trim() && why.trim()))}
          onClick={() => void act('publish', again ? { what, why } : {}, again ? 'Corrected.' : 'Published.')}
        >
          {again ? 'Publish the correction' : 'Publish'}
        </button>
        <button
          type="button"
          className="btn btn-sm"
          disabled={busy}
          onClick={() => void act('retake', {}, 'The draft has today’s numbers.')}
        >
          Update to today’s numbers
        </button>
      </div>
      {!review.title.trim() && <p className="text-warning text-[0.88rem]">It needs a title first.</p>}
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
      {again && review.state !== 'withdrawn' && (
        <details>
          <summary className="cursor-pointer">Withdraw this review</summary>
          <div className="mt-2 space-y-2">
            <Field label="Why it is taken back" value={back} onChange={setBack} />
            <button
              type="button"
              className="btn btn-sm"
              disabled={busy || !back.trim()}
              onClick={() => void act('withdraw', { why: back }, 'Withdrawn. Its links say so.')}
            >
              Withdraw
            </button>
          </div>
        </details>
      )}
    </section>
  )
}

const MOST = 2000

const Field = ({
  label,
  value,
  onChange,
}: {
  readonly label: string
  readonly value: string
  readonly onChange: (v: string) => void
}) => (
  <label className="block">
    <span className="kicker">{label}</span>
    <textarea
      className="field"
      rows={2}
      maxLength={MOST}
      value={value}
      onChange={(e) => onChange(e.target.value)}
    />
  </label>
)
