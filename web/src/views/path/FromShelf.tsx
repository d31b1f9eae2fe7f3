import { pathRecord, modelRecord, type Dossier, type Model } from '@ypsometer/contract'
import { assess } from '@ypsometer/core/judging'
import { asSecond, outcomeOf, pathBase, type SecondFilter } from '@ypsometer/core/path'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks'
import { useDeferredValue, useState } from 'react'
import { api } from '../../api/client'
import { useMedia, useShelf } from '../../api/queries'
import { useDossierContext } from '../dossier/Dossier'

type Taken = Omit<SecondFilter, 'arrangement' | 'running'>
const SHOWN = 6

/** A second filter taken from the shelf: its pump as the bench or the label knows it, its body and first fill as worked out. */
export function FromShelf({ onTake }: { readonly onTake: (taken: Taken) => void }) {
  const { dossier } = useDossierContext()
  const [search, setSearch] = useState('')
  const [said, setSaid] = useState('')
  const { data } = useShelf({ search: useDeferredValue(search).trim(), kind: '', sort: 'name' })
  const media = useMedia().media
  const found = (data?.pages ?? [])
    .flatMap((p) => p.items)
    .filter((r) => r.model.id !== dossier.model.id)
    .slice(0, SHOWN)
  const take = async ({ id, name }: Model): Promise<void> => {
    try {
      const other = await api<Dossier>(`/models/${id}/dossier`, {})
      const assessment = assess(modelRecord(other))
      const record = media && pathRecord(other, media, assessment, null)
      const base = record && pathBase(record)
      const fill = record?.fills[0]
      if (base?.kind === 'ready' && fill && base.base.drive.from !== 'airlift') {
        onTake(asSecond(outcomeOf({ ...base.base, fill }, STOCK_CLASSES[0] as StockClass, true), name))
        setSaid(`${name} taken over: its pump, and its body with “${fill.name}” in it.`)
      } else if (assessment.pump) {
        onTake({ label: name, ...assessment.pump.pump, lossCoefficient: 0 })
        setSaid(
          `${name} taken over with its pump alone: its inside and fill are not on record, so enter what they take.`,
        )
      } else setSaid(`${name} has no pump on record: copy its rated flow and maximum head first.`)
    } catch (error) {
      setSaid(`${name} could not be read: ${error instanceof Error ? error.message : String(error)}`)
    }
  }
  return (
    <div className="mt-1">
      <label className="kicker" htmlFor="second-search">
        Take it from the shelf
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
        <ul className="flex flex-wrap gap-x-2" aria-label="Found on the shelf">
          {found.map(({ model }) => (
            <li key={model.id}>
              <button type="button" className="btn btn-ghost btn-xs" onClick={() => void take(model)}>
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
