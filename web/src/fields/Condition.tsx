import type { Part } from '@ypsometer/contract'
import { CHECKLISTS } from '@ypsometer/core/parts/vocabulary'
import { changeRow } from '../api/rows'

/** The checklist fitted to the part, as toggles; large enough for a thumb where asked. */
export function Condition({ part, large }: { readonly part: Part; readonly large?: boolean }) {
  const list = CHECKLISTS.find((c) => c.id === part.checklist)
  if (!list) return null
  const toggle = (id: string, good: boolean): void => {
    const has = part.findings.includes(id)
    // "Supple" and "cracked" exclude each other; faults add up.
    const goods = list.findings.filter((f) => f.good).map((f) => f.id)
    const kept = part.findings.filter((f) => f !== id && (good ? false : !goods.includes(f)))
    changeRow('parts', part, { findings: has ? part.findings.filter((f) => f !== id) : [...kept, id] })
  }
  return (
    <fieldset>
      <legend className="kicker">Condition: {list.label.toLowerCase()}</legend>
      <div className="mt-1 flex flex-wrap gap-2">
        {list.findings.map((f) => {
          const on = part.findings.includes(f.id)
          return (
            <button
              key={f.id}
              type="button"
              aria-pressed={on}
              className={`btn ${large ? 'h-14 px-5 text-[1.05rem]' : 'btn-sm'} ${on ? (f.good ? 'btn-neutral' : 'btn-warning') : ''}`}
              onClick={() => toggle(f.id, f.good === true)}
            >
              {f.label}
            </button>
          )
        })}
      </div>
    </fieldset>
  )
}
