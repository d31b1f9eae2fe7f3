import { dayAfter } from '@ypsometer/core/days/days'
import type { Occasion } from '@ypsometer/core/upkeep/plan'
import { Check } from 'lucide-react'
import { useState } from 'react'
import { Link } from 'react-router'
import { showDay } from '../../settings/when'
import { settle, type Round, type Stop } from './useRound'

/** Days ahead that count as this week. */
const WEEK = 7

/** To be done by a day; what comes after something overdue waits until that is done. */
function isNow(o: Occasion, end: string, all: readonly Occasion[]): boolean {
  if (o.state === 'overdue' || o.state === 'due') return true
  const waits = all.some((x) => x.chore === o.chore && x.state === 'overdue')
  return o.state === 'ahead' && o.on < end && !waits
}

/** Tasks until the end of the next seven days, tank by tank, in the order of the round. */
export function ToDo({ stops, round }: { readonly stops: readonly Stop[]; readonly round: Round }) {
  const end = dayAfter(round.today, WEEK)
  const list = stops
    .map((s) => ({
      ...s,
      work: s.lines.flatMap((l) =>
        l.occasions.filter((o, _, all) => isNow(o, end, all)).map((o) => ({ filter: l.filter, o })),
      ),
    }))
    .filter((s) => s.work.length > 0)
  const all = list.reduce((n, s) => n + s.work.length, 0)
  const overdue = list.reduce((n, s) => n + s.work.filter((w) => w.o.state === 'overdue').length, 0)
  return (
    <section aria-labelledby="todo-title">
      <h2 id="todo-title">This week</h2>
      <p className="muted" role="status">
        {all === 0
          ? 'Nothing is due in the next seven days.'
          : `${all} to do at ${list.length} ${list.length === 1 ? 'tank' : 'tanks'}${overdue ? `, ${overdue} of them overdue` : ''}.`}
      </p>
      <div className="mt-2 gap-x-10 lg:columns-2">
        {list.map(({ tank, work }) => (
          <div key={tank.id} className="mb-4 break-inside-avoid">
            <h3 className="flex flex-wrap items-baseline gap-x-3">
              <Link to={`/tanks/${tank.id}`} className="hover:underline">
                {tank.name}
              </Link>
              <span className="muted text-[0.88rem] font-normal">{tank.place}</span>
            </h3>
            <ul>
              {work.map(({ filter, o }) => (
                <Job key={`${o.chore.key}${o.due}`} label={filter.label} o={o} today={round.today} />
              ))}
            </ul>
          </div>
        ))}
      </div>
    </section>
  )
}

function Job({ label, o, today }: { readonly label: string; readonly o: Occasion; readonly today: string }) {
  const [more, setMore] = useState(false)
  const [to, setTo] = useState(dayAfter(today, WEEK))
  const { chore } = o
  return (
    <li className="rule-b py-1.5">
      <div className="flex items-center gap-3">
        <button
          type="button"
          className="btn btn-sm no-print min-h-11 shrink-0"
          aria-label={`Done: ${chore.label}, ${label}`}
          onClick={() => settle(o, 'done', today)}
        >
          <Check size={18} aria-hidden="true" /> Done
        </button>
        <span
          className="border-base-content hidden h-4 w-4 shrink-0 border print:inline-block"
          aria-hidden="true"
        />
        <span className="min-w-0 flex-1 leading-snug">
          {chore.label}
          <span className="muted block text-[0.88rem]">
            {label}
            {chore.water && `, ${chore.water}`}
            {chore.byFlow && ', by the flow forecast'}
            {o.putOff && ', postponed: never clean all bio media at once'}
          </span>
        </span>
        <span
          className={`num text-right text-[0.92rem] whitespace-nowrap ${o.state === 'overdue' ? 'text-warning font-medium' : 'muted'}`}
        >
          {o.state === 'due' ? 'today' : showDay(o.on)}
          {o.state === 'overdue' && <span className="block text-[0.82rem]">overdue</span>}
        </span>
        <button
          type="button"
          className="btn btn-ghost btn-sm no-print min-h-11"
          aria-expanded={more}
          aria-label={`More: ${chore.label}, ${label}`}
          onClick={() => setMore(!more)}
        >
          …
        </button>
      </div>
      {more && (
        <div className="no-print bg-base-200 mt-1.5 space-y-2 p-2.5 text-[0.95rem]">
          <p>{chore.how}</p>
          <div className="flex flex-wrap items-end gap-3">
            <button type="button" className="btn btn-sm min-h-11" onClick={() => settle(o, 'skipped', today)}>
              Skip this time
            </button>
            <label>
              <span className="kicker block">Move to</span>
              <input
                type="date"
                className="field w-40"
                value={to}
                min={today}
                onChange={(e) => setTo(e.target.value)}
              />
            </label>
            <button
              type="button"
              className="btn btn-sm min-h-11"
              disabled={!to}
              onClick={() => {
                settle(o, 'moved', to)
                setMore(false)
              }}
            >
              Move
            </button>
          </div>
        </div>
      )}
    </li>
  )
}
