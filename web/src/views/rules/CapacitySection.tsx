import type { HouseRule } from '@ypsometer/contract'
import { CAPACITY_SCHOOLS, type CapacitySchool } from '@ypsometer/core/tanks/rule'
import { isBlind, SCHOOLS } from '@ypsometer/core/tanks/schools'
import { ArrowDown, ArrowUp } from 'lucide-react'
import { Link } from 'react-router'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { IconButton } from '../../frame/IconButton'

/** Which school of capacity leads, which others bind, and the minimum circulation. */
export function CapacitySection({ house }: { readonly house: HouseRule }) {
  const { capacity } = house
  const write = (more: Partial<HouseRule['capacity']>): void =>
    changeRow('house-rules', house, { capacity: { ...capacity, ...more } })
  const out = CAPACITY_SCHOOLS.filter((s) => !capacity.order.includes(s))
  const move = (i: number, by: -1 | 1): void => {
    const order = [...capacity.order]
    const [school] = order.splice(i, 1)
    if (school) order.splice(i + by, 0, school)
    write({ order })
  }
  return (
    <section aria-labelledby="capacity-title" className="space-y-2">
      <h2 id="capacity-title">Tank sizing rules</h2>
      <p className="muted max-w-3xl">
        The first rule that applies sets the limit. Others are shown for comparison; tick “can lower the
        limit” to let one cap it.
      </p>
      <Parked row={house} field="capacity" what="Order of the sizing rules" />
      <ol className="rule-t">
        {[...capacity.order, ...out].map((s, i) => {
          const speaks = capacity.order.includes(s)
          const name = SCHOOLS[s].words
          return (
            <li
              key={s}
              className={`rule-b grid grid-cols-[2rem_minmax(0,1fr)_auto] items-baseline gap-x-3 py-2 ${speaks ? '' : 'muted'}`}
            >
              <span className="num">{speaks ? i + 1 : '–'}</span>
              <div>
                <span className={speaks ? 'font-medium' : ''}>
                  {name.slice(0, 1).toUpperCase() + name.slice(1)}
                  {i === 0 && speaks && <span className="kicker ml-2">sets the limit</span>}
                </span>
                <span className="muted block text-[0.88rem]">{SCHOOLS[s].about}</span>
                <span className="block text-[0.88rem]">
                  Who says it: {SCHOOLS[s].origin.who}. Rests on: {SCHOOLS[s].origin.rests}. Interest:{' '}
                  {SCHOOLS[s].origin.interest}.
                </span>
                {s === 'turnover' && (
                  <span className="mt-1 flex items-baseline gap-2 text-[0.92rem]">
                    Minimum turnovers per hour
                    <span className="w-24">
                      <QuantityInput
                        label="Minimum turnovers per hour"
                        si={capacity.turnoverFloor}
                        dimension="ratio"
                        min={0.05}
                        max={50}
                        onCommit={(turnoverFloor) => write({ turnoverFloor })}
                      />
                    </span>
                  </span>
                )}
              </div>
              <SchoolControls
                speaks={speaks}
                s={s}
                name={name}
                capacity={capacity}
                i={i}
                write={write}
                move={move}
              />
            </li>
          )
        })}
      </ol>
      <label className="flex items-center gap-2 text-[0.95rem]">
        <input
          type="checkbox"
          className="checkbox"
          checked={capacity.mostTurnover ?? false}
          onChange={(e) => write({ mostTurnover: e.target.checked })}
        />
        check maximum turnover for the smallest tank (sources disagree; the current check is stricter)
      </label>
      <p>
        <Link to="/trial" className="link">
          Rules on trial
        </Link>
        <span className="muted">: what each rule said about your tanks, and what happened</span>
      </p>
    </section>
  )
}

/** Weight and place of a school, and whether it speaks or binds. */
function SchoolControls({
  speaks,
  s,
  name,
  capacity,
  i,
  write,
  move,
}: {
  readonly speaks: boolean
  readonly s: CapacitySchool
  readonly name: string
  readonly capacity: HouseRule['capacity']
  readonly i: number
  readonly write: (more: Partial<HouseRule['capacity']>) => void
  readonly move: (i: number, by: -1 | 1) => void
}) {
  return (
    <div className="flex flex-wrap items-center justify-end gap-x-3 gap-y-1 text-[0.92rem]">
      {speaks && !isBlind(s) && (
        <span className="flex items-baseline gap-1.5">
          weight
          <span className="w-14">
            <QuantityInput
              label={`Weight of ${name} in how sure a verdict is`}
              si={capacity.weights?.[s] ?? (i === 0 ? 2 : 1)}
              dimension="ratio"
              min={0}
              max={100}
              onCommit={(v) => write({ weights: { ...capacity.weights, [s]: v } })}
            />
          </span>
        </span>
      )}
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox"
          aria-label={`Show ${name}`}
          checked={speaks}
          onChange={(e) =>
            write({
              order: e.target.checked ? [...capacity.order, s] : capacity.order.filter((x) => x !== s),
            })
          }
        />
        show
      </label>
      <label className="flex items-center gap-1.5">
        <input
          type="checkbox"
          className="checkbox"
          aria-label={`${name} can lower the limit`}
          checked={capacity.bind.includes(s)}
          onChange={(e) =>
            write({
              bind: e.target.checked ? [...capacity.bind, s] : capacity.bind.filter((x) => x !== s),
            })
          }
        />
        can lower the limit
      </label>
      <IconButton
        label={`${name} up`}
        icon={ArrowUp}
        disabled={!speaks || i === 0}
        onClick={() => move(i, -1)}
      />
      <IconButton
        label={`${name} down`}
        icon={ArrowDown}
        disabled={!speaks || i === capacity.order.length - 1}
        onClick={() => move(i, 1)}
      />
    </div>
  )
}
