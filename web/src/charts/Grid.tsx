import { DefaultZIndexes, usePlotArea, useXAxisScale, useYAxisScale, ZIndexLayer } from 'recharts'

interface Props {
  readonly x: readonly number[]
  readonly y: readonly number[]
}

/**
 * The lines at the ticks of both axes, as one path. The library's own grid measures a word for each row of the data
 * before the axes are there: some sixty times the whole page, for nothing that is shown.
 */
export function Grid({ x, y }: Props) {
  const area = usePlotArea()
  const across = useXAxisScale()
  const up = useYAxisScale()
  if (!area || !across || !up) return null
  const at = (scale: typeof across, ticks: readonly number[]): readonly number[] =>
    ticks.flatMap((t) => {
      const place = scale(t)
      return place !== undefined && Number.isFinite(place) ? [place] : []
    })
  const d = [
    ...at(across, x).map((v) => `M${v} ${area.y}v${area.height}`),
    ...at(up, y).map((v) => `M${area.x} ${v}h${area.width}`),
  ].join('')
  return (
    <ZIndexLayer zIndex={DefaultZIndexes.grid}>
      <path d={d} fill="none" stroke="var(--color-base-300)" strokeWidth={0.6} />
    </ZIndexLayer>
  )
}
