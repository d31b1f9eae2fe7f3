import { useId } from 'react'

interface Props {
  readonly day: number
  readonly until: number
  readonly onDay: (day: number) => void
}

/** A day of the forecast: a slider, and keys for those people ask for. */
export function DaySlider({ day, until, onDay }: Props) {
  const id = useId()
  const keys = [0, 30, 90, 180, 365].filter((d) => d <= until)
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
      <label htmlFor={id} className="whitespace-nowrap">
        After <span className="inline-block w-8 text-right font-medium tabular-nums">{day}</span> days
      </label>
      <input
        id={id}
        type="range"
        className="range range-xs min-w-40 flex-1"
        min={0}
        max={until}
        step={1}
        value={day}
        aria-valuetext={`${day} days`}
        onChange={(e) => onDay(Number(e.target.value))}
      />
      <span className="flex gap-1">
        {keys.map((d) => (
          <button
            key={d}
            type="button"
            className={`btn btn-xs max-sm:h-11 max-sm:px-3 ${d === day ? 'btn-active' : ''}`}
            aria-pressed={d === day}
            aria-label={d === 0 ? 'Clean' : `After ${d} days`}
            onClick={() => onDay(d)}
          >
            {d}
          </button>
        ))}
      </span>
    </div>
  )
}
