interface Props {
  readonly label: string
  /** Null: nobody said. */
  readonly on: string | null
  readonly onChange: (on: string | null) => void
}

/** The day a price was noted on, small under it. */
export const DayNoted = ({ label, on, onChange }: Props) => (
  <label className="muted flex items-baseline gap-1.5 text-[0.85rem] whitespace-nowrap">
    as of
    <input
      type="date"
      aria-label={label}
      className="num border-base-300 min-h-6 border-b border-dotted bg-transparent"
      value={on ?? ''}
      onChange={(e) => onChange(e.target.value || null)}
    />
  </label>
)
