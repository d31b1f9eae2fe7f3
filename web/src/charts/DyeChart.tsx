import type { Reading, Trial } from '@ypsometer/contract'
import { dyeCurves } from '@ypsometer/core/trials/dye/find'
import { useMemo } from 'react'
import type { Series } from './SeriesChart'
import { SeriesChart } from '.'

/** Strength of dye against time, a line a point. */
export function DyeChart({
  trial,
  readings,
  logs = [],
  name,
  small,
}: {
  readonly trial: Trial
  readonly readings: readonly Reading[]
  readonly logs?: readonly Series[]
  readonly name: string
  readonly small?: boolean
}) {
  const series = useMemo(
    () => [
      ...[...dyeCurves(readings)].map(([point, curve]) => ({
        name: point || 'the point',
        marked: true,
        points: curve.map((p) => ({ time: p.time, value: p.concentration })),
      })),
      ...logs,
    ],
    [readings, logs],
  )
  if (!series.some((s) => s.points.length > 1)) return null
  return (
    <SeriesChart
      series={series}
      dimension="ratio"
      label={`Strength of dye${trial.setup.unit ? `, ${trial.setup.unit}` : ''}`}
      name={`${name} dye`}
      zero
      {...(small && { height: 190, bare: true })}
    />
  )
}
