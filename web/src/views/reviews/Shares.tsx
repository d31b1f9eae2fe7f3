import type { Review, ReviewShare } from '@ypsometer/contract'
import { useState } from 'react'
import { actOnReview, makeShare } from '../../api/reviews'
import { errorMessage } from '../../api/errorMessage'
import { showDay, today } from '../../settings/when'
import { toast } from '../../frame/toastStore'

/** Links that read this review without an account. */
export function Shares({
  review,
  shares,
}: {
  readonly review: Review
  readonly shares: readonly ReviewShare[]
}) {
  const [label, setLabel] = useState('')
  const [expires, setExpires] = useState('')
  const [link, setLink] = useState('')
  const [failure, setFailure] = useState('')
  const make = async (): Promise<void> => {
    setFailure('')
    try {
      const secret = await makeShare(review.id, { label: label.trim(), expiresOn: expires || null })
      setLink(`${location.origin}/s/${secret}`)
      setLabel('')
    } catch (error) {
      setFailure(errorMessage(error))
    }
  }
  return (
    <section aria-labelledby="shares-title" className="space-y-3">
      <h2 id="shares-title">Links</h2>
      <p className="muted text-[0.92rem]">
        Anyone with the link can read this review only. No account, no cookies. You can revoke it.
      </p>
      <div className="flex flex-wrap items-end gap-3">
        <label className="grow">
          <span className="kicker">For whom</span>
          <input className="field" value={label} maxLength={80} onChange={(e) => setLabel(e.target.value)} />
        </label>
        <label>
          <span className="kicker block">Until</span>
          <input
            type="date"
            className="field num w-40"
            value={expires}
            min={today()}
            onChange={(e) => setExpires(e.target.value)}
          />
        </label>
        <button type="button" className="btn btn-sm" onClick={() => void make()}>
          Create a link
        </button>
      </div>
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
      {link && (
        <div role="status" className="border-primary space-y-2 border-l-4 pl-3">
          <p>Copy the link now. It will not be shown again.</p>
          <input
            className="field num text-[0.88rem]"
            readOnly
            aria-label="The link"
            value={link}
            onFocus={(e) => e.target.select()}
          />
          <button
            type="button"
            className="btn btn-sm"
            onClick={() =>
              void navigator.clipboard.writeText(link).then(
                () => toast('Copied.'),
                () => setFailure('Not copied. Select and copy it yourself.'),
              )
            }
          >
            Copy
          </button>
        </div>
      )}
      <ul className="rule-t">
        {shares.map((s) => (
          <li key={s.id} className="rule-b flex items-baseline justify-between gap-3 py-1.5">
            <span className="min-w-0" style={{ overflowWrap: 'anywhere' }}>
              <span dir="auto">{s.label || 'a link'}</span>
              <span className="muted block text-[0.85rem]">
                made {showDay(s.createdAt.slice(0, 10))}, read {s.readings}{' '}
                {s.readings === 1 ? 'time' : 'times'}
                {s.revokedAt ? ', revoked' : s.expiresOn ? `, until ${showDay(s.expiresOn)}` : ''}
              </span>
            </span>
            {!s.revokedAt && (
              <button
                type="button"
                className="btn btn-ghost btn-xs"
                onClick={() =>
                  void actOnReview(`/shares/${s.id}/revoke`).catch((e: unknown) =>
                    setFailure(errorMessage(e)),
                  )
                }
              >
                Revoke
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}
