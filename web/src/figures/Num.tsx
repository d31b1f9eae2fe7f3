import {
  showPercent,
  showQuantity,
  showWithUncertainty,
  trimZeros,
  type Dimension,
} from '@ypsometer/core/units'
import { decimal, units } from '../frame/settings'
import { pointed } from './pointed'

interface NumProps {
  readonly si: number
  readonly dimension: Dimension
  readonly uncertainty?: number | undefined
  readonly digits?: number
  readonly unit?: string
  readonly className?: string
}

/** A number with its unit smaller beside it and its uncertainty after it, in the reader's units. */
export function Num({ si, dimension, uncertainty, digits = 3, unit, className = '' }: NumProps) {
  const system = units.use()
  const sign = decimal.use()
  if (unit === '%' && !uncertainty) return <Percent share={si} className={className} />
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
