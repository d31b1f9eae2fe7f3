import { KitQuestion, useKit } from '../../tank/KitCounts'
import { kitCounts } from '../../settings/settings'
import type { ChangeOver as Row, Tank } from '@ypsometer/contract'
import { KIT_ZERO } from '@ypsometer/core/biology/balance'
import { daysBetween } from '@ypsometer/core/days/days'
import { CHANGE_WAYS, type ChangeWay } from '@ypsometer/core/hands/vocabulary'
import { plainSteps, type ChangePlan, type PlannedTest } from '@ypsometer/core/hands/changeWords'
import { Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useParams } from 'react-router'
import { changeRow } from '../../api/rows'
import { DateField, SelectField, TextField } from '../../fields/fields'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { FigureView } from '../../figures/FigureView'
import { Num } from '../../figures/Num'
import { IconButton } from '../../frame/IconButton'
import { Failed, Loading } from '../../frame/States'
import { showDay, today } from '../../settings/when'
import { Said } from '../../tank/Balance'
import { nameOf, useChange, type Change } from './useChange'
import { SeriesChart } from '../../charts'
import { Heading } from '../../frame/Heading'
import { right, Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

const DAY = 86400

const WAY_WORDS: Readonly<Record<ChangeWay, string>> = {
  beside: 'Run both for weeks',
  moved: 'Move mature media',
  starter: 'Swap at once with bottled bacteria',
}

/** One filter changed for another: what to do on which day, what the water should do, and what it did. */
export function ChangeOver() {
  const { id = '', changeId = '' } = useParams()
  const found = useChange(id, changeId)
  const { tank, change, waiting, error } = found
  if (waiting) return error ? <Failed error={error} what="the tanks" /> : <Loading />
  if (!tank || !change) return <p>This filter swap does not exist. It may have been deleted.</p>
  return <ChangeSheet tank={tank} change={change} found={found} />
}

function ChangeSheet({
  tank,
  change,
  found,
}: {
  readonly tank: Tank
  readonly change: Row
  readonly found: Change
}) {
  const { plan, old, next, missing } = found
  const answer = plan.answer
  const steps = answer?.steps ?? plainSteps(change, change.on)
  const awaited = !missing && !answer && !plan.failure
  return (
    <>
      <p className="kicker">
        <Explained>Filter swap</Explained> ·{' '}
        <Link to={`/tanks/${tank.id}`} className="link">
          {tank.name}
        </Link>
      </p>
      <Heading>{old ? `${nameOf(old)} to ${nameOf(next)}` : `${nameOf(next)} added`}</Heading>
      <Ask change={change} />
      {missing && <p className="text-warning mt-3">{missing} The dates below stay as agreed.</p>}
      {plan.failure && (
        <p role="alert" className="text-error mt-3">
          This cannot be calculated. {plan.failure}
        </p>
      )}
      <div
        className={`mt-5 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-[minmax(0,1fr)_minmax(0,1.1fr)] ${plan.busy ? 'opacity-60' : ''}`}
        aria-busy={plan.busy}
      >
        <div className="min-w-0 space-y-7">
          {answer ? (
            <Ends plan={answer} />
          ) : (
            awaited && (
              <div className="min-h-20">
                <Loading />
              </div>
            )
          )}
          <section aria-labelledby="steps-title">
            <h2 id="steps-title">What to do</h2>
            <Parked row={change} field="done" what="What was done" />
            <ol className="rule-t mt-1">
              {steps.map((s) => (
                <li key={s.id} className="rule-b grid grid-cols-[minmax(0,1fr)] py-1.5">
                  <label className="flex items-start gap-3">
                    <input
                      type="checkbox"
                      className="checkbox mt-1"
                      checked={s.id in change.done}
                      onChange={(e) => tickStep(change, s.id, e.target.checked)}
                    />
                    <span className="min-w-0">
                      <span
                        className={`num mr-2 ${late(s.on, s.id in change.done) ? 'text-warning font-medium' : 'muted'}`}
                      >
                        {showDay(s.on)}
                      </span>
                      {s.says}
                      <span className="muted block text-[0.88rem]">
                        {s.why}
                        {change.done[s.id] && ` Done on ${showDay(change.done[s.id] ?? '')}.`}
                      </span>
                    </span>
                  </label>
                </li>
              ))}
            </ol>
            <OnTheTank tank={tank} change={change} found={found} />
          </section>
          <TextField
            collection="change-overs"
            row={change}
            field="note"
            label="In your own words"
            lines={2}
          />
        </div>
        <div className="min-w-0 space-y-7">
          {(answer || awaited) && (
            <section aria-labelledby="water-title">
              <h2 id="water-title">Water forecast at full feeding</h2>
              <div className="min-h-82">
                {answer && (
                  <SeriesChart
                    series={seriesOf(answer, change)}
                    dimension="concentration"
                    label="Ammonia and nitrite, as N"
                    name={`Filter swap at ${tank.name}`}
                    height={250}
                    zero
                    limits={[{ value: KIT_ZERO, label: 'test kit reads 0 below' }]}
                  />
                )}
              </div>
            </section>
          )}
          <Tests change={change} planned={answer?.tests ?? []} />
        </div>
      </div>
    </>
  )
}

const late = (on: string, done: boolean): boolean => !done && on < today()

function tickStep(change: Row, id: string, on: boolean): void {
  const { [id]: _, ...rest } = change.done
  const done = on ? { ...rest, [id]: today() } : rest
  changeRow('change-overs', change, { done, ended: 'safe' in done ? (done.safe ?? null) : null })
}

function Ask({ change }: { readonly change: Row }) {
  const set = (body: Partial<Pick<Row, 'weeks' | 'share'>>): void => changeRow('change-overs', change, body)
  return (
    <div className="mt-2 flex flex-wrap items-end gap-x-5 gap-y-2">
      <div className="w-60">
        <SelectField
          collection="change-overs"
          row={change}
          field="way"
          label="How"
          options={CHANGE_WAYS.map((w) => [w, WAY_WORDS[w]] as const)}
        />
      </div>
      <div className="w-44">
        <DateField collection="change-overs" row={change} field="on" label="Start date" />
      </div>
      {change.way === 'beside' && (
        <div className="w-32">
          <span className="kicker block">Weeks side by side</span>
          <QuantityInput
            label="Weeks side by side"
            si={change.weeks}
            dimension="ratio"
            min={1}
            max={26}
            whole
            onCommit={(weeks) => set({ weeks })}
          />
        </div>
      )}
      {change.way === 'moved' && (
        <div className="w-44">
          <span className="kicker block">Share of mature media moved</span>
          <QuantityInput
            label="Share of mature media moved"
            si={change.share}
            dimension="ratio"
            unit="%"
            min={0.01}
            max={1}
            onCommit={(share) => set({ share })}
          />
        </div>
      )}
    </div>
  )
}

/** When it is over, and where the tests moved it. */
function Ends({ plan }: { readonly plan: ChangePlan }) {
  const { safe, weeks } = plan
  return (
    <section aria-labelledby="ends-title">
      <h2 id="ends-title">
        <Explained>{endWords(plan)}</Explained>
      </h2>
      <p className="muted text-[0.92rem]">
        {safe.middle &&
          `Between ${safe.soonest ? showDay(safe.soonest) : 'sooner'} and ${safe.latest ? showDay(safe.latest) : 'after the forecast'}, in 95 of 100 tanks like it. `}
        {weeks && `Planned: ${weeks.planned} weeks side by side. `}
        Bacteria grow at different speeds. Your tests below adjust the date.
      </p>
      <Said list={plan.sentences} />
    </section>
  )
}

/** When the water is safe again; where it never stops to be, when the old one goes. */
function endWords({ safe, weeks, told }: ChangePlan): string {
  if (!safe.middle) return 'Not safe within 26 weeks'
  return weeks && told.safeFrom === 0
    ? `Remove the old filter on ${showDay(safe.middle)}`
    : `Cycled from ${showDay(safe.middle)}`
}

/** The water as the plan has it, as it was thought before the tests, and the tests themselves. */
function seriesOf(plan: ChangePlan, change: Row) {
  // What comes after the end of it is a straight line.
  const last = plan.safe.latest ?? plan.safe.middle
  const until = last ? Math.max(14, daysBetween(change.on, last) + 10) : Infinity
  const line = (name: string, told: ChangePlan['told'], what: 'ammonia' | 'nitrite') => ({
    name,
    points: told.points.filter((p) => p.day <= until).map((p) => ({ time: p.day * DAY, value: p[what] })),
  })
  const tests = (name: string, what: 'ammonia' | 'nitrite') => ({
    name,
    marked: true,
    loose: true,
    points: change.tests.flatMap((t) => {
      const value = t[what]
      const day = daysBetween(change.on, t.on)
      return value === null || day < 0 ? [] : [{ time: day * DAY, value }]
    }),
  })
  const moved = plan.belief.mean !== 0
  return [
    line('Ammonia', plan.told, 'ammonia'),
    line('Nitrite', plan.told, 'nitrite'),
    ...(moved ? [line('Nitrite, before the tests', plan.asShipped, 'nitrite')] : []),
    ...[tests('Ammonia tested', 'ammonia'), tests('Nitrite tested', 'nitrite')].filter(
      (s) => s.points.length,
    ),
  ]
}

/** Reminder of the tank’s own list of filters. */
function OnTheTank({
  tank,
  change,
  found,
}: {
  readonly tank: Tank
  readonly change: Row
  readonly found: Change
}) {
  const { old, next } = found
  const there = tank.filters.some((f) => f.id === change.next.id)
  const oldThere = tank.filters.some((f) => f.id === change.old?.id)
  const began = ['on', 'move', 'starter'].find((id) => id in change.done)
  const goes = change.way === 'beside' ? 'off' in change.done : began !== undefined
  const add = (): void =>
    changeRow('tanks', tank, {
      filters: [...tank.filters, { ...change.next, since: (began && change.done[began]) ?? today() }],
    })
  const remove = (): void =>
    changeRow('tanks', tank, { filters: tank.filters.filter((f) => f.id !== change.old?.id) })
  if ((!began || there) && (!goes || !oldThere)) return null
  return (
    <p className="mt-2 flex flex-wrap items-center gap-3" role="status">
      {began && !there && (
        <button type="button" className="btn btn-sm" onClick={add}>
          Add {nameOf(next)} to the tank
        </button>
      )}
      {goes && oldThere && (
        <button type="button" className="btn btn-sm" onClick={remove}>
          Remove {nameOf(old)} from the tank
        </button>
      )}
    </p>
  )
}

/** Tests to take with what should be read, and those that were taken. */
function Tests({ change, planned }: { readonly change: Row; readonly planned: readonly PlannedTest[] }) {
  const counts = kitCounts.use()
  const kit = useKit()
  const rows =
    planned.length > 0
      ? planned
      : change.tests.map((made): PlannedTest | { on: string; predicted: null; made: typeof made } => ({
          on: made.on,
          predicted: null,
          made,
        }))
  const write = (tests: Row['tests']): void =>
    changeRow('change-overs', change, { tests: [...tests].sort((a, b) => a.on.localeCompare(b.on)) })
  return (
    <section aria-labelledby="tests-title">
      <h2 id="tests-title">Tests</h2>
      {counts !== '' && <KitQuestion />}
      <Parked row={change} field="tests" what="The tests" />
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Tests, table">
        <Sheet
          className="mt-1 min-w-[32rem]"
          columns={[
            'Day',
            right('Ammonia forecast, as N'),
            right(`read, ${kit('ammonia').label.split(', ')[1] ?? ''}`),
            right('Nitrite forecast, as N'),
            right(`read, ${kit('nitrite').label.split(', ')[1] ?? ''}`),
            '',
          ]}
        >
          {rows.map((t) => (
            <tr key={t.on}>
              <td className={`num whitespace-nowrap ${!t.made && late(t.on, false) ? 'text-warning' : ''}`}>
                {showDay(t.on)}
              </td>
              <td className="r">
                {t.predicted && <FigureView figure={t.predicted.ammonia} inline digits={2} />}
              </td>
              <td className="r">
                {t.made?.ammonia != null && (
                  <Num si={t.made.ammonia / kit('ammonia').scale} dimension="concentration" />
                )}
              </td>
              <td className="r">
                {t.predicted && <FigureView figure={t.predicted.nitrite} inline digits={2} />}
              </td>
              <td className="r">
                {t.made?.nitrite != null && (
                  <Num si={t.made.nitrite / kit('nitrite').scale} dimension="concentration" />
                )}
              </td>
              <td>
                {t.made && (
                  <IconButton
                    label={`Delete the test of ${showDay(t.on)}`}
                    icon={Trash2}
                    onClick={() => write(change.tests.filter((x) => x.on !== t.on))}
                  />
                )}
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
      <NewTest
        key={change.tests.length}
        change={change}
        onAdd={(t) => write([...change.tests.filter((x) => x.on !== t.on), t])}
      />
    </section>
  )
}

const HIGHEST = 0.1

function NewTest({
  change,
  onAdd,
}: {
  readonly change: Row
  readonly onAdd: (t: Row['tests'][number]) => void
}) {
  const [on, setOn] = useState(today())
  const [read, setRead] = useState({ ammonia: 0, nitrite: 0 })
  const counts = kitCounts.use()
  const kit = useKit()
  const early = on !== '' && on < change.on
  return (
    <div className="mt-3 flex flex-wrap items-end gap-3">
      <label>
        <span className="kicker block">Tested on</span>
        <input type="date" className="field num w-40" value={on} onChange={(e) => setOn(e.target.value)} />
      </label>
      {counts === '' ? (
        <KitQuestion />
      ) : (
        (['ammonia', 'nitrite'] as const).map((q) => (
          <div key={`${q}-${counts}`} className="w-32">
            <span className="kicker block">{kit(q).label}</span>
            <QuantityInput
              label={`${q === 'ammonia' ? 'Ammonia' : 'Nitrite'} read`}
              si={read[q] / kit(q).scale}
              dimension="concentration"
              min={0}
              max={HIGHEST / kit(q).scale}
              onCommit={(v) => setRead({ ...read, [q]: v * kit(q).scale })}
            />
          </div>
        ))
      )}
      <button
        type="button"
        className="btn btn-sm"
        disabled={!on || early || counts === ''}
        onClick={() => onAdd({ on, ...read })}
      >
        <Plus size={16} aria-hidden="true" /> Record test
      </button>
      {early && <p className="text-warning text-[0.88rem]">Before it began on {showDay(change.on)}.</p>}
    </div>
  )
}
