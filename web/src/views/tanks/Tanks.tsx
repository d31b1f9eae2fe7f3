import type { Tank } from '@ypsometer/contract'
import { Plus, Trash2 } from 'lucide-react'
import { useNavigate, useParams } from 'react-router'
import { useJudgedClasses, useStockClasses, useTanks } from '../../api/lists'
import { createRow } from '../../api/rows'
import { HistoryLink } from '../../frame/HistoryLink'
import { removeRow } from '../../frame/removed'
import { Num } from '../../figures/Num'
import { ListWithDetail } from '../../frame/ListWithDetail'
import { Present } from '../../frame/Present'
import { Failed, Loading } from '../../frame/States'
import { Changes } from './Changes'
import { FiltersOnIt } from './FiltersOnIt'
import { Visits } from './Visits'
import { TankSheet } from './TankSheet'
import { waterOf } from '../../tank/waterOf'
import { Heading } from '../../frame/Heading'

/** Own and customer tanks: a list, and the open one beside it. */
export function Tanks() {
  const { id } = useParams()
  const { tanks, error, isPending, refetch } = useTanks()
  const stock = useStockClasses()
  const judged = useJudgedClasses()
  const navigate = useNavigate()
  if (!tanks)
    return isPending ? (
      <Loading />
    ) : (
      <Failed error={error ?? new Error('no answer')} what="the tanks" retry={() => void refetch()} />
    )
  const open = tanks.find((t) => t.id === id) ?? (id ? undefined : tanks[0])
  const add = (): void => {
    const taken = new Set(tanks.map((t) => t.name))
    let name = 'New tank'
    for (let n = 2; taken.has(name); n++) name = `New tank ${n}`
    void navigate(`/tanks/${createRow('tanks', { name })}`)
  }
  return (
    <>
      <div className="flex flex-wrap items-end justify-between gap-3">
        <div>
          <Heading>Tanks</Heading>
          <p className="muted">Your tanks. Every filter is judged against them.</p>
        </div>
        <button type="button" className="btn btn-primary" onClick={add}>
          <Plus size={18} aria-hidden="true" /> Add a tank
        </button>
      </div>
      {tanks.length === 0 ? (
        <p className="mt-5 max-w-xl">
          No tanks yet. Add your first: inside sizes, water level, substrate and stocking.
        </p>
      ) : (
        <ListWithDetail
          label="Tanks"
          path="/tanks"
          open={open?.id}
          lines={tanks.map((t) => ({
            id: t.id,
            name: t.name,
            note: [t.place, stock.classes?.find((s) => s.id === t.stockClassId)?.label]
              .filter(Boolean)
              .join(' · '),
            side: <Litres tank={t} />,
          }))}
        >
          {open ? (
            <div className="min-w-0">
              <Present at={open.id} />
              <TankSheet key={open.id} tank={open} stock={stock.classes ?? []} />
              <FiltersOnIt key={`on-${open.id}`} tank={open} stock={judged.stock ?? []} />
              <Changes key={`changes-${open.id}`} tank={open} />
              <Visits key={`visits-${open.id}`} tank={open} />
              <div className="mt-6 flex flex-wrap gap-2">
                <HistoryLink of={{ row: open.id }} />
                <button
                  type="button"
                  className="btn btn-ghost btn-sm"
                  onClick={() => {
                    removeRow('tanks', open, open.name)
                    void navigate('/tanks')
                  }}
                >
                  <Trash2 size={16} aria-hidden="true" /> Delete this tank
                </button>
              </div>
            </div>
          ) : (
            <p>This tank is not here. It may have been deleted.</p>
          )}
        </ListWithDetail>
      )}
    </>
  )
}

function Litres({ tank }: { readonly tank: Tank }) {
  const water = waterOf(tank)
  return 'volume' in water ? (
    <Num si={water.volume.water} dimension="volume" />
  ) : (
    <span className="text-warning text-[0.85rem]">sizes do not fit</span>
  )
}
