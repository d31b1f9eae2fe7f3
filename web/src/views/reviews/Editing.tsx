import { ownWords } from '../../review/ownWords'
import type { Review } from '@ypsometer/contract'
import { BUYS } from '@ypsometer/contract/lists'
import type { Section } from '@ypsometer/core/review/blocks'
import { useEffect, useId, useRef, useState } from 'react'
import { changeRow } from '../../api/rows'
import { SelectField, TextField } from '../../fields/fields'
import { Parked } from '../../fields/Parked'

const BUY_WORDS = { yes: 'I would buy it', no: 'I would not', if: 'With a change' } as const
const WORDS = 8000

/** The editor’s words. They stand round the numbers and can change none of them. */
export function Editing({
  review,
  sections,
}: {
  readonly review: Review
  readonly sections: readonly Section[]
}) {
  const common = { collection: 'reviews', row: review } as const
  return (
    <section aria-labelledby="words-title" className="space-y-3">
      <h2 id="words-title">Your words</h2>
      <TextField {...common} field="title" label="Title" />
      <TextField {...common} field="intro" label="Before the numbers" lines={3} />
      <SelectField
        {...common}
        field="buy"
        label="Would you buy it?"
        none="not said"
        options={BUYS.map((b) => [b, BUY_WORDS[b]] as const)}
      />
      {review.buy && <TextField {...common} field="buyWhy" label="Reason" lines={2} />}
      <Parked row={review} field="words" what="The words under the sections" />
      <details>
        <summary className="cursor-pointer">Under each section</summary>
        <div className="mt-2 space-y-3">
          {sections.map((s) => (
            <SectionWords key={s.id} review={review} section={s} />
          ))}
        </div>
      </details>
    </section>
  )
}

/** How long nothing is typed before it is kept (ms). */
const PAUSE = 500

/** Words under one section, kept as they are typed. */
function SectionWords({ review, section }: { readonly review: Review; readonly section: Section }) {
  const id = useId()
  const kept = ownWords(review.words, section.id)
  const [text, setText] = useState<string | null>(null)
  const latest = useRef({ review, text })
  useEffect(() => {
    latest.current = { review, text }
  })
  const write = (): void => {
    const { review: now, text: typed } = latest.current
    if (typed === null || typed === ownWords(now.words, section.id)) return
    changeRow('reviews', now, { words: { ...now.words, [section.id]: typed } })
  }
  useEffect(() => {
    if (text === null) return
    const timer = setTimeout(write, PAUSE)
    return () => clearTimeout(timer)
    // Written after a pause in typing, whatever is drawn meanwhile.
    // oxlint-disable-next-line react/exhaustive-deps
  }, [text])
  return (
    <div>
      <label className="kicker" htmlFor={id}>
        {section.title}
      </label>
      <textarea
        id={id}
        className="field"
        rows={2}
        maxLength={WORDS}
        value={text ?? kept}
        onChange={(e) => setText(e.target.value)}
        onBlur={() => {
          write()
          setText(null)
        }}
      />
    </div>
  )
}
