import type { Tank } from '@ypsometer/contract'
import { Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { useCandidates } from '../../api/shelf'
import { useChangeOvers } from '../../api/lists'
import { createRow } from '../../api/rows'
import { IconButton } from '../../frame/IconButton'
import { removeRow } from '../../frame/removed'
import { showDay, today } from '../../settings/when'
import { Explained } from '../../figures/Explained'

/** Filters of a tank that are changed for others, and the start of another change. */
export function Changes({ tank }: { readonly tank: Tank }) {
  const { changes = [] } = useChangeOvers()
  const { data = [] } = useCandidates()
  const navigate = useNavigate()
  const [oldId, setOldId] = useState(tank.filters[0]?.id ?? '')
  const shelf = data
    .flatMap((c) => (c.candidate ? [c.candidate] : []))
    .sort((a, b) => a.name.localeCompare(b.name))
  const modelName = (id: string | null, label: string): string =>
    shelf.find((c) => c.id === id)?.name ?? (label || 'a filter without a name')
  const own = changes.filter((c) => c.tankId === tank.id).sort((a, b) => b.on.localeCompare(a.on))
  const begin = (modelId: string): void => {
    const next = { id: crypto.randomUUID().slice(0, 8), modelId, fill: 'as-shipped', label: '', kind: null, ratedFlow: null, since: null } as const // prettier-ignore
    const id = createRow('change-overs', {
      tankId: tank.id,
      on: today(),
      old: tank.filters.find((f) => f.id === oldId) ?? null,
      next,
    })
    void navigate(`/tanks/${tank.id}/changes/${id}`)
  }
  return (
    <section aria-labelledby="changes-title" className="mt-9">
      <h2 id="changes-title">Filter swaps</h2>
      <p className="muted max-w-xl">
        A dated plan: run both for weeks, move <Explained>mature media</Explained>, or swap at once with
        bottled bacteria. With the water forecast and the tests to take.
      </p>
      {own.length > 0 && (
        <ul className="rule-t mt-2">
          {own.map((c) => {
            const { old } = c
            const words = `${old ? `${modelName(old.modelId, old.label)} to ` : ''}${modelName(c.next.modelId, c.next.label)}`
            return (
              <li key={c.id} className="rule-b flex items-baseline justify-between gap-3 py-1.5">
                <span>
                  <Link to={`/tanks/${tank.id}/changes/${c.id}`} className="link">
                    {words}
                  </Link>
                  <span className="muted">
                    {' '}
                    · from {showDay(c.on)} · {c.ended ? `ended ${showDay(c.ended)}` : 'under way'}
                  </span>
                </span>
                <IconButton
                  label={`Delete the filter swap of ${showDay(c.on)}`}
                  icon={Trash2}
                  onClick={() => removeRow('change-overs', c, `The filter swap of ${showDay(c.on)}`)}
                />
              </li>
            )
          })}
        </ul>
      )}
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <label>
          <span className="kicker block">Old filter</span>
          <select
            className="select select-sm w-auto"
            value={oldId}
            onChange={(e) => setOldId(e.target.value)}
          >
            <option value="">nothing: it is the first</option>
            {tank.filters.map((f) => (
              <option key={f.id} value={f.id}>
                {modelName(f.modelId, f.label)}
              </option>
            ))}
          </select>
        </label>
        <label>
          <span className="kicker block">New filter</span>
          <select
            className="select select-sm w-auto max-w-full"
            value=""
            disabled={!shelf.length}
            onChange={(e) => begin(e.target.value)}
          >
            <option value="" disabled>
              one of your filters
            </option>
            {shelf.map((c) => (
              <option key={c.id} value={c.id}>
                {c.name}, {c.maker}
              </option>
            ))}
          </select>
        </label>
      </div>
    </section>
  )
}
