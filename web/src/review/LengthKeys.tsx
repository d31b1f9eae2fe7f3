import { LENGTHS, type Length } from '@ypsometer/core/review/blocks'

const WORDS: Readonly<Record<Length, string>> = { card: 'Card', page: 'One page', whole: 'Full report' }

interface Props {
  readonly length: Length
  readonly onLength: (length: Length) => void
}

/** How much of a review is read. */
export const LengthKeys = ({ length, onLength }: Props) => (
  <div role="group" aria-label="Length" className="flex gap-1">
    {LENGTHS.map((l) => (
      <button
        key={l}
        type="button"
        aria-pressed={l === length}
        className={`btn btn-sm ${l === length ? 'btn-neutral' : ''}`}
        onClick={() => onLength(l)}
      >
        {WORDS[l]}
      </button>
    ))}
  </div>
)
