import type { Snapshot } from '@ypsometer/contract/review'
import type { Length } from '@ypsometer/core/review/blocks'
import { useState } from 'react'
import { decimal, DECIMALS, units, type Decimal } from '../../settings/settings'
import { errorMessage } from '../../api/errorMessage'
import type { ReviewDoc } from '../../review/document'
import { saveCard, saveHtml, saveJson, saveMarkdown, saveNarration, type Going } from '../../review/outs'

interface Props {
  readonly photo: (id: string) => string
  readonly doc: ReviewDoc
  readonly length: Length
  readonly snapshot: Snapshot
  readonly paper: string
  readonly onPaper: (paper: string) => void
}

const PAPERS = [
  ['a4', 'A4'],
  ['letter', 'Letter'],
] as const
const SIGN_WORDS: Readonly<Record<Decimal, string>> = { '.': '1.5', ',': '1,5' }

/** Ways out of the app: paper, files, a card, a sheet for whoever films. */
export function Outs({ photo, doc, length, snapshot, paper, onPaper }: Props) {
  const system = units.use()
  const sign = decimal.use()
  const [failure, setFailure] = useState('')
  const going: Going = {
    doc,
    length,
    reader: { system, decimal: sign },
    photo,
  }
  const out = (label: string, go: () => void | Promise<void>) => (
    <button
      type="button"
      className="btn btn-sm"
      onClick={() => {
        setFailure('')
        void Promise.resolve()
          .then(go)
          .catch((error: unknown) => setFailure(errorMessage(error)))
      }}
    >
      {label}
    </button>
  )
  return (
    <section aria-labelledby="outs-title" className="space-y-3">
      <h2 id="outs-title">Export</h2>
      <div className="flex flex-wrap items-end gap-3">
        <label>
          <span className="kicker block">Paper</span>
          <select className="select select-sm w-auto" value={paper} onChange={(e) => onPaper(e.target.value)}>
            {PAPERS.map(([k, words]) => (
              <option key={k} value={k}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="kicker block">Numbers as</span>
          <select
            className="select select-sm w-auto"
            value={sign}
            onChange={(e) => decimal.set(e.target.value as Decimal)}
          >
            {DECIMALS.map((d) => (
              <option key={d} value={d}>
                {SIGN_WORDS[d]}
              </option>
            ))}
          </select>
        </label>
        {out('Print', () => window.print())}
      </div>
      <p className="muted text-[0.88rem]">
        Exports what you see: this length, edition and units. The disclosure is always included.
      </p>
      <div className="flex flex-wrap gap-2">
        {out('One HTML file', () => saveHtml(going))}
        {out('Markdown', () => saveMarkdown(going))}
        {out('JSON', () => saveJson(going, snapshot))}
        {out('Card, SVG', () => saveCard(going, 'svg'))}
        {out('Card, PNG', () => saveCard(going, 'png'))}
        {out('Video script', () => saveNarration(going))}
      </div>
      {failure && (
        <p role="alert" className="text-error">
          {failure}
        </p>
      )}
    </section>
  )
}
