import {
  isLopsided,
  showPercent,
  showQuantity,
  showWithInterval,
  showWithUncertainty,
  trimZeros,
} from '@ypsometer/core/units/format'
import type { Dimension } from '@ypsometer/core/units/dimensions'
import { decimal, units } from '../settings/settings'
import { pointed } from './pointed'

interface NumProps {
  readonly si: number
  readonly dimension: Dimension
  readonly uncertainty?: number | undefined
  /** Its 95 % interval where the halves differ: said by its ends where they differ by much. */
  readonly interval?: readonly [low: number, high: number] | undefined
  readonly digits?: number
  readonly unit?: string
  readonly className?: string
}

/** A number with its unit smaller beside it and its uncertainty after it, in the reader's units. */
export function Num({ si, dimension, uncertainty, interval, digits = 3, unit, className = '' }: NumProps) {
  const system = units.use()
  const sign = decimal.use()
  if (unit === '%' && !uncertainty) return <Percent share={si} className={className} />
  if (interval && isLopsided(si, interval)) {
    const s = showWithInterval(si, interval, dimension, system, unit)
    return (
      <span className={`num ${className}`}>
        <span className="whitespace-nowrap">
          {pointed(s.number, sign)}
          {s.unit && <span className="muted text-[0.78em]">{'\u00a0' + s.unit}</span>}
        </span>{' '}
        <span className="text-[0.8em] whitespace-nowrap opacity-90">
          ({pointed(s.low, sign)} to {pointed(s.high, sign)})
        </span>
      </span>
    )
  }
  const shown = uncertainty
    ? showWithUncertainty(si, uncertainty, dimension, system, unit)
    : { ...showQuantity(si, dimension, system, digits, unit), uncertainty: undefined }
  return (
    <span className={`num whitespace-nowrap ${className}`}>
      {pointed(uncertainty ? shown.number : trimZeros(shown.number), sign)}
      {shown.uncertainty !== undefined && (
        <span className="opacity-90"> ± {pointed(shown.uncertainty, sign)}</span>
      )}
      {shown.unit && <span className="muted text-[0.78em]">{'\u00a0' + shown.unit}</span>}
    </span>
  )
}

interface PercentProps {
  readonly share: number
  readonly className?: string
  readonly decimals?: number
}

/** A share as a percentage. */
export const Percent = ({ share, className = '', decimals }: PercentProps) => (
  <span className={`num whitespace-nowrap ${className}`}>
    {pointed(showPercent(share, decimals), decimal.use())}
  </span>
)
