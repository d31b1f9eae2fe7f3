import type { Medium } from '@ypsometer/contract'
import { givenOf } from '@ypsometer/contract/created'
import { modelResistance } from '@ypsometer/core/media/medium'
import { Copy, Plus, Trash2 } from 'lucide-react'
import { useState } from 'react'
import { Link, useNavigate, useParams } from 'react-router'
import { useMedia } from '../../api/lists'
import { createRow } from '../../api/rows'
import { HistoryLink } from '../../frame/HistoryLink'
import { ListWithDetail } from '../../frame/ListWithDetail'
import { removeRow } from '../../frame/removed'
import { MediumSwatch } from '../../cutaway/mediaPatterns'
import { showMoney } from '../../fields/MoneyField'
import { Failed, Loading } from '../../frame/States'
import { JOB_OPTIONS, JOB_WORDS } from '../../fillPath/words'
import { MediumSheet } from './MediumSheet'
import { Heading } from '../../frame/Heading'

/** The media of the library: generic ones that ship with the app, and the bench’s own. */
export function Library() {
  const { id } = useParams()
  const { media, error, isPending, refetch } = useMedia()
  const navigate = useNavigate()
  const [job, setJob] = useState('')
  if (!media)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="the library" retry={() => void refetch()} />
    )
  const shown = media.filter((m) => !job || m.job === job)
  const open = media.find((m) => m.id === id) ?? (id ? undefined : shown[0])
  const free = (base: string): string => {
    const taken = new Set(media.map((m) => m.name.toLowerCase()))
    let name = base
    for (let n = 2; taken.has(name.toLowerCase()); n++) name = `${base} ${n}`
    return name
  }
  const add = (from: Partial<Medium>, name: string): void => {
    void navigate(
      `/library/${createRow('media', { ...givenOf('media', from), name: free(name.slice(0, 74)) })}`,
    )
  }
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>Library of media</Heading>
          <p className="muted">
            Filter media: flow resistance, surface, pack size and price. Animals and their needs:{' '}
            <Link to="/stock" className="link">
              stocking types
            </Link>
            .
          </p>
        </div>
        <button type="button" className="btn btn-primary" onClick={() => add({}, 'New medium')}>
          <Plus size={18} aria-hidden="true" /> Add a medium
        </button>
      </div>
      <ListWithDetail
        label="Media"
        path="/library"
        wide
        filter={
          <label>
            <span className="sr-only">Job</span>
            <select className="field mb-2 !w-auto" value={job} onChange={(e) => setJob(e.target.value)}>
              <option value="">every job</option>
              {JOB_OPTIONS.map(([v, words]) => (
                <option key={v} value={v}>
                  {words}
                </option>
              ))}
            </select>
          </label>
        }
        open={open?.id}
        lines={shown.map((m) => ({
          id: m.id,
          name: m.name,
          mark: <MediumSwatch id={m.id} medium={m} />,
          note: [
            JOB_WORDS[m.job],
            m.generic ? 'generic' : 'own',
            m.permeability !== null ? 'calibrated' : modelResistance(m) ? '' : 'resistance unknown',
          ]
            .filter(Boolean)
            .join(' · '),
          side: <span className="num muted">{showMoney(m.priceMinor, m.currency) || 'no price'}</span>,
        }))}
      >
        {open ? (
          <div>
            <MediumSheet key={open.id} medium={open} />
            <div className="mt-6 flex flex-wrap gap-2">
              <button
                type="button"
                className="btn btn-ghost btn-sm"
                onClick={() => add(open, `${open.name}, own`)}
              >
                <Copy size={15} aria-hidden="true" /> Duplicate to edit
              </button>
              <HistoryLink of={{ row: open.id }} />
              {!open.generic && (
                <button
                  type="button"
                  className="btn btn-ghost btn-sm"
                  onClick={() => {
                    removeRow('media', open, open.name)
                    void navigate('/library')
                  }}
                >
                  <Trash2 size={15} aria-hidden="true" /> Delete
                </button>
              )}
            </div>
          </div>
        ) : (
          <p>This medium is not here. It may have been deleted.</p>
        )}
      </ListWithDetail>
    </>
  )
}
