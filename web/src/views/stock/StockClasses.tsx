import type { StockClassRow } from '@ypsometer/contract'
import { givenOf } from '@ypsometer/contract/created'
import { Copy, Plus, Trash2 } from 'lucide-react'
import { NavLink, useNavigate, useParams } from 'react-router'
import { useStockClasses, useTanks } from '../../api/lists'
import { createRow } from '../../api/rows'
import { Num } from '../../figures/Num'
import { removeRow } from '../../frame/removed'
import { Failed, Loading } from '../../frame/States'
import { StockSheet } from './StockSheet'
import { Heading } from '../../frame/Heading'

/** Who may live in a tank: what they are fed, what carries them, what current they bear. */
export function StockClasses() {
  const { id } = useParams()
  const { classes, error, isPending, refetch } = useStockClasses()
  const { tanks } = useTanks()
  const navigate = useNavigate()
  if (!classes)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="the stock classes" retry={() => void refetch()} />
    )
  const open = classes.find((c) => c.id === id) ?? (id ? undefined : classes[0])
  const used = tanks?.filter((t) => t.stockClassId === open?.id) ?? []
  const copy = (c: StockClassRow | undefined): void => {
    const label = c ? `${c.label}, our own`.slice(0, 80) : 'New class'
    void navigate(`/stock/${createRow('stock-classes', { ...givenOf('stock-classes', c ?? {}), label })}`)
  }
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>Stock classes</Heading>
          <p className="muted">
            Who lives in a tank: every verdict, every tank and every balance reads its numbers from here.
          </p>
        </div>
        <button type="button" className="btn btn-primary" onClick={() => copy(undefined)}>
          <Plus size={18} aria-hidden="true" /> Add a class
        </button>
      </div>
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)] gap-x-10 gap-y-8 lg:grid-cols-[20rem_minmax(0,1fr)]">
        <nav aria-label="Stock classes">
          <ul className="rule-t">
            {classes.map((c) => (
              <li key={c.id} className="rule-b">
                <NavLink
                  to={`/stock/${c.id}`}
                  className={`flex items-baseline justify-between gap-3 px-2 py-1.5 ${c === open ? 'bg-base-200 font-bold' : 'hover:bg-base-200'}`}
                >
                  <span>
                    {c.label}
                    <span className="muted block text-[0.82rem] font-normal">
                      {c.code
                        ? c.version > 1
                          ? 'ships with the app, changed here'
                          : 'ships with the app'
                        : 'own'}
                    </span>
                  </span>
                  <span className="whitespace-nowrap font-normal">
                    <Num si={c.feedPerVolume} dimension="feeding" digits={2} />
                  </span>
                </NavLink>
              </li>
            ))}
          </ul>
        </nav>
        {open ? (
          <div>
            <StockSheet key={open.id} row={open} />
            <div className="mt-6 flex flex-wrap items-center gap-2">
              <button type="button" className="btn btn-ghost btn-sm" onClick={() => copy(open)}>
                <Copy size={15} aria-hidden="true" /> Copy as our own
              </button>
              {open.code === null && used.length === 0 && (
                <button
                  type="button"
                  className="btn btn-ghost btn-sm"
                  onClick={() => {
                    removeRow('stock-classes', open, open.label)
                    void navigate('/stock')
                  }}
                >
                  <Trash2 size={15} aria-hidden="true" /> Delete
                </button>
              )}
              {used.length > 0 && (
                <span className="muted text-[0.92rem]">Lives in {used.map((t) => t.name).join(' · ')}.</span>
              )}
            </div>
          </div>
        ) : (
          <p>This class is not here. It may have been deleted.</p>
        )}
      </div>
    </>
  )
}
