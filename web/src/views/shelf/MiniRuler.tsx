import type { ShelfRow } from '@ypsometer/contract'
import { preferredUnit, toSI, type Unit } from '@ypsometer/core/units/dimensions'
import { units } from '../../settings/settings'
import { FigureView } from '../../figures/FigureView'

const W = 220
/** Room for half a point or mark at both ends: nothing stands out of the drawing (px). */
const EDGE = 9
const TICKS = [1, 2, 5, 10, 20, 50, 100, 200, 500, 1000, 2000, 5000] as const

/** A place on the ruler (px): values below it, nothing at all too, stand at its beginning. */
const place = ([low, high]: Span, v: number): number =>
  EDGE + (v > low ? (Math.log(v / low) / Math.log(high / low)) * (W - 2 * EDGE) : 0)
type Span = readonly [low: number, high: number]

/** Marks of the axis, in the reader’s unit: logarithmic, so that bars have no beginning and points are compared. */
function marksOf(span: Span, unit: Unit): readonly { readonly at: number; readonly text: string }[] {
  return TICKS.flatMap((t) => {
    const si = toSI(t, unit)
    return si >= span[0] && si <= span[1] ? [{ at: place(span, si), text: String(t) }] : []
  })
}

/** The axis over all rows: every row stands on it. */
export function RulerHead({ span }: { readonly span: Span }) {
  const unit = preferredUnit('volume', units.use())
  return (
    <span className="block">
      Largest tank (normal stocking), {unit.symbol}
      <svg viewBox={`0 0 ${W} 16`} width={W} height="16" aria-hidden="true" className="num block max-w-full">
        {marksOf(span, unit).map((m) => (
          <g key={m.text}>
            <path d={`M${m.at} 12v4`} stroke="var(--color-base-content)" />
            <text x={m.at} y="10" textAnchor="middle" fontSize="10.5" fill="var(--color-secondary)">
              {m.text}
            </text>
          </g>
        ))}
      </svg>
    </span>
  )
}

/** The litre ruler in small: a mark at the claimed top, a point at the supported one, rust for what lies between. */
export function MiniRuler({ row, span }: { readonly row: ShelfRow; readonly span: Span }) {
  const unit = preferredUnit('volume', units.use())
  const x = (v: number): number => place(span, v)
  const claim = row.claimedMax?.value ?? null
  const top = row.supportedMax?.value ?? null
  if (claim === null && top === null) return <span className="muted">–</span>
  return (
    <div>
      <svg viewBox={`0 0 ${W} 18`} width={W} height="18" aria-hidden="true" className="block max-w-full">
        <path d={`M0 12H${W}`} stroke="var(--color-base-300)" strokeWidth="1" />
        {marksOf(span, unit).map((m) => (
          <path key={m.text} d={`M${m.at} 9v6`} stroke="var(--color-base-300)" />
        ))}
        {claim !== null && top !== null && claim > top && (
          <path
            d={`M${x(top)} 12H${x(claim)}`}
            stroke="var(--color-error)"
            strokeWidth="4"
            strokeDasharray="2 3"
          />
        )}
        {top !== null && <circle cx={x(top)} cy="12" r="5" fill="var(--color-primary)" />}
        {claim !== null && (
          <path
            d={`M${x(claim) - 5} 3.5h10M${x(claim)} 3.5v14`}
            fill="none"
            stroke="var(--color-base-content)"
            strokeWidth="1.6"
          />
        )}
      </svg>
      <div className="num muted text-[0.82rem]">
        {row.claimedMax ? (
          <>
            label <FigureView figure={row.claimedMax} inline digits={2} />
          </>
        ) : (
          'no tank size on the label'
        )}{' '}
        ·{' '}
        {row.supportedMax ? (
          <>
            supports <FigureView figure={row.supportedMax} inline digits={2} />
          </>
        ) : (
          'not tested yet'
        )}
      </div>
    </div>
  )
}
