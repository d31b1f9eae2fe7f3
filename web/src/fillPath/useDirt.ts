import { type ForecastReport } from '@ypsometer/core/clogging/report'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { usePathWork, type PathState } from '../workers/usePath'

/** Days the slider of a fill reaches. */
export const DIRT_DAYS = 180

/** Where the dirt of a tank will sit in a fill, as it lies under the hand; null while it is not asked for. */
export function useDirt(
  asked: PathState['asked'],
  record: TankRecord | null,
  wanted: boolean,
): ForecastReport | null {
  const { answer } = usePathWork('dirt', wanted && record ? asked : null, record, (w, { fill }, tank) =>
    tank ? w.clog({ fill, sponge: false, tank, days: DIRT_DAYS }) : Promise.resolve(null),
  )
  return wanted ? answer : null
}
