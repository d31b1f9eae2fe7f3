import { TASK_KINDS } from '@ypsometer/core/upkeep/rule'
import { CalendarDays, Printer, Undo2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { makeCalendarKey, useMe } from '../../api/people'
import { QuantityField, TextField } from '../../fields/fields'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { errorMessage } from '../../api/errorMessage'
import { Failed, Loading } from '../../frame/States'
import { toast } from '../../frame/toastStore'
import { showDay } from '../../settings/when'
import { Ruler } from './Ruler'
import { ToDo } from './ToDo'
import { useRound, type Round, type Stop } from './useRound'
import { Heading } from '../../frame/Heading'
import { Sheet } from '../../figures/Sheet'

/** Tasks at which filter when, by the house rule: a round for whoever serves many tanks. */
export function Upkeep() {
  const round = useRound()
  const [params, setParams] = useSearchParams()
  const { stops, error, places, rule } = round
  const place = params.get('place')
  if (error) return <Failed error={error} what="the maintenance" retry={round.retry} />
  if (!stops) return <Loading />
  const here = place === null ? stops : stops.filter((s) => s.tank.place === place)
  const file = `/api/v1/upkeep.ics${place === null ? '' : `?place=${encodeURIComponent(place)}`}`
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <div>
          <Heading>Maintenance</Heading>
          <p className="muted max-w-2xl">
            {rule.by === 'date'
              ? 'By the calendar'
              : `Open the filter when the forecast says flow is down by ${Math.round(rule.fall * 100)} %; the rest by calendar`}
            , by{' '}
            <Link to="/rules" className="link">
              {round.house ? `house rules “${round.house}”` : 'the house rules'}
            </Link>
            . Intervals are common practice.
          </p>
        </div>
        <div className="no-print flex flex-wrap items-end gap-3">
          <label>
            <span className="kicker block">Location</span>
            <select
              className="select w-auto"
              value={place ?? '*'}
              onChange={(e) =>
                setParams(e.target.value === '*' ? {} : { place: e.target.value }, { replace: true })
              }
            >
              <option value="*">all</option>
              {places.map((p) => (
                <option key={p} value={p}>
                  {p || 'no location'}
                </option>
              ))}
            </select>
          </label>
          <button type="button" className="btn btn-sm" onClick={() => window.print()}>
            <Printer size={16} aria-hidden="true" /> Print
          </button>
          <Subscribe file={file} />
        </div>
      </div>
      {stops.length === 0 ? (
        <p className="mt-6 max-w-xl">
          No filter is running on a tank yet.{' '}
          <Link to="/tanks" className="link">
            Add a filter to a tank
          </Link>
          , and its tasks appear here.
        </p>
      ) : (
        <div className="mt-6 space-y-9">
          <ToDo stops={here} round={round} />
          <Ruler stops={here} span={round} />
          <Lately round={round} stops={here} />
        </div>
      )}
    </>
  )
}

/** The calendar for other programs: as a file, or as an address that they read again by themselves. */
function Subscribe({ file }: { readonly file: string }) {
  const [open, setOpen] = useState(false)
  const [key, setKey] = useState<string | null>(null)
  const signsIn = useMe().data?.by === 'session'
  const address = new URL(file, window.location.href)
  if (key) address.searchParams.set('key', key)
  return (
    <div className="relative">
      <button type="button" className="btn btn-sm" aria-expanded={open} onClick={() => setOpen(!open)}>
        <CalendarDays size={16} aria-hidden="true" /> Calendar
      </button>
      {open && (
        <div className="bg-base-100 border-base-content absolute right-0 z-10 mt-1 w-80 space-y-2 border p-3 text-[0.95rem]">
          <p>
            <a className="link" href={file} download="upkeep.ics">
              Download the calendar
            </a>{' '}
            (iCalendar), or subscribe to its address:
          </p>
          {signsIn && (
            <p>
              Other programs cannot sign in. They need a link that reads only the calendar. A new link
              replaces the old one.{' '}
              <button
                type="button"
                className="btn btn-xs"
                onClick={() => void makeCalendarKey().then(setKey, (e: unknown) => toast(errorMessage(e)))}
              >
                Create a link
              </button>
            </p>
          )}
          <input
            className="field num text-[0.88rem]"
            readOnly
            value={address.href}
            aria-label="Address of the calendar"
            onFocus={(e) => e.target.select()}
          />
        </div>
      )}
    </div>
  )
}

const SHOWN = 12

/** The last tick: minutes and a note can be added, and a slip taken back. */
function Lately({ round, stops }: { readonly round: Round; readonly stops: readonly Stop[] }) {
  const done = round.ticks
    .filter((t) => stops.some((s) => s.tank.id === t.tankId))
    .sort((a, b) => b.updatedAt.localeCompare(a.updatedAt) || b.on.localeCompare(a.on))
    .slice(0, SHOWN)
  if (!done.length) return null
  const words = { done: 'done', skipped: 'skipped', moved: 'moved to' } as const
  return (
    <section aria-labelledby="lately-title" className="no-print">
      <h2 id="lately-title">Recently done</h2>
      <Sheet
        columns={[
          'Work',
          'When',
          { label: 'Minutes', className: 'w-24' },
          { label: 'Note', className: 'max-sm:hidden' },
          <span className="sr-only">Undo</span>,
        ]}
      >
        {done.map((t) => {
          const tank = stops.find((s) => s.tank.id === t.tankId)?.tank
          const name = `${TASK_KINDS[t.task].label}, ${tank?.name ?? ''}`
          return (
            <tr key={t.id}>
              <td>
                {TASK_KINDS[t.task].label}
                <span className="muted block text-[0.85rem]">{tank?.name}</span>
              </td>
              <td className="num">
                {words[t.state]} {showDay(t.on)}
              </td>
              <td>
                <QuantityField
                  collection="ticks"
                  row={t}
                  field="minutes"
                  label={`Minutes for ${name}`}
                  hideLabel
                />
              </td>
              <td className="max-sm:hidden">
                <TextField collection="ticks" row={t} field="note" label={`Note on ${name}`} hideLabel />
              </td>
              <td className="r">
                <IconButton
                  label={`Undo: ${name}`}
                  icon={Undo2}
                  onClick={() => removeRow('ticks', t, name)}
                />
              </td>
            </tr>
          )
        })}
      </Sheet>
    </section>
  )
}
