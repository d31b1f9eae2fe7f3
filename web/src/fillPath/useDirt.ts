import { type ForecastReport } from '@ypsometer/core/clogging/report'
import type { Fill } from '@ypsometer/core/fills/place'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { useEffect, useState } from 'react'
import type { PathState } from '../workers/usePath'

/** Days the slider of a fill reaches. */
export const DIRT_DAYS = 180

/** Where the dirt of a tank will sit in a fill, as it lies under the hand; null while it is not asked for. */
export function useDirt(
  ask: PathState['ask'],
  fill: Fill | null | undefined,
  record: TankRecord | null,
  wanted: boolean,
): ForecastReport | null {
  const [run, setRun] = useState<ForecastReport | null>(null)
  useEffect(() => {
    if (!wanted || !fill || !record) return
    let gone = false
    const q = { fill, sponge: false, tank: record, days: DIRT_DAYS }
    // A fill that cannot be is said where it is; what was drawn last stays.
    ask((w) => w.clog(q)).then(
      (r) => !gone && setRun(r),
      () => undefined,
    )
    return () => {
      gone = true
    }
  }, [ask, fill, record, wanted])
  return wanted ? run : null
}
