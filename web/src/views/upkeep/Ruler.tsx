import { dayAfter, daysBetween, partsOfDay, type Day } from '@ypsometer/core/days/days'
import type { Occasion } from '@ypsometer/core/upkeep/plan'
import { showDay } from '../../settings/when'
import type { Stop } from './useRound'

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const HEIGHT = 34
const BASE = 30

interface Span {
  readonly from: Day
  readonly to: Day
  readonly today: Day
}

/** A ruler of weeks: a line a filter, a stroke for each piece of work on its day. */
export function Ruler({ stops, span }: { readonly stops: readonly Stop[]; readonly span: Span }) {
  return (
    <section aria-labelledby="ruler-title">
      <h2 id="ruler-title">Sixteen weeks</h2>
      <p className="muted text-[0.92rem]">
        Each line is a task: short = rinse, tall = other; bold = done, thin = planned. Boxed number = overdue
        today.
      </p>
      <div className="mt-2 overflow-x-auto" tabIndex={0} role="region" aria-label="Ruler of weeks">
        <div className="min-w-[56rem]">
          <div className="grid grid-cols-[20rem_minmax(0,1fr)] items-end">
            <span />
            <Scale span={span} />
          </div>
          {stops.map(({ tank, lines }) => (
            <div key={tank.id} className="rule-b grid grid-cols-[12rem_minmax(0,1fr)] py-0.5">
              <div className="min-w-0 pr-3 leading-tight">
                <span className="block truncate font-medium">{tank.name}</span>
                <span className="muted block truncate text-[0.82rem]">{tank.place}</span>
              </div>
              <div>
                {lines.map(({ filter, occasions }) => (
                  <div key={filter.id} className="grid grid-cols-[8rem_minmax(0,1fr)] items-end">
                    <span className="truncate pr-3 pb-0.5 text-[0.88rem]">{filter.label}</span>
                    <FilterLine label={filter.label} occasions={occasions} span={span} />
                  </div>
                ))}
              </div>
            </div>
          ))}
        </div>
      </div>
    </section>
  )
}

const place = (day: Day, { from, to }: Span): number => (100 * daysBetween(from, day)) / daysBetween(from, to)

/** Weeks with their Mondays; the first of a month by its name. */
function Scale({ span }: { readonly span: Span }) {
  const weeks = Math.round(daysBetween(span.from, span.to) / 7)
  const mondays = Array.from({ length: weeks + 1 }, (_, i) => dayAfter(span.from, 7 * i))
  return (
    <div className="num relative h-9 text-[0.8rem]" aria-hidden="true">
      {mondays.slice(0, -1).map((m) => {
        const [, month, day] = partsOfDay(m)
        const first = day <= 7
        return (
          <span key={m} className="absolute bottom-1.5 pl-0.5" style={{ left: `${place(m, span)}%` }}>
            {first ? <span className="font-semibold">{MONTHS[month - 1]}</span> : day}
          </span>
        )
      })}
      <svg viewBox="0 0 100 8" preserveAspectRatio="none" className="absolute bottom-0 h-2 w-full">
        <path
          d={mondays.map((m) => `M${place(m, span)} 8V${partsOfDay(m)[2] <= 7 ? 0 : 3}`).join('')}
          stroke="var(--color-secondary)"
          vectorEffect="non-scaling-stroke"
          fill="none"
        />
      </svg>
    </div>
  )
}

interface LineProps {
  readonly label: string
  readonly occasions: readonly Occasion[]
  readonly span: Span
}

const tall = (o: Occasion): number => (o.chore.task === 'prefilter' ? 9 : 20)

function FilterLine({ label, occasions, span }: LineProps) {
  const now = place(span.today, span)
  const overdue = occasions.filter((o) => o.state === 'overdue')
  const said = `${label}: ${overdue.length} overdue, ${occasions.filter((o) => o.state === 'due').length} due today, ${occasions.filter((o) => o.state === 'done').length} done in these weeks`
  return (
    <div className="relative" role="img" aria-label={said}>
      <svg viewBox={`0 0 100 ${HEIGHT}`} preserveAspectRatio="none" className="block h-[34px] w-full">
        <path d={`M0 ${BASE}H100`} stroke="var(--color-base-300)" vectorEffect="non-scaling-stroke" />
        <path
          d={`M${now} 2V${HEIGHT}`}
          stroke="var(--color-primary)"
          strokeWidth="1.5"
          vectorEffect="non-scaling-stroke"
        />
        {occasions
          .filter((o) => o.state !== 'overdue')
          .map((o) => (
            <path
              key={`${o.chore.key}${o.due}`}
              d={`M${place(o.on, span)} ${BASE}V${BASE - tall(o)}`}
              stroke={o.state === 'skipped' ? 'var(--color-secondary)' : 'var(--color-base-content)'}
              strokeWidth={o.state === 'done' ? 4 : 1.2}
              strokeDasharray={o.state === 'skipped' ? '2 2' : undefined}
              vectorEffect="non-scaling-stroke"
            >
              <title>{`${o.chore.label}, ${showDay(o.on)}: ${o.state}`}</title>
            </path>
          ))}
      </svg>
      {overdue.length > 0 && (
        <span
          className="border-warning text-warning bg-base-100 num absolute top-1 -translate-x-1/2 border-2 px-1 text-[0.8rem] leading-tight font-semibold"
          style={{ left: `${now}%` }}
          title={overdue.map((o) => `${o.chore.label}, due ${showDay(o.due)}`).join('; ')}
        >
          {overdue.length}
        </span>
      )}
    </div>
  )
}
