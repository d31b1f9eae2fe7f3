import type { Tank } from '@ypsometer/contract'
import type { StockClass } from '@ypsometer/core/tanks'
import type { Figure } from '@ypsometer/core/figures'
import { QuantityField, SelectField, TextField } from '../../fields/fields'
import { FigureView } from '../../figures/FigureView'
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
              chosen && `${chosen.minTurnover} to ${chosen.maxTurnover} turnovers an hour (${chosen.source})`
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
