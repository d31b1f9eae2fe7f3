import { thinned } from '@ypsometer/core/bench/logs'
import { fromSI, preferredUnit, findUnit, type Dimension } from '@ypsometer/core/units/dimensions'
import { useMemo, useRef } from 'react'
import {
  CartesianGrid,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  ScatterChart,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { units } from '../settings/settings'
import { axisTicks } from './ticks'
import { ChartTools, type ChartData } from './ChartTools'

/** One line of a chart over time, or over a length; SI. */
export interface Series {
  readonly name: string
  /** Seconds, or metres where the chart runs over a length. */
  readonly points: readonly { readonly time: number; readonly value: number }[]
  /** Drawn as stairs: a share that holds until the next change. */
  readonly stairs?: boolean
  /** Each point marked, as single readings are; a long log is a line only. */
  readonly marked?: boolean
  /** Marks without a line: what was read now and then, beside what was worked out. */
  readonly loose?: boolean
}

interface Props {
  readonly series: readonly Series[]
  readonly dimension: Dimension
  readonly unit?: string
  /** Name of the upright axis; its unit is added. */
  readonly label: string
  readonly name: string
  readonly height?: number
  /** Without the tools under it, as at the bench. */
  readonly bare?: boolean
  readonly zero?: boolean
  /** Name of the other axis where it is not time: a length. */
  readonly over?: string
  /** Lines to be held against, each with its words. */
  readonly limits?: readonly { readonly value: number; readonly label: string }[]
}

const DAY = 86400

/** Lines told apart in black and white too: by dash and by mark. */
const DASHES = ['', '7 4', '2 3', '9 3 2 3', '1 5', '12 4'] as const
/** Points drawn of a long log; its peaks are kept. */
const DRAWN = 400

/** Points, axes and table of a chart, in the reader’s units. */
function useDrawn({ series, dimension, unit, label, name, zero, over, limits = [] }: Props) {
  const system = units.use()
  const y = (unit && findUnit(unit, dimension, system)) || preferredUnit(dimension, system)
  const longest = Math.max(over ? 0.01 : 1, ...series.map((s) => s.points.at(-1)?.time ?? 0))
  const along = preferredUnit('length', system)
  const [step, per] = useMemo((): readonly [number, string] => {
    if (over) return [along.factor, along.symbol]
    if (longest > 2 * DAY) return [DAY, 'days']
    return longest > 600 ? [60, 'min'] : [1, 's']
  }, [over, along, longest])
  const drawn = useMemo(
    () =>
      series.map((s) => ({
        ...s,
        points: (s.stairs ? stairs(s.points) : thinned(s.points, DRAWN)).map((p) => ({
          time: p.time / step,
          value: fromSI(p.value, y),
        })),
      })),
    [series, step, y],
  )
  const values = drawn.flatMap((s) => s.points.map((p) => p.value))
  const held = limits.map((l) => ({ ...l, value: fromSI(l.value, y) }))
  const [low, high] = [
    Math.min(...values, zero ? 0 : Infinity),
    Math.max(...values, ...held.map((l) => l.value * 1.1)),
  ]
  const pad = (high - low || Math.abs(high) || 1) * 0.08
  const yTicks = zero ? axisTicks(high) : null
  const xTicks = axisTicks(longest / step)
  const across = `${over ?? 'Time'}, ${per}`
  const title = `${label}${y.symbol ? `, ${y.symbol}` : ''}`
  const data: ChartData = {
    name,
    columns: ['Series', over || step === DAY ? across : 'Time, s', title],
    rows: series.flatMap((s) =>
      s.points.map((p) => [
        s.name,
        Number((over || step === DAY ? p.time / step : p.time).toFixed(3)),
        Number(fromSI(p.value, y).toPrecision(6)),
      ]),
    ),
  }
  const domain: [number, number] = zero ? [0, yTicks?.at(-1) ?? high] : [low - pad, high + pad]
  return { drawn, held, domain, yTicks, xTicks, across, title, data }
}

/** Something against time: dye, a log, a survival curve. Data as a table and CSV, the drawing as SVG. */
export default function SeriesChart(p: Props) {
  const { series, label, height = 260, bare, over } = p
  const root = useRef<HTMLDivElement>(null)
  const { drawn, held, domain, yTicks, xTicks, across, title, data } = useDrawn(p)
  return (
    <div ref={root}>
      <div
        role="group"
        aria-label={`${label} against ${over?.toLowerCase() ?? 'time'}: ${series.map((s) => s.name).join(', ')}`}
      >
        <ResponsiveContainer width="100%" height={height}>
          <ScatterChart margin={{ top: 10, right: 18, bottom: 18, left: 6 }}>
            <CartesianGrid stroke="var(--color-base-300)" strokeWidth={0.6} />
            <XAxis
              type="number"
              dataKey="time"
              domain={[0, xTicks.at(-1) ?? 1]}
              ticks={xTicks}
              interval={0}
              stroke="var(--color-base-content)"
              tick={TICK}
              label={{
                value: across,
                position: 'insideBottom',
                offset: -8,
                ...AXIS,
              }}
            />
            <YAxis
              type="number"
              dataKey="value"
              domain={domain}
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
            {held.map((l) => (
              <ReferenceLine
                key={l.label}
                y={l.value}
                stroke="var(--color-error)"
                strokeDasharray="5 4"
                label={{
                  value: l.label,
                  position: 'insideBottomRight',
                  fontFamily: 'var(--font-sans)',
                  fontSize: 13,
                  fill: 'var(--color-base-content)',
                }}
              />
            ))}
            {drawn.map((s, i) => (
              <Scatter
                key={s.name}
                name={s.name}
                data={s.points}
                isAnimationActive={false}
                line={
                  s.loose
                    ? false
                    : {
                        stroke: 'var(--color-primary)',
                        strokeWidth: 1.8,
                        strokeDasharray: DASHES[i % DASHES.length] ?? '',
                      }
                }
                shape={(p: unknown) =>
                  s.marked ? <Mark at={p as { cx?: number; cy?: number }} of={i} /> : <g />
                }
              />
            ))}
          </ScatterChart>
        </ResponsiveContainer>
      </div>
      {series.length > 1 && <SeriesList series={series} />}
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

/** Which mark is which series; each can be put away. */
function SeriesList({ series }: { readonly series: readonly Series[] }) {
  return (
    <ul className="flex flex-wrap gap-x-5 gap-y-1 text-[0.88rem]">
      {series.map((s, i) => (
        <li key={s.name}>
          <svg width="34" height="12" aria-hidden="true" className="mr-1 inline-block align-[-1px]">
            {!s.loose && (
              <path
                d="M0 6h34"
                stroke="var(--color-primary)"
                strokeWidth="1.8"
                strokeDasharray={DASHES[i % DASHES.length]}
              />
            )}
            {s.marked && <Mark at={{ cx: 17, cy: 6 }} of={i} />}
          </svg>
          {s.name}
        </li>
      ))}
    </ul>
  )
}

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
