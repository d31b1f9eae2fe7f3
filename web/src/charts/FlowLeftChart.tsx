import type { ForecastReport } from '@ypsometer/core/clogging/report'
import { showPercent } from '@ypsometer/core/units/format'
import { useRef } from 'react'
import {
  Area,
  ComposedChart,
  ErrorBar,
  Line,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  Scatter,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts'
import { Grid } from './Grid'
import { ChartTools, type ChartData } from './ChartTools'
import { AXIS, TICK } from './axis'

interface Props {
  readonly name: string
  readonly run: ForecastReport
  readonly slow: ForecastReport
  readonly fast: ForecastReport
  /** Without any cleaning: the day it is due is told of this one. */
  readonly alone: ForecastReport
  /** As the constants ship, where visits have moved the forecast. */
  readonly asShipped: ForecastReport | null
  readonly seen: readonly { readonly day: number; readonly left: number; readonly uncertainty: number }[]
  readonly until: number
  /** The day that is looked at. */
  readonly day: number
}

const left = (r: ForecastReport, i: number): number => (r.days[i]?.flow ?? 0) / (r.days[0]?.flow || 1)
/** Share of what a pass first caught that it catches on a day. */
const catches = (r: ForecastReport, i: number): number =>
  (r.days[i]?.catches ?? 0) / (r.days[0]?.catches || 1)

/** Ticks a quarter apart, as far as what is drawn goes. */
const levelsTo = (top: number): number[] => Array.from({ length: Math.ceil(top * 4) + 1 }, (_, i) => i / 4)
/**
 * Flow left and dirt caught over the days: the forecast with its band, what check-ups saw, and the day that one of the
 * two falls to its mark, which is the day the sentence above names.
 */
export default function FlowLeftChart(props: Props) {
  const { name, run, slow, fast, alone, asShipped, seen, until, day } = props
  const { due, dueAt, catchesAt } = alone.answers
  const served = run.days.some((d, i) => d.flow !== alone.days[i]?.flow)
  const root = useRef<HTMLDivElement>(null)
  const rows = Array.from({ length: Math.min(until, run.days.length - 1) + 1 }, (_, i) => ({
    day: i,
    left: left(run, i),
    band: [Math.min(left(fast, i), left(slow, i)), Math.max(left(fast, i), left(slow, i))] as const,
    catches: catches(alone, i),
    ...(served && { alone: left(alone, i) }),
    ...(asShipped && { shipped: left(asShipped, i) }),
  }))
  const points = seen
    .filter((s) => s.day <= until)
    .map((s) => ({ day: s.day, seen: s.left, error: 2 * s.uncertainty }))
  // What is clogged strains better for a while: more than at first.
  const levels = levelsTo(Math.max(1, ...rows.map((r) => r.catches)))
  const data: ChartData = {
    name: `${name} flow left`,
    columns: ['Day', 'Forecast', 'Low', 'High', 'Dirt caught per pass', 'Seen'],
    rows: rows.map((r) => [
      r.day,
      r.left.toFixed(4),
      r.band[0].toFixed(4),
      r.band[1].toFixed(4),
      r.catches.toFixed(4),
      points.find((p) => p.day === r.day)?.seen.toFixed(4) ?? '',
    ]),
  }
  const ticks = until <= 180 ? [0, 30, 60, 90, 120, 150, 180] : [0, 60, 120, 180, 240, 300, 360]
  return (
    <div ref={root} role="group" aria-label="Flow left and dirt caught over the days">
      <ResponsiveContainer width="100%" height={250}>
        <ComposedChart data={rows} margin={{ top: 8, right: 10, bottom: 18, left: 4 }}>
          <Grid x={ticks} y={levels} />
          <XAxis
            dataKey="day"
            type="number"
            domain={[0, until]}
            ticks={ticks}
            interval={0}
            stroke="var(--color-base-content)"
            tick={TICK}
            label={{ value: 'Days since it was clean', position: 'insideBottom', offset: -10, ...AXIS }}
          />
          <YAxis
            domain={[0, levels.at(-1) ?? 1]}
            ticks={levels}
            interval={0}
            tickFormatter={(v: number) => showPercent(v)}
            width={52}
            stroke="var(--color-base-content)"
            tick={TICK}
          />
          <Tooltip
            isAnimationActive={false}
            formatter={(v) =>
              Array.isArray(v) ? v.map((x) => showPercent(Number(x))).join(' to ') : showPercent(Number(v))
            }
            labelFormatter={(v) => `Day ${v}`}
            contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-300)' }}
          />
          <ReferenceLine y={dueAt} stroke="var(--color-warning)" strokeDasharray="5 4" />
          <ReferenceLine y={catchesAt} stroke="var(--color-primary)" strokeDasharray="2 5" />
          {day > 0 && <ReferenceLine x={day} stroke="var(--color-secondary)" />}
          <Area
            dataKey="band"
            name="95 %"
            stroke="none"
            fill="var(--color-primary)"
            fillOpacity={0.18}
            isAnimationActive={false}
          />
          {asShipped && (
            <Line
              dataKey="shipped"
              name="before any visit"
              dot={false}
              stroke="var(--color-secondary)"
              strokeDasharray="3 3"
              isAnimationActive={false}
            />
          )}
          <Line
            dataKey="catches"
            name="dirt caught per pass"
            dot={false}
            stroke="var(--color-primary)"
            strokeWidth={1.6}
            strokeDasharray="7 3"
            isAnimationActive={false}
          />
          {served && (
            <Line
              dataKey="alone"
              name="without cleaning"
              dot={false}
              stroke="var(--color-base-content)"
              strokeDasharray="2 3"
              isAnimationActive={false}
            />
          )}
          <Line
            dataKey="left"
            name="flow left"
            dot={false}
            stroke="var(--color-base-content)"
            strokeWidth={2}
            isAnimationActive={false}
          />
          <Scatter
            data={points}
            dataKey="seen"
            name="seen"
            fill="var(--color-primary)"
            stroke="var(--color-base-content)"
            isAnimationActive={false}
          >
            <ErrorBar dataKey="error" direction="y" stroke="var(--color-base-content)" width={5} />
          </Scatter>
          {due && due.day <= until && (
            <ReferenceDot
              x={due.day}
              y={due.why === 'flow' ? dueAt : catchesAt}
              r={6}
              fill="var(--color-base-100)"
              stroke="var(--color-warning)"
              strokeWidth={2.5}
              label={{ value: `day ${Math.round(due.day)}`, position: 'right', offset: 10, dy: -12, ...AXIS }}
            />
          )}
        </ComposedChart>
      </ResponsiveContainer>
      <p className="muted mt-1 text-[0.88rem]">
        Line: flow left, with its 95 % range. Long dashes: dirt caught per pass. Both compared with a clean
        filter. {served && 'Short dashes: without cleaning. '}
        {asShipped && 'Grey dashes: before any check-up. '}
        {points.length > 0 && 'Points: seen at check-ups. '}
        Clean at {showPercent(dueAt)} of the flow or {showPercent(catchesAt)} of the dirt caught (our choice)
        {due && due.day <= until ? ': the ring.' : '.'}
      </p>
      <ChartTools data={data} root={root} />
    </div>
  )
}
