import type { ShelfRow } from '@ypsometer/contract'
import { FigureView } from '../../figures/FigureView'

const W = 220

/** The litre ruler in small: bracket to the claimed top, bar to the supported one, rust for what lies between. */
export function MiniRuler({
  row,
  span,
}: {
  readonly row: ShelfRow
  readonly span: readonly [number, number]
}) {
  const [low, high] = span
  /** Values below the ruler, nothing at all too, stand at its beginning. */
  const x = (v: number): number => (v > low ? (Math.log(v / low) / Math.log(high / low)) * W : 0)
  const claim = row.claimedMax?.value ?? null
  const top = row.supportedMax?.value ?? null
  if (claim === null && top === null) return <span className="muted">–</span>
  return (
    <div>
      <svg viewBox={`0 0 ${W} 18`} width={W} height="18" aria-hidden="true" className="block max-w-full">
        <path d={`M0 13.5H${W}`} stroke="var(--color-base-300)" strokeWidth="1" />
        {top !== null && <rect x="0" y="10" width={x(top)} height="7" fill="var(--color-primary)" />}
        {claim !== null && top !== null && claim > top && (
          <path
            d={`M${x(top)} 13.5H${x(claim)}`}
            stroke="var(--color-error)"
            strokeWidth="4"
            strokeDasharray="2 3"
          />
        )}
        {claim !== null && (
          <path
            d={`M0 5.5H${x(claim)}v11`}
            fill="none"
            stroke="var(--color-base-content)"
            strokeWidth="1.3"
          />
        )}
      </svg>
      <div className="num muted text-[0.82rem]">
        {row.claimedMax ? (
          <>
            claimed <FigureView figure={row.claimedMax} inline digits={2} />
          </>
        ) : (
          'no tank size on the label'
        )}{' '}
        ·{' '}
        {row.supportedMax ? (
          <>
            supported <FigureView figure={row.supportedMax} inline digits={2} />
          </>
        ) : (
          'not tested yet'
        )}
      </div>
    </div>
  )
}
