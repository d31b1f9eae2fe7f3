import type { StockClassRow } from '@ypsometer/contract'
import { givenOf } from '@ypsometer/contract/created'
import { Copy, Plus, Trash2 } from 'lucide-react'
import { useNavigate, useParams } from 'react-router'
import { useStockClasses, useTanks } from '../../api/lists'
import { createRow } from '../../api/rows'
import { Num } from '../../figures/Num'
import { ListWithDetail } from '../../frame/ListWithDetail'
import { removeRow } from '../../frame/removed'
import { Failed, Loading } from '../../frame/States'
import { StockSheet } from './StockSheet'
import { Heading } from '../../frame/Heading'
import { Explained } from '../../figures/Explained'

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
      <Failed
        error={error ?? new Error('no answer')}
        what="the stocking types"
        retry={() => void refetch()}
      />
    )
  const open = classes.find((c) => c.id === id) ?? (id ? undefined : classes[0])
  const used = tanks?.filter((t) => t.stockClassId === open?.id) ?? []
  const copy = (c: StockClassRow | undefined): void => {
    const label = c ? `${c.label}, our own`.slice(0, 80) : 'New stocking type'
    void navigate(`/stock/${createRow('stock-classes', { ...givenOf('stock-classes', c ?? {}), label })}`)
  }
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>Stocking types</Heading>
          <p className="muted">
            <Explained>Stocking</Explained> types used by every verdict, tank and forecast.
          </p>
        </div>
        <button type="button" className="btn btn-primary" onClick={() => copy(undefined)}>
          <Plus size={18} aria-hidden="true" /> Add a stocking type
        </button>
      </div>
      <ListWithDetail
        label="Stocking types"
        path="/stock"
        open={open?.id}
        lines={classes.map((c) => ({
          id: c.id,
          name: c.label,
          note: !c.code ? 'own' : c.version > 1 ? 'ships with the app, changed here' : 'ships with the app',
          side: <Num si={c.feedPerVolume} dimension="feeding" digits={2} />,
        }))}
      >
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
          <p>This stocking type does not exist. It may have been deleted.</p>
        )}
      </ListWithDetail>
    </>
  )
}
