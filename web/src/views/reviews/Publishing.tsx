import type { Review } from '@ypsometer/contract'
import { readiness } from '@ypsometer/core/review/ready'
import type { Sheet } from '@ypsometer/core/review/sheet'
import { Check, Minus } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { actOnReview } from '../../api/reviews'
import { errorMessage } from '../../api/errorMessage'
import { toast } from '../../frame/toastStore'

/** Place in the dossier where each of them is mended. */
const WHERE = { disclosure: 'strip#disclosure', measured: 'bench#standard-tests', pictures: 'strip' } as const

/** Ends of a review: published, corrected, withdrawn; and its numbers taken anew. */
export function Publishing({ review, sheet }: { readonly review: Review; readonly sheet: Sheet }) {
  const [what, setWhat] = useState('')
  const [why, setWhy] = useState('')
  const [back, setBack] = useState('')
  const [failure, setFailure] = useState('')
  const [busy, setBusy] = useState(false)
  const [read, setRead] = useState(false)
  const [anyway, setAnyway] = useState('')
  const again = review.editions > 0
  const list = readiness(review.title, sheet)
  const lacks = list.some((r) => !r.met)
  const told = !again || (what.trim() !== '' && why.trim() !== '')
  const ready = review.title.trim() !== '' && read && told && (!lacks || anyway.trim() !== '')
  const act = async (path: string, body: object, said: string): Promise<void> => {
    setBusy(true)
    setFailure('')
    try {
      await actOnReview(`/reviews/${review.id}/${path}`, body)
      setWhat('')
      setWhy('')
      setBack('')
      setAnyway('')
      setRead(false)
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
      <ul aria-label="Checklist" className="space-y-1">
        {list.map((r) => (
          <li key={r.id} className={`flex items-center gap-2 ${r.met ? '' : 'text-warning'}`}>
            {r.met ? <Check size={16} aria-hidden="true" /> : <Minus size={16} aria-hidden="true" />}
            {r.met || r.id === 'title' ? (
              r.asks
            ) : (
              <Link to={`/models/${review.modelId}/${WHERE[r.id]}`} className="link">
                {r.asks}
              </Link>
            )}
            <span className="sr-only">{r.met ? ': done' : ': missing'}</span>
          </li>
        ))}
        <li>
          <label className="flex cursor-pointer items-center gap-2">
            <input
              type="checkbox"
              className="checkbox checkbox-md"
              checked={read}
              onChange={(e) => setRead(e.target.checked)}
            />
            I have read the preview
          </label>
        </li>
      </ul>
      {lacks && (
        <Field
          label="Publish anyway, because (printed with the review)"
          value={anyway}
          onChange={setAnyway}
        />
      )}
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
          disabled={busy || !ready}
          onClick={() =>
            void act(
              'publish',
              { ...(again && { what, why }), ...(lacks && { anyway }) },
              again ? 'Corrected.' : 'Published.',
            )
          }
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
      {!review.title.trim() && <p className="text-warning text-[0.88rem]">Add a title first.</p>}
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
      {again && review.state !== 'withdrawn' && (
        <details>
          <summary className="cursor-pointer">Withdraw this review</summary>
          <div className="mt-2 space-y-2">
            <Field label="Why it is withdrawn" value={back} onChange={setBack} />
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
