import { errorMessage } from '../../api/errorMessage'
import type { Dossier, Model } from '@ypsometer/contract'
import { useDeferredValue, useState } from 'react'
import { api } from '../../api/client'
import { useMedia } from '../../api/lists'
import { useShelf } from '../../api/shelf'
import { useDossierContext } from '../../frame/dossier'
import type { Taken } from './secondOf'

const SHOWN = 6

/**
 * A second filter taken from the shelf: its pump as the bench or the label knows it, its body and first fill as worked
 * out.
 */
export function FromShelf({ onTake }: { readonly onTake: (taken: Taken['second']) => void }) {
  const { dossier } = useDossierContext()
  const [search, setSearch] = useState('')
  const [said, setSaid] = useState('')
  const { data } = useShelf({
    search: useDeferredValue(search).trim(),
    kind: '',
    sort: 'name',
    stands: '',
    missing: '',
  })
  const media = useMedia().media
  const found = (data?.pages ?? [])
    .flatMap((p) => p.items)
    .filter((r) => r.model.id !== dossier.model.id)
    .slice(0, SHOWN)
  const take = async ({ id, name }: Model): Promise<void> => {
    try {
      const { secondOf } = await import('./secondOf')
      const taken = secondOf(await api<Dossier>(`/models/${id}/dossier`, {}), media ?? [])
      if (!taken) return setSaid(`${name} has no pump yet. Add its rated flow and maximum head first.`)
      onTake(taken.second)
      setSearch('')
      setSaid(
        taken.fill === null
          ? `${name} added with its pump alone. Its inside and media are unknown, so enter their head loss.`
          : `${name} added with its pump and media setup “${taken.fill}”.`,
      )
    } catch (error) {
      setSaid(`${name} could not be read: ${errorMessage(error)}`)
    }
  }
  return (
    <div className="mt-1">
      <label className="kicker" htmlFor="second-search">
        Choose one of your filters
      </label>
      <input
        id="second-search"
        type="search"
        className="field"
        placeholder="maker or model"
        value={search}
        onChange={(e) => setSearch(e.target.value)}
      />
      {search.trim() && (
        <ul className="mt-1 flex flex-wrap gap-2" aria-label="One of your filters">
          {found.map(({ model }) => (
            <li key={model.id}>
              <button type="button" className="btn btn-xs" onClick={() => void take(model)}>
                {model.maker} {model.name}
              </button>
            </li>
          ))}
          {data && !found.length && <li className="muted">Nothing of that name.</li>}
        </ul>
      )}
      <p aria-live="polite" className="muted text-[0.88rem]">
        {said}
      </p>
    </div>
  )
}
