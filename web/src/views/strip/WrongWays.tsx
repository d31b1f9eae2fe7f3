import type { Part } from '@ypsometer/contract'
import { Words } from '../../figures/Words'
import { foolproof, placeWords, suits, wrongWays } from '@ypsometer/core/teardown/placing'

/** Mistakes one can make, and whom the filter suits by that. */
export function WrongWays({ parts }: { readonly parts: readonly Part[] }) {
  const wrong = wrongWays(parts)
  const safe = foolproof(parts)
  const { reason } = suits(parts)
  return (
    <section aria-labelledby="wrong-title" className="as-needed">
      <h2 id="wrong-title">Parts that can be fitted wrong</h2>
      <p className={reason.tone === 'caution' ? 'text-warning' : ''}>
        <Words sentence={reason.sentence} />
      </p>
      {wrong.length > 0 && (
        <ul className="rule-t mt-2">
          {wrong.map((w) => (
            <li key={w.part.id} className="rule-b grid grid-cols-[5.5rem_minmax(0,1fr)] gap-x-3 py-1.5">
              <span className={`kicker pt-0.5 ${w.marked ? '' : '!text-warning'}`}>
                {w.marked ? 'marked' : 'unmarked'}
              </span>
              <span>{w.says}</span>
            </li>
          ))}
        </ul>
      )}
      {safe.length > 0 && (
        <p className="muted mt-2 text-[0.92rem]">Only fit one way: {safe.map(placeWords).join('; ')}.</p>
      )}
    </section>
  )
}
