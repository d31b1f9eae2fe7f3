import { thinned } from '@ypsometer/core/bench/logs'
import { fromSI, preferredUnit, findUnit, type Dimension } from '@ypsometer/core/units'
import { useMemo, useRef } from 'react'
import { CartesianGrid, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts'
import { units } from '../frame/settings'
import { axisTicks } from './ticks'
import { ChartTools, type ChartData } from './ChartTools'

/** One line of a chart over time; SI. */
export interface Series {
  readonly name: string
  readonly points: readonly { readonly time: number; readonly value: number }[]
  /** Drawn as stairs: a share that holds until the next change. */
  readonly stairs?: boolean
  /** Each point marked, as single readings are; a long log is a line only. */
  readonly marked?: boolean
}

interface Props {
  readonly series: readonly Series[]
  readonly dimension: Dimension
  readonly unit?: string
  /** What stands upwards; its unit is added. */
  readonly label: string
  readonly name: string
  readonly height?: number
  /** Without the tools under it, as at the bench. */
  readonly bare?: boolean
  readonly zero?: boolean
}

/** Lines told apart in black and white too: by dash and by mark. */
const DASHES = ['', '7 4', '2 3', '9 3 2 3', '1 5', '12 4'] as const
/** Points drawn of a long log; its peaks are kept. */
const DRAWN = 400

/** Something against time: dye, a log, a survival curve. Data as a table and CSV, the drawing as SVG. */
export default function SeriesChart({
  series,
  dimension,
  unit,
  label,
  name,
  height = 260,
  bare,
  zero,
}: Props) {
  const system = units.use()
  const root = useRef<HTMLDivElement>(null)
  const y = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const longest = Math.max(1, ...series.map((s) => s.points.at(-1)?.time ?? 0))
  const minutes = longest > 600
  const time = (t: number): number => (minutes ? t / 60 : t)
  const drawn = useMemo(
    () =>
      series.map((s) => ({
        ...s,
        points: (s.stairs ? stairs(s.points) : thinned(s.points, DRAWN)).map((p) => ({
          time: minutes ? p.time / 60 : p.time,
          value: fromSI(p.value, y),
        })),
      })),
    [series, minutes, y],
  )
  const values = drawn.flatMap((s) => s.points.map((p) => p.value))
  const [low, high] = [Math.min(...values, zero ? 0 : Infinity), Math.max(...values)]
  const pad = (high - low || Math.abs(high) || 1) * 0.08
  const yTicks = zero ? axisTicks(high) : null
  const xTicks = axisTicks(time(longest))
  const title = `${label}${y.symbol ? `, ${y.symbol}` : ''}`
  const data: ChartData = {
    name,
    columns: ['Series', 'Time, s', title],
    rows: series.flatMap((s) =>
      s.points.map((p) => [s.name, Number(p.time.toFixed(3)), Number(fromSI(p.value, y).toPrecision(6))]),
    ),
  }
  return (
    <div ref={root}>
      <div role="group" aria-label={`${label} against time: ${series.map((s) => s.name).join(', ')}`}>
        <ResponsiveContainer width="100%" height={height}>
          <ScatterChart margin={{ top: 10, right: 12, bottom: 18, left: 6 }}>
            <CartesianGrid stroke="var(--color-base-300)" strokeWidth={0.6} />
            <XAxis
              type="number"
              dataKey="time"
              domain={[0, xTicks.at(-1) ?? 1]}
              ticks={xTicks}
              stroke="var(--color-base-content)"
              tick={TICK}
              label={{
                value: minutes ? 'Time, min' : 'Time, s',
                position: 'insideBottom',
                offset: -8,
                ...AXIS,
              }}
            />
            <YAxis
              type="number"
              dataKey="value"
              domain={zero ? [0, yTicks?.at(-1) ?? high] : [low - pad, high + pad]}
              {...(yTicks && { ticks: yTicks })}
              tickFormatter={(v: number) => String(Number(v.toPrecision(4)))}
              width={56}
              stroke="var(--color-base-content)"
              tick={TICK}
              label={{
                value: title,
                angle: -90,
                position: 'insideLeft',
                offset: 8,
                ...AXIS,
                textAnchor: 'middle',
              }}
            />
            <Tooltip
              isAnimationActive={false}
              cursor={{ stroke: 'var(--color-secondary)', strokeDasharray: '2 3' }}
              contentStyle={{
                background: 'var(--color-base-100)',
                border: '1px solid var(--color-base-content)',
                borderRadius: 0,
              }}
              formatter={(v) => Number(Number(v).toPrecision(4))}
            />
            {drawn.map((s, i) => (
              <Scatter
                key={s.name}
                name={s.name}
                data={s.points}
                isAnimationActive={false}
                line={{
                  stroke: 'var(--color-primary)',
                  strokeWidth: 1.8,
                  strokeDasharray: DASHES[i % DASHES.length] ?? '',
                }}
                shape={(p: unknown) =>
                  s.marked ? <Mark at={p as { cx?: number; cy?: number }} of={i} /> : <g />
                }
              />
            ))}
          </ScatterChart>
        </ResponsiveContainer>
      </div>
      {series.length > 1 && (
        <ul className="flex flex-wrap gap-x-5 gap-y-1 text-[0.88rem]">
          {series.map((s, i) => (
            <li key={s.name}>
              <svg width="34" height="12" aria-hidden="true" className="mr-1 inline-block align-[-1px]">
                <path
                  d="M0 6h34"
                  stroke="var(--color-primary)"
                  strokeWidth="1.8"
                  strokeDasharray={DASHES[i % DASHES.length]}
                />
                {s.marked && <Mark at={{ cx: 17, cy: 6 }} of={i} />}
              </svg>
              {s.name}
            </li>
          ))}
        </ul>
      )}
      {!bare && <ChartTools data={data} root={root} />}
    </div>
  )
}

const TICK = { fontFamily: 'var(--font-num)', fontSize: 13, fill: 'var(--color-base-content)' }
const AXIS = { fontFamily: 'var(--font-sans)', fontSize: 14, fill: 'var(--color-secondary)' }

const stairs = (points: Series['points']): Series['points'] =>
  points.flatMap((p, i) => {
    const before = points[i - 1]
    return before ? [{ time: p.time, value: before.value }, p] : [p]
  })

/** A reading's mark; its form follows the series. */
function Mark({
  at,
  of,
}: {
  readonly at: { readonly cx?: number; readonly cy?: number }
  readonly of: number
}) {
  const { cx = 0, cy = 0 } = at
  const d = [
    `M${cx - 4} ${cy - 3.5}h8l-4 8z`,
    `M${cx - 3.5} ${cy - 3.5}h7v7h-7z`,
    `M${cx} ${cy - 4.5}l4.5 4.5-4.5 4.5-4.5-4.5z`,
    `M${cx - 4} ${cy + 3.5}h8l-4-8z`,
  ][of % 4]
  return <path d={d} fill="var(--color-base-100)" stroke="var(--color-primary)" strokeWidth={1.6} />
}
