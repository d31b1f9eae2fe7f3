import type { Reading } from '@ypsometer/contract'
import { holdingSurvival } from '@ypsometer/core/trials/holding/find'
import { wholeReadings } from '@ypsometer/core/trials/readings'
import SeriesChart from '../../charts/SeriesChart'

/** Share still holding against time, one staircase a thing; drawn once something has let go. */
export default function HoldingChart({
  readings,
  name,
}: {
  readonly readings: readonly Reading[]
  readonly name: string
}) {
  const series = [...new Set(readings.map((r) => r.series))].flatMap((s) => {
    const own = readings.filter((r) => r.series === s)
    const { steps } = holdingSurvival(own)
    if (!steps.length) return []
    const last = Math.max(...wholeReadings('holding', own).map((r) => r.seconds))
    return [
      {
        name: s || 'all',
        stairs: true,
        points: [
          { time: 0, value: 1 },
          ...steps.map((x) => ({ time: x.time, value: x.survival })),
          { time: last, value: steps.at(-1)?.survival ?? 1 },
        ],
      },
    ]
  })
  if (!series.length) return null
  return (
    <SeriesChart
      series={series}
      dimension="ratio"
      unit="%"
      label="Still holding"
      name={`${name} holding`}
      zero
      height={220}
    />
  )
}
