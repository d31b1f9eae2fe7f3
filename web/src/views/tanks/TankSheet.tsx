import type { Tank } from '@ypsometer/contract'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import type { Figure } from '@ypsometer/core/figures/figure'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { changeRow } from '../../api/rows'
import { FigureView } from '../../figures/FigureView'
import { Link } from 'react-router'
import { TankDrawing } from './TankDrawing'
import { waterOf } from '../../tank/waterOf'
import { Sheet } from '../../figures/Sheet'

const SHAPES = [
  ['box', 'Box'],
  ['cylinder', 'Cylinder'],
  ['bow-front', 'Bow front'],
  ['corner', 'Corner'],
] as const

/** A tank as its fields take it. */
interface OfTank {
  readonly collection: 'tanks'
  readonly row: Tank
}

/** One tank: sizes, what lies in it, who lives there, and the water that leaves. */
export function TankSheet({ tank, stock }: { readonly tank: Tank; readonly stock: readonly StockClass[] }) {
  const common = { collection: 'tanks', row: tank } as const
  const share = { ...common, unit: '%' } as const
  const water = waterOf(tank)
  const chosen = stock.find((s) => s.id === tank.stockClassId)
  return (
    <article aria-label={tank.name} className="grid gap-x-10 gap-y-6 xl:grid-cols-[minmax(0,1fr)_21rem]">
      <div className="space-y-4">
        <div className="grid gap-x-6 gap-y-3 sm:grid-cols-2">
          <TextField {...common} field="name" label="Name" />
          <TextField {...common} field="place" label="Location" />
          <SelectField {...common} field="shape" label="Shape" options={SHAPES} />
          <SelectField
            {...common}
            field="stockClassId"
            label="Stocking"
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
                'This stocking type was removed. Choose another.'
              )
            }
          />
        </div>
        <h3>Inside sizes</h3>
        <InsideSizes tank={tank} common={common} />
        <h3>Substrate and décor</h3>
        <LiesInIt common={common} tank={tank} water={water} />
        <h3>How it is kept</h3>
        <Keeping common={common} share={share} />
        <label className="flex items-baseline gap-2">
          <input
            type="checkbox"
            className="checkbox translate-y-1"
            checked={tank.conditioner}
            onChange={(e) => changeRow('tanks', tank, { conditioner: e.target.checked })}
          />
          <span>
            An ammonia-binding water conditioner is in use
            <span className="muted block text-[0.88rem]">
              It leaves bacteria about half of their food while it lasts (common practice).
            </span>
          </span>
        </label>
        <h3>Room for a filter</h3>
        <RoomForFilter common={common} />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="checkbox"
            checked={tank.covered}
            onChange={(e) => changeRow('tanks', tank, { covered: e.target.checked })}
          />
          A lid lies on it
        </label>
        <TextField {...common} field="note" label="Note" lines={2} />
      </div>
      <div>
        {'volume' in water ? (
          <>
            <TankDrawing tank={tank} />
            <p className="kicker mt-3">Water in it</p>
            <FigureView figure={water.figures.water} size="lg" />
            <Sheet className="mt-3">
              <Line figure={water.figures.gross} />
              <Line figure={water.figures.toLevel} />
              <Line figure={water.figures.substrate} />
              <Line figure={water.figures.decor} />
            </Sheet>
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

/** Cabinet, door and rim that a filter has to fit. */
function RoomForFilter({ common }: { readonly common: OfTank }) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
      <QuantityField {...common} field="cabinetWidth" label="Cabinet inside, width" />
      <QuantityField {...common} field="cabinetDepth" label="Cabinet inside, depth" />
      <QuantityField {...common} field="cabinetHeight" label="Cabinet inside, height" />
      <QuantityField {...common} field="doorWidth" label="Its door, width" />
      <QuantityField {...common} field="bottomHeight" label="Height of the tank base above the filter" />
      <QuantityField {...common} field="wallGap" label="Gap to the wall behind" />
      <QuantityField {...common} field="rimThickness" label="Thickness of the rim" />
    </div>
  )
}

/** Feed, changes, and the water itself. */
function Keeping({
  common,
  share,
}: {
  readonly common: OfTank
  readonly share: OfTank & { readonly unit: '%' }
}) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
      <QuantityField
        {...common}
        field="feed"
        label="Feed a day"
        hint="Blank = typical for its stocking; 0 = no animals"
      />
      <QuantityField {...share} field="changeShare" label="Water changed" />
      <QuantityField {...common} field="changeDays" label="Every so many days" />
      <QuantityField {...common} field="waterTemperature" label="Water" />
      <QuantityField {...common} field="pH" label="pH" />
      <QuantityField {...common} field="salinity" label="Salinity (practical)" hint="35 for sea water" />
      <QuantityField
        {...common}
        field="alkalinity"
        label="Alkalinity, as CaCO₃"
        hint="17.8 mg/L for each degree of hardness (KH)"
      />
      <QuantityField {...common} field="tapNitrate" label="Nitrate in the tap, as N" />
      <QuantityField
        {...share}
        field="plantShare"
        label="Plants take of the ammonia"
        hint="Blank = typical for its stocking"
      />
      <QuantityField {...common} field="roomTemperature" label="Room in winter" />
    </div>
  )
}

/** Substrate, and what rock and wood push aside. */
function LiesInIt({
  common,
  tank,
  water,
}: {
  readonly common: OfTank
  readonly tank: Tank
  readonly water: ReturnType<typeof waterOf>
}) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
      <QuantityField
        {...common}
        field="substrateDepth"
        label="Substrate depth"
        check={(v) =>
          v >= tank.waterLevel ? 'As deep as the water: it must be less than the water level.' : null
        }
      />
      <QuantityField
        {...common}
        field="substratePorosity"
        label="Pore space of the substrate"
        unit="%"
        hint="40 % for sand and gravel (common practice)"
      />
      <QuantityField
        {...common}
        field="decorVolume"
        label="Volume of rock and wood"
        check={(v) =>
          'volume' in water && v >= water.volume.water + tank.decorVolume
            ? 'More than the water it stands in.'
            : null
        }
      />
    </div>
  )
}

/** Sizes of a tank inside, as its shape has them. */
function InsideSizes({ tank, common }: { readonly tank: Tank; readonly common: OfTank }) {
  return (
    <div className="grid gap-x-6 gap-y-3 sm:grid-cols-3">
      {(tank.shape === 'box' || tank.shape === 'bow-front') && (
        <>
          <QuantityField {...common} field="length" label="Length" />
          <QuantityField
            {...common}
            field="width"
            label={tank.shape === 'box' ? 'Width' : 'Width at the ends'}
          />
        </>
      )}
      {tank.shape === 'bow-front' && (
        <QuantityField
          {...common}
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
      {tank.shape === 'cylinder' && <QuantityField {...common} field="diameter" label="Diameter" />}
      {tank.shape === 'corner' && (
        <>
          <QuantityField {...common} field="side" label="Side along each wall" />
          <QuantityField
            {...common}
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
        {...common}
        field="height"
        label="Height"
        check={(v) =>
          v < tank.waterLevel ? 'Lower than the water stands: lower the water level first.' : null
        }
      />
      <QuantityField
        {...common}
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
  )
}
