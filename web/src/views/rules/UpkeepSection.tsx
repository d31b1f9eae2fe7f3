import type { HouseRule } from '@ypsometer/contract'
import { RINSE_SCHOOLS, TASK_KINDS, TASKS, type RinseSchool, type Task } from '@ypsometer/core/upkeep/rule'
import { roughly } from '@ypsometer/core/upkeep/plan'
import { changeRow } from '../../api/rows'
import { Parked } from '../../fields/Parked'
import { QuantityInput } from '../../fields/QuantityInput'
import { useState } from 'react'
import { Sheet } from '../../figures/Sheet'

const RINSE_WORDS: Readonly<Record<RinseSchool, readonly [name: string, why: string]>> = {
  'tank-water': ['tank water only', 'keeps the bacteria, whatever is in the tap water'],
  dechlorinated: ['dechlorinated tap water', 'cleaner, and the bacteria live where the dose is right'],
  'tap-prefilter': ['tap for the pre-filter only', 'nothing lives in it that counts; the rest in tank water'],
}

/** How a house keeps its filters: by date or by flow, in what water, how often, and when it looks again. */
export function UpkeepSection({ house }: { readonly house: HouseRule }) {
  const { upkeep } = house
  const write = (more: Partial<HouseRule['upkeep']>): void =>
    changeRow('house-rules', house, { upkeep: { ...upkeep, ...more } })
  return (
    <section aria-labelledby="upkeep-title" className="space-y-3">
      <h2 id="upkeep-title">Maintenance</h2>
      <Parked row={house} field="upkeep" what="How filters are kept" />
      <div className="flex flex-wrap items-end gap-x-8 gap-y-3">
        <label>
          <span className="kicker block">The body is opened</span>
          <select
            className="select w-auto"
            value={upkeep.by}
            onChange={(e) => write({ by: e.target.value as 'date' | 'flow' })}
          >
            <option value="date">on a calendar</option>
            <option value="flow">when its flow has fallen</option>
          </select>
        </label>
        <label className="w-40">
          <span className="kicker block">It is due when down by</span>
          <QuantityInput
            label="It is due when down by"
            si={upkeep.fall}
            dimension="ratio"
            unit="%"
            min={0.05}
            max={0.9}
            onCommit={(fall) => write({ fall })}
          />
        </label>
        <label>
          <span className="kicker block">Rinsed in</span>
          <select
            className="select w-auto"
            value={upkeep.rinse}
            onChange={(e) => write({ rinse: e.target.value as RinseSchool })}
          >
            {RINSE_SCHOOLS.map((r) => (
              <option key={r} value={r}>
                {RINSE_WORDS[r][0]}
              </option>
            ))}
          </select>
        </label>
      </div>
      <p className="muted max-w-3xl text-[0.92rem]">
        {RINSE_WORDS[upkeep.rinse][0]}: {RINSE_WORDS[upkeep.rinse][1]}. Nothing in the trade fixes by how much
        the flow may fall: 30 % is ours.
      </p>
      <Sheet
        className="max-w-3xl"
        columns={[
          'Work',
          { label: 'Days between', className: 'w-32' },
          { label: 'Common practice', className: 'r w-40' },
        ]}
      >
        {TASKS.filter((t) => t !== 'nitrate').map((t) => (
          <tr key={t}>
            <td>{TASK_KINDS[t].label}</td>
            <td>
              <QuantityInput
                label={`Days between: ${TASK_KINDS[t].label}`}
                si={upkeep.every[t] ?? roughly(TASK_KINDS[t].every)}
                dimension="ratio"
                min={1}
                max={3650}
                whole
                onCommit={(days) => write({ every: { ...upkeep.every, [t]: days } })}
              />
            </td>
            <td className="r num muted">
              {usual(t)}
              {upkeep.every[t] !== undefined && (
                <button
                  type="button"
                  className="link ml-2"
                  onClick={() => {
                    const { [t]: _, ...rest } = upkeep.every
                    write({ every: rest })
                  }}
                >
                  back to it
                </button>
              )}
            </td>
          </tr>
        ))}
      </Sheet>
      <VisitDays days={upkeep.visits} write={(visits) => write({ visits })} />
    </section>
  )
}

function usual(t: Task): string {
  const { every } = TASK_KINDS[t]
  if ('days' in every) return `${every.days} days`
  return every.months === 1 ? 'a month' : `${every.months} months`
}

/** Days after setting up at which a house looks again, as one line of numbers. */
function VisitDays({
  days,
  write,
}: {
  readonly days: readonly number[]
  readonly write: (d: number[]) => void
}) {
  const shown = days.join(', ')
  const [text, setText] = useState<string | null>(null)
  const [problem, setProblem] = useState('')
  const commit = (): void => {
    if (text === null || text === shown) return setText(null)
    const read = text
      .split(/[,;\s]+/)
      .filter(Boolean)
      .map(Number)
    if (read.some((d) => !Number.isInteger(d) || d < 1 || d > 3650) || read.length > 20)
      return setProblem('Whole days from 1 to 3650, at most twenty of them, such as 1, 2, 14, 30.')
    setProblem('')
    setText(null)
    write([...new Set(read)].sort((a, b) => a - b))
  }
  return (
    <label className="block max-w-xl">
      <span className="kicker block">A filter is looked at again after so many days</span>
      <input
        className="field num"
        value={text ?? shown}
        aria-invalid={problem !== ''}
        onChange={(e) => setText(e.target.value)}
        onBlur={commit}
        onKeyDown={(e) => e.key === 'Enter' && commit()}
      />
      {problem && (
        <span role="alert" className="text-error text-[0.88rem]">
          {problem}
        </span>
      )}
    </label>
  )
}
