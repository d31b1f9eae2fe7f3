import type { HouseRule } from '@ypsometer/contract'
import { contradictions, settingOf } from '@ypsometer/core/path/audit'
import { RULES } from '@ypsometer/core/path/rules/index'
import type { Rule } from '@ypsometer/core/path/rules/types'
import { Copy, Trash2 } from 'lucide-react'
import { useNavigate, useParams } from 'react-router'
import { useHouseRules } from '../../api/lists'
import { changeRow, createRow } from '../../api/rows'
import { HistoryLink } from '../../frame/HistoryLink'
import { ListWithDetail } from '../../frame/ListWithDetail'
import { removeRow } from '../../frame/removed'
import { Parked } from '../../fields/Parked'
import { SelectField, TextField } from '../../fields/fields'
import { Failed, Loading } from '../../frame/States'
import { AdviceSection } from './AdviceSection'
import { UpkeepSection } from './UpkeepSection'
import { CapacitySection } from './CapacitySection'
import { Heading } from '../../frame/Heading'
import { Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

const SCHOOL_WORDS = {
  'strain-first': 'Mechanical first',
  'polish-last': 'Fine pad last',
  'prefilter-low': 'Pre-filter outside, media low',
} as const
const CHEMICAL_WORDS = {
  none: 'none in an established tank',
  last: 'as the last thing',
  'after-straining': 'after the mechanical layers, before the bio media',
  'after-fine': 'carbon right after the fine pad, resin last',
} as const

/** House rules: the schools with their reasoning, and one’s own, each rule switched and weighed. */
export function HouseRules() {
  const { id } = useParams()
  const { rules, error, isPending, refetch } = useHouseRules()
  const navigate = useNavigate()
  if (!rules)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="the house rules" retry={() => void refetch()} />
    )
  const open = rules.find((r) => r.id === id) ?? (id ? undefined : (rules.find((r) => r.chosen) ?? rules[0]))
  const choose = (r: HouseRule): void => {
    for (const other of rules)
      if (other.chosen && other.id !== r.id) changeRow('house-rules', other, { chosen: false })
    changeRow('house-rules', r, { chosen: true })
  }
  const copy = (r: HouseRule): void => {
    const { school, reasoning, chemical, capacity } = r
    void navigate(
      `/rules/${createRow('house-rules', { name: `${r.name}, our way`.slice(0, 80), school, reasoning, chemical, capacity, rules: r.rules, chosen: false })}`,
    )
  }
  return (
    <>
      <Heading>House rules</Heading>
      <p className="muted max-w-3xl">
        Experts disagree on layer order and tank sizing. Choose your <Explained>house rules</Explained> here;
        a review can use others.
      </p>
      <ListWithDetail
        label="House rules"
        path="/rules"
        open={open?.id}
        lines={rules.map((r) => ({
          id: r.id,
          name: r.name,
          note: r.shipped ? 'ships with the app' : `custom, from “${SCHOOL_WORDS[r.school]}”`,
          side: r.chosen && <span className="text-[0.82rem]">in use</span>,
        }))}
      >
        {open ? (
          <div className="space-y-5">
            <div className="flex flex-wrap gap-2">
              {!open.chosen && (
                <button type="button" className="btn btn-primary btn-sm" onClick={() => choose(open)}>
                  Use these rules
                </button>
              )}
              <button type="button" className="btn btn-sm" onClick={() => copy(open)}>
                <Copy size={15} aria-hidden="true" /> Copy as our own
              </button>
              <HistoryLink of={{ row: open.id }} />
              {!open.shipped && (
                <button
                  type="button"
                  className="btn btn-ghost btn-sm"
                  onClick={() => {
                    removeRow('house-rules', open, open.name)
                    void navigate('/rules')
                  }}
                >
                  <Trash2 size={15} aria-hidden="true" /> Delete
                </button>
              )}
            </div>
            <RuleSheet key={open.id} house={open} />
          </div>
        ) : (
          <p>These house rules do not exist. They may have been deleted.</p>
        )}
      </ListWithDetail>
    </>
  )
}

function RuleSheet({ house }: { readonly house: HouseRule }) {
  const common = { collection: 'house-rules', row: house } as const
  const clash = contradictions(house)
  const set = (rule: Rule, more: { on?: boolean; weight?: number }): void =>
    changeRow('house-rules', house, {
      rules: { ...house.rules, [rule.id]: { ...house.rules[rule.id], ...more } },
    })
  return (
    <>
      <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
        <TextField {...common} field="name" label="Name" />
        <SelectField
          {...common}
          field="school"
          label="Layering rule"
          options={Object.entries(SCHOOL_WORDS)}
        />
        <SelectField
          {...common}
          field="chemical"
          label="Chemical media"
          options={Object.entries(CHEMICAL_WORDS)}
        />
      </div>
      <TextField {...common} field="reasoning" label="Reasoning" lines={2} />
      <CapacitySection house={house} />
      <AdviceSection house={house} />
      <UpkeepSection house={house} />
      <h2>Layer order</h2>
      <Parked row={house} field="rules" what="The switches and weights of this rule" />
      {clash.map(([a, b]) => (
        <p key={a.id + b.id} role="alert" className="text-warning">
          “{a.title}” and “{b.title}” cannot both be kept: switch one of them off.
        </p>
      ))}
      <div className="overflow-x-auto">
        <Sheet
          className="min-w-[34rem]"
          columns={[
            { label: 'On', className: 'w-12' },
            'Rule',
            { label: 'Severity', className: 'w-24' },
            { label: 'Weight', className: 'w-24' },
          ]}
        >
          {RULES.map((rule) => {
            const { on, weight } = settingOf(house, rule)
            return (
              <tr key={rule.id} className={on ? '' : 'muted'}>
                <td>
                  <input
                    type="checkbox"
                    className="checkbox"
                    aria-label={rule.title}
                    checked={on}
                    onChange={(e) => set(rule, { on: e.target.checked })}
                  />
                </td>
                <td>
                  <span className={on ? 'font-medium' : ''}>{rule.title}</span>
                  <span className="muted block text-[0.88rem]">
                    {rule.why} Looks at {rule.looksAt}.
                  </span>
                </td>
                <td>{rule.severity}</td>
                <td>
                  <select
                    className="field num"
                    aria-label={`Weight of ${rule.title.toLowerCase()}`}
                    value={weight}
                    onChange={(e) => set(rule, { weight: Number(e.target.value) })}
                  >
                    {[0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((w) => (
                      <option key={w}>{w}</option>
                    ))}
                  </select>
                </td>
              </tr>
            )
          })}
        </Sheet>
      </div>
    </>
  )
}
