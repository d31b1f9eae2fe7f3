import type { Tank } from '@ypsometer/contract'
import { tankRecord, tankShape } from '@ypsometer/contract/records'
import { smallestFigure } from '@ypsometer/core/judging/rangeFigures'
import { tankBalance } from '@ypsometer/core/judging/tankBalance'
import { balanceWords, type TankBalance } from '@ypsometer/core/judging/balanceWords'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import { CoreError } from '@ypsometer/core/errors/errors'
import { tankFit } from '@ypsometer/core/judging/tankFit'
import { capacityInput } from '@ypsometer/core/tanks/capacity'
import { schoolFigure } from '@ypsometer/core/tanks/capacityFigures'
import { SCHOOLS } from '@ypsometer/core/tanks/schools'
import { stockKey, type StockClass } from '@ypsometer/core/tanks/stock'
import { tankExtent } from '@ypsometer/core/tanks/volume'
import type { SupportedRange } from '@ypsometer/core/tanks/range'
import { useState } from 'react'
import { Link } from 'react-router'
import { useTanks } from '../api/lists'
import { LitreRuler } from '../charts/LitreRuler'
import { FigureView } from '../figures/FigureView'
import { Words } from '../figures/Words'
import { Failed, Loading } from '../frame/States'
import { useDossierContext } from '../frame/dossier'
import { waterOf } from '../tank/waterOf'
import { TankStudy } from '../views/verdict/TankStudy'
import { right, Sheet } from '../figures/Sheet'
import { Explained } from '../figures/Explained'

/** The claimed range against what is supported for each stock class, and every known tank judged. */
export default function TankRange() {
  const { assessment, stock, dossier } = useDossierContext()
  const [open, setOpen] = useState('normal')
  if (!assessment) return <Loading />
  const { verdict } = assessment
  if (!verdict.ranges.length)
    return (
      <p className="max-w-xl">
        No flow is known yet, so no tank can be judged. Copy the{' '}
        <Link to="../claims" className="link">
          rated flow
        </Link>{' '}
        or{' '}
        <Link to="../bench" className="link">
          time some runs
        </Link>
        .
      </p>
    )
  return (
    <div className="space-y-9">
      <section aria-labelledby="ruler-title">
        <h2 id="ruler-title">Claimed and supported tanks</h2>
        {verdict.shipped && (
          <p className="muted">
            With media setup “{verdict.shipped.fill.name}”, at{' '}
            <FigureView figure={verdict.shipped.flow} inline />.
          </p>
        )}
        <label className="mt-1 flex items-baseline gap-2 text-[0.92rem]">
          Sizing rules of
          <select className="select select-sm w-auto" value={open} onChange={(e) => setOpen(e.target.value)}>
            {stock.map((s) => (
              <option key={s.id} value={stockKey(s)}>
                {s.label}
              </option>
            ))}
          </select>
        </label>
        <LitreRuler verdict={verdict} stock={stock} name={dossier.model.name} open={open} />
      </section>
      <KnownTanks />
      <Limits ranges={verdict.ranges} />
    </div>
  )
}

/** Every school of capacity for every class: its tank with the working, or why it says nothing. */
function Limits({ ranges }: { readonly ranges: readonly SupportedRange[] }) {
  const { assessment, stock } = useDossierContext()
  const shipped = assessment?.verdict.shipped
  const claimedMax = assessment?.verdict.claimedRange.max ?? null
  const schools = ranges[0]?.schools.map((s) => s.school) ?? []
  if (!shipped) return null
  return (
    <section aria-labelledby="limits-title" className="as-needed">
      <h2 id="limits-title">
        <Explained>Sizing rules compared</Explained>
      </h2>
      <p className="muted max-w-3xl">
        Largest tank by each sizing rule, in the order of the house rules. The first that applies sets the{' '}
        <Explained>limit</Explained>. Smallest tank: below it, more than half of the tank has too much
        current.
      </p>
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Limits by sizing rule, table">
        <Sheet
          className="mt-2 min-w-[46rem]"
          columns={[
            <Explained>Stocking</Explained>,
            right('Smallest'),
            ...schools.map((s) => right(<>By {SCHOOLS[s].words}</>)),
          ]}
        >
          {ranges.map((r) => {
            const s = stock.find((x) => stockKey(x) === r.stockClass)
            if (!s) return null
            return (
              <tr key={r.stockClass}>
                <td>{s.label}</td>
                <td className="r">
                  {r.min > 0 ? (
                    <FigureView figure={smallestFigure(s, capacityInput(shipped), shipped.flow)} bare />
                  ) : (
                    <span className="muted text-[0.85rem]">any</span>
                  )}
                </td>
                {r.schools.map((says) => {
                  const figure = schoolFigure(says, shipped, s, claimedMax)
                  return (
                    <td key={says.school} className="r">
                      {figure ? (
                        <>
                          {says.role !== 'beside' && (
                            <span className="kicker mr-2">
                              {says.role === 'leads' ? 'limit' : 'lowers it'}
                            </span>
                          )}
                          <FigureView figure={figure} bare />
                        </>
                      ) : (
                        <span className="muted text-[0.85rem]">{says.why}</span>
                      )}
                    </td>
                  )
                })}
              </tr>
            )
          })}
        </Sheet>
      </div>
    </section>
  )
}

function KnownTanks() {
  const { tanks, error, refetch } = useTanks()
  return (
    <section aria-labelledby="known-title">
      <h2 id="known-title">On your tanks</h2>
      {error && !tanks && <Failed error={error} what="the tanks" retry={() => void refetch()} />}
      {tanks && !tanks.length && (
        <p>
          No tank yet.{' '}
          <Link to="/tanks" className="link">
            Add one
          </Link>
          , and it is judged here.
        </p>
      )}
      {tanks && tanks.length > 0 && (
        <>
          <Sheet
            className="mt-2"
            columns={[
              'Tank',
              right('Water'),
              { label: <Explained>Turnovers per hour</Explained>, className: 'r max-sm:hidden' },
              { label: 'Judgement', className: 'pl-8' },
            ]}
          >
            {tanks.map((t) => (
              <KnownTank key={t.id} tank={t} />
            ))}
          </Sheet>
          <div className="mt-9">
            <TankStudy tanks={tanks} />
          </div>
        </>
      )}
    </section>
  )
}

/** A tank’s own balance; null where it cannot be worked out, which its study says in words. */
function balanceOf(tank: Tank, stock: StockClass, fill: JudgedFill | null): TankBalance | null {
  try {
    return tankBalance(tankRecord(tank, stock), fill)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

function KnownTank({ tank }: { readonly tank: Tank }) {
  const { assessment, stock } = useDossierContext()
  const stockClass = stock.find((s) => s.id === tank.stockClassId)
  // Where the sizes do not fit together, the tank's own page says which.
  const known = waterOf(tank)
  const water = 'figures' in known ? known.figures.water : null
  const fit =
    stockClass && water !== null
      ? tankFit(
          { water, stock: stockClass, length: tankExtent(tankShape(tank)).length },
          assessment?.verdict.shipped ?? null,
          assessment?.verdict.claimedRange.max ?? null,
        )
      : null
  const shipped = assessment?.verdict.shipped ?? null
  const balance = stockClass && water !== null ? balanceOf(tank, stockClass, shipped) : null
  const tone = fit?.level === 'suits' ? 'font-medium' : fit?.level === 'unknown' ? 'muted' : 'text-warning'
  return (
    <tr>
      <td>
        <Link to={`?tank=${tank.id}`} preventScrollReset className="hover:underline">
          {tank.name}
        </Link>
        <div className="muted text-[0.85rem]">{stockClass?.label}</div>
      </td>
      <td className="r">
        {water === null ? (
          <span className="text-warning">sizes do not fit</span>
        ) : (
          <FigureView figure={water} inline />
        )}
      </td>
      <td className="r max-sm:hidden">{fit?.turnover && <FigureView figure={fit.turnover} />}</td>
      <td className={`pl-8 ${tone}`}>
        {fit && <Words sentence={fit.sentence} />}
        {balance && (
          <span className="muted block text-[0.88rem] font-normal">
            By its own balance: <Words sentence={balanceWords(balance)} />.
          </span>
        )}
      </td>
    </tr>
  )
}
