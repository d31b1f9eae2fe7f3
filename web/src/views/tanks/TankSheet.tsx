import type { Tank } from '@ypsometer/contract'
import type { StockClass } from '@ypsometer/core/tanks'
import type { Figure } from '@ypsometer/core/figures'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { changeRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import { Link } from 'react-router'
import { TankDrawing } from './TankDrawing'
import { waterOf } from '../../tank/waterOf'

const SHAPES = [
  ['box', 'Box'],
  ['cylinder', 'Cylinder'],
  ['bow-front', 'Bow front'],
  ['corner', 'Corner'],
] as const

/** One tank: sizes, what lies in it, who lives there, and the water that leaves. */
export function TankSheet({ tank, stock }: { readonly tank: Tank; readonly stock: readonly StockClass[] }) {
  const common = { collection: 'tanks', row: tank } as const
  const size = { ...common, dimension: 'length', min: 0.01, max: 20 } as const
  const share = { ...common, dimension: 'ratio', unit: '%', min: 0 } as const
  const water = waterOf(tank)
  const chosen = stock.find((s) => s.id === tank.stockClassId)
  return (
    <article aria-label={tank.name} className="grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="space-y-4">
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
          <TextField {...common} field="name" label="Name" max={80} required />
          <TextField {...common} field="place" label="Where it stands" max={120} />
          <SelectField {...common} field="shape" label="Shape" options={SHAPES} />
          <SelectField
            {...common}
            field="stockClassId"
            label="Who lives there"
            options={stock.map((s) => [s.id, s.label] as const)}
            hint={
              chosen ? (
                <>
                  Feed, current and media for each litre are those of{' '}
                  <Link to={`/stock/${chosen.id}`} className="link">
                    the class
                  </Link>
                  .
                </>
              ) : (
                'This class was removed: choose another.'
              )
            }
          />
        </div>
        <h3>Inside sizes</h3>
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
          {(tank.shape === 'box' || tank.shape === 'bow-front') && (
            <>
              <QuantityField {...size} field="length" label="Length" />
              <QuantityField
                {...size}
                field="width"
                label={tank.shape === 'box' ? 'Width' : 'Width at the ends'}
              />
            </>
          )}
          {tank.shape === 'bow-front' && (
            <QuantityField
              {...size}
              field="bowWidth"
              label="Width in the middle"
              check={(v) =>
                v < tank.width
                  ? 'No less than the width at the ends.'
                  : v - tank.width > tank.length / 2
                    ? 'The bow can stand out by half the length at most.'
                    : null
              }
            />
          )}
          {tank.shape === 'cylinder' && <QuantityField {...size} field="diameter" label="Diameter" />}
          {tank.shape === 'corner' && (
            <>
              <QuantityField {...size} field="side" label="Side along each wall" />
              <QuantityField
                {...size}
                min={0}
                field="endPanel"
                label="End panel"
                check={(v) => (v > tank.side ? 'No longer than the side.' : null)}
              />
              <SelectField
                {...common}
                field="front"
                label="Front"
                options={[
                  ['flat', 'Flat'],
                  ['curved', 'Curved'],
                ]}
              />
            </>
          )}
          <QuantityField
            {...size}
            field="height"
            label="Height"
            check={(v) =>
              v < tank.waterLevel ? 'Lower than the water stands: lower the water level first.' : null
            }
          />
          <QuantityField
            {...size}
            field="waterLevel"
            label="Water level above the bottom"
            check={(v) =>
              v > tank.height
                ? 'Higher than the tank.'
                : v <= tank.substrateDepth
                  ? 'The substrate would stand above the water.'
                  : null
            }
          />
        </div>
        <h3>What lies in it</h3>
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
          <QuantityField
            {...common}
            field="substrateDepth"
            label="Substrate depth"
            dimension="length"
            min={0}
            max={5}
            check={(v) =>
              v >= tank.waterLevel ? 'As deep as the water: it must be less than the water level.' : null
            }
          />
          <QuantityField
            {...common}
            field="substratePorosity"
            label="Of it, water between the grains"
            dimension="ratio"
            unit="%"
            min={0}
            max={0.95}
            hint="40 % for sand and gravel (common practice)"
          />
          <QuantityField
            {...common}
            field="decorVolume"
            label="Water pushed aside by rock and wood"
            dimension="volume"
            min={0}
            max={50}
            check={(v) =>
              'volume' in water && v >= water.volume.water + tank.decorVolume
                ? 'More than the water it stands in.'
                : null
            }
          />
        </div>
        <h3>How it is kept</h3>
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
          <QuantityField
            {...common}
            field="feed"
            label="Feed a day"
            dimension="feed"
            min={0}
            max={0.01}
            optional
            hint="empty: what its class is fed; 0: no animals"
          />
          <QuantityField {...share} field="changeShare" label="Water changed" max={1} />
          <QuantityField
            {...common}
            field="changeDays"
            label="Every so many days"
            dimension="ratio"
            min={0.5}
            max={365}
          />
          <QuantityField
            {...common}
            field="waterTemperature"
            label="Water"
            dimension="temperature"
            min={1}
            max={39}
          />
          <QuantityField {...common} field="pH" label="pH" dimension="ratio" min={4} max={10.5} />
          <QuantityField
            {...common}
            field="salinity"
            label="Salinity (practical)"
            dimension="ratio"
            min={0}
            max={42}
            hint="35 for sea water"
          />
          <QuantityField
            {...common}
            field="alkalinity"
            label="Alkalinity, as CaCO₃"
            dimension="concentration"
            min={0}
            max={1}
            hint="17.8 mg/L for each degree of hardness (KH)"
          />
          <QuantityField
            {...common}
            field="tapNitrate"
            label="Nitrate in the tap, as N"
            dimension="concentration"
            min={0}
            max={0.1}
          />
          <QuantityField
            {...share}
            field="plantShare"
            label="Plants take of the ammonia"
            max={0.95}
            optional
            hint="empty: as its class"
          />
          <QuantityField
            {...common}
            field="roomTemperature"
            label="Room in winter"
            dimension="temperature"
            min={-10}
            max={45}
            optional
          />
        </div>
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm translate-y-1"
            checked={tank.conditioner}
            onChange={(e) => changeRow('tanks', tank, { conditioner: e.target.checked })}
          />
          <span>
            An ammonia-binding conditioner or sorbent is in use
            <span className="muted block text-[0.88rem]">
              It leaves bacteria about half of their food while it lasts (common practice).
            </span>
          </span>
        </label>
        <h3>Room for a filter</h3>
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
          <QuantityField {...size} field="cabinetWidth" label="Cabinet inside, width" optional />
          <QuantityField {...size} field="cabinetDepth" label="Cabinet inside, depth" optional />
          <QuantityField {...size} field="cabinetHeight" label="Cabinet inside, height" optional />
          <QuantityField {...size} field="doorWidth" label="Its door, width" optional />
          <QuantityField
            {...size}
            min={-5}
            max={10}
            field="bottomHeight"
            label="Tank’s bottom over the filter’s place"
            optional
          />
          <QuantityField {...size} min={0} max={5} field="wallGap" label="Gap to the wall behind" optional />
          <QuantityField
            {...size}
            min={0}
            max={0.5}
            field="rimThickness"
            label="Thickness of the rim"
            optional
          />
        </div>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox checkbox-sm"
            checked={tank.covered}
            onChange={(e) => changeRow('tanks', tank, { covered: e.target.checked })}
          />
          A lid lies on it
        </label>
        <TextField {...common} field="note" label="Note" max={4000} lines={2} />
      </div>
      <div>
        {'volume' in water ? (
          <>
            <TankDrawing tank={tank} />
            <p className="kicker mt-3">Water in it</p>
            <FigureView figure={water.figures.water} size="lg" />
            <table className="sheet mt-3">
              <tbody>
                <Line figure={water.figures.gross} />
                <Line figure={water.figures.toLevel} />
                <Line figure={water.figures.substrate} />
                <Line figure={water.figures.decor} />
              </tbody>
            </table>
          </>
        ) : (
          <p role="alert" className="text-error">
            These sizes do not fit together. {water.problem}
          </p>
        )}
      </div>
    </article>
  )
}

const Line = ({ figure }: { readonly figure: Figure }) => (
  <tr>
    <td>{figure.label}</td>
    <td className="r">
      <FigureView figure={figure} inline />
    </td>
  </tr>
)
