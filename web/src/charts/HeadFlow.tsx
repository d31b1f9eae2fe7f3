import { circuitLoss } from '@ypsometer/core/duty/circuit'
import { labelBand, pumpBand } from '@ypsometer/core/hydraulics/bands'
import { pumpHead } from '@ypsometer/core/hydraulics/pump'
import type { Assessment } from '@ypsometer/core/judging/assess'
import type { HookupResult, KnownPump } from '@ypsometer/core/trials/modelPump'
import { fromSI, preferredUnit, type Unit } from '@ypsometer/core/units/dimensions'
import { showQuantity } from '@ypsometer/core/units/format'
import { useDeferredValue, useMemo, useRef } from 'react'
import {
  Area,
  ComposedChart,
  DefaultZIndexes,
  Line,
  ResponsiveContainer,
  Tooltip,
  usePlotArea,
  useXAxisScale,
  XAxis,
  YAxis,
  useYAxisScale,
  ZIndexLayer,
} from 'recharts'
import { units } from '../settings/settings'
import { BudgetColumn, BudgetList } from './BudgetColumn'
import { Plumb } from './Plumb'
import { Grid } from './Grid'
import { ChartTools, type ChartData } from './ChartTools'
import { axisTicks } from './ticks'
import { useWidth } from './useWidth'

const HEIGHT = 400
const TOP = 14
const AXIS = 46
/** Most of an axis that a band may take, in shut-off heads. */
const WIDEST = 1.6

interface Props {
  readonly assessment: Assessment
  readonly hookup: HookupResult | null
  readonly show: 'computed' | 'measured'
  readonly name: string
  /** A point was dragged off the curve, or one that is out is to come back; by its trial. */
  readonly onTakeOut?: (trialId: string) => void
  readonly onPutBack?: (trialId: string) => void
}

/** Lines and points of the drawing, in the units of its axes. */
function modelOf(
  known: NonNullable<Props['assessment']['pump']>,
  hookup: Props['hookup'],
  flowUnit: Unit,
  headUnit: Unit,
) {
  const q = (v: number): number => fromSI(v, flowUnit)
  const h = (v: number): number => fromSI(v, headUnit)
  const top = Math.max(known.pump.maxFlow, known.labelPump?.maxFlow ?? 0) * 1.04
  const shutOff = Math.max(known.pump.shutOffHead, known.labelPump?.shutOffHead ?? 0)
  const bandTop = known.fit ? known.pump.shutOffHead + pumpBand(0, known.fit) : labelBand(0, known.pump).high
  // The axis ends above the band, so that the column beside it has the same one; a very wide band is cut off.
  const highest = Math.max(shutOff * 1.06, Math.min(bandTop, shutOff * WIDEST))
  // Both curves end on the axis: their own last flows are among the samples.
  const ends = [known.pump.maxFlow, ...(known.labelPump ? [known.labelPump.maxFlow] : [])]
  const flows = [...Array.from({ length: 61 }, (_, i) => (top * i) / 60), ...ends].sort((a, b) => a - b)
  const rows = flows.map((flow) => {
    const base = pumpHead(flow, known.pump)
    const half = known.fit ? pumpBand(flow, known.fit) : 0
    const label = known.from === 'label' ? labelBand(flow, known.pump) : null
    const circuit = hookup
      ? hookup.staticHead.head + circuitLoss(flow, hookup.hookup.segments, hookup.fluid)
      : undefined
    return {
      flow: q(flow),
      pump: flow <= known.pump.maxFlow ? h(base) : undefined,
      band:
        flow <= known.pump.maxFlow
          ? label
            ? [h(label.low), h(Math.min(label.high, highest))]
            : [h(Math.max(0, base - half)), h(Math.min(base + half, highest))]
          : undefined,
      label:
        known.from === 'fit' && known.labelPump && flow <= known.labelPump.maxFlow
          ? h(pumpHead(flow, known.labelPump))
          : undefined,
      circuit: circuit !== undefined && circuit <= highest ? h(circuit) : undefined,
    }
  })
  const place = (p: { flow: number; head: number; flowUncertainty?: number; trialId: string }) => ({
    flow: q(p.flow),
    head: h(p.head),
    error: q(2 * (p.flowUncertainty ?? 0)),
    trialId: p.trialId,
  })
  const points = known.curve.points.map(place)
  const out = known.curve.out.map(place)
  const printed = known.labelPoints.map((p) => ({ flow: q(p.flow), head: h(p.head) }))
  const xTicks = axisTicks(q(top))
  const yTicks = axisTicks(h(highest))
  return {
    rows,
    points,
    out,
    printed,
    xTicks,
    yTicks,
    xMax: xTicks.at(-1) ?? 1,
    yMax: yTicks.at(-1) ?? 1,
    q,
    h,
  }
}

/** Head against flow with the head budget standing on the same axis: read across from the curve to the column. */
export default function HeadFlow({ assessment, hookup, show, name, onTakeOut, onPutBack }: Props) {
  const system = units.use()
  const root = useRef<HTMLDivElement>(null)
  // Axes first, and the curves on them in a piece of their own: all at once would hold the page up.
  const drawn = useDeferredValue(true, false)
  const compact = useWidth(root, 900) < 640
  const flowUnit = preferredUnit('flow', system)
  const headUnit = preferredUnit('head', system)
  const known = assessment.pump
  const model = useMemo(
    () => known && modelOf(known, hookup, flowUnit, headUnit),
    [known, hookup, flowUnit, headUnit],
  )
  if (!known || !model) return <div ref={root} />
  const measured = show === 'measured' ? hookup?.measured : null
  const at = measured
    ? { flow: measured.figure.value, head: measured.pumpHead }
    : hookup && !hookup.duty.blocked
      ? { flow: hookup.duty.flow, head: hookup.duty.head }
      : null
  const budget = measured?.budget ?? hookup?.budget ?? []
  const tick = (v: number): string => String(Number(v.toPrecision(6)))
  const data: ChartData = {
    name: `${name} head and flow`,
    columns: [
      `Flow, ${flowUnit.symbol}`,
      `Pump head, ${headUnit.symbol}`,
      `Label’s curve, ${headUnit.symbol}`,
      `Circuit, ${headUnit.symbol}`,
    ],
    rows: model.rows
      .filter((_, i) => i % 3 === 0)
      .map((r) =>
        [r.flow, r.pump, r.label, r.circuit].map((v) => (v === undefined ? '' : Number(v.toPrecision(4)))),
      ),
  }
  return (
    <div ref={root}>
      <div className="flex" role="group" aria-label={describe(at, known.from, system)}>
        <div className="min-w-0 flex-1">
          <ResponsiveContainer width="100%" height={HEIGHT}>
            <ComposedChart data={model.rows} margin={{ top: TOP, right: 14, bottom: 0, left: 0 }}>
              <Grid x={model.xTicks} y={model.yTicks} />
              <XAxis
                type="number"
                dataKey="flow"
                domain={[0, model.xMax]}
                ticks={model.xTicks}
                interval={0}
                height={AXIS}
                tickFormatter={tick}
                stroke="var(--color-base-content)"
                tick={TICK}
                label={{
                  value: `Flow, ${flowUnit.symbol}`,
                  position: 'insideBottom',
                  offset: 4,
                  ...AXIS_LABEL,
                }}
              />
              <YAxis
                type="number"
                domain={[0, model.yMax]}
                ticks={model.yTicks}
                interval={0}
                width={52}
                tickFormatter={tick}
                stroke="var(--color-base-content)"
                tick={TICK}
                label={{
                  value: `Head, ${headUnit.symbol}`,
                  angle: -90,
                  position: 'insideLeft',
                  offset: 12,
                  ...AXIS_LABEL,
                }}
              />
              {drawn && <Lines known={known} hookup={hookup} />}
              <Marks
                points={model.points}
                printed={model.printed}
                at={at && { flow: model.q(at.flow), head: model.h(at.head) }}
                measured={!!measured}
              />
              <Points points={model.points} onMove={onTakeOut} />
              <Points points={model.out} onMove={onPutBack} out />
              <Tooltip
                content={<Hover flowUnit={flowUnit.symbol} headUnit={headUnit.symbol} />}
                cursor={{ stroke: 'var(--color-secondary)', strokeDasharray: '2 3' }}
                isAnimationActive={false}
              />
            </ComposedChart>
          </ResponsiveContainer>
        </div>
        {budget.length > 0 && at && (
          <BudgetColumn
            lines={budget}
            head={at.head}
            top={TOP}
            bottom={AXIS}
            height={HEIGHT}
            axisMax={model.yMax * headUnit.factor}
            compact={compact}
          />
        )}
      </div>
      {compact && at && <BudgetList lines={budget} />}
      <Legend
        from={known.from}
        hookup={hookup !== null}
        label={known.from === 'fit' && known.labelPump !== null}
        points={model.points.length > 0}
        out={model.out.length > 0}
        printed={model.printed.length > 0}
        at={at && (measured ? 'measured' : 'calculated')}
      />
      <ChartTools data={data} root={root} />
    </div>
  )
}

/** The band, the label’s curve, the circuit, and the pump. */
function Lines({ known, hookup }: { readonly known: KnownPump; readonly hookup: HookupResult | null }) {
  return (
    <>
      <Area
        dataKey="band"
        stroke="none"
        fill="var(--color-primary)"
        fillOpacity={0.14}
        isAnimationActive={false}
        activeDot={false}
        tooltipType="none"
      />
      {known.from === 'fit' && known.labelPump && (
        <Line
          dataKey="label"
          name="label’s curve"
          stroke="var(--color-secondary)"
          strokeDasharray="5 4"
          strokeWidth={1.4}
          {...LINE}
        />
      )}
      {hookup && (
        <Line
          dataKey="circuit"
          name="circuit"
          stroke="var(--color-base-content)"
          strokeWidth={1.4}
          {...LINE}
        />
      )}
      <Line
        dataKey="pump"
        name={known.from === 'fit' ? 'pump, measured' : 'pump, from the label'}
        stroke="var(--color-primary)"
        strokeWidth={2.4}
        {...LINE}
        {...(known.from === 'label' && { strokeDasharray: '9 4' })}
      />
    </>
  )
}

/** Where flows and heads lie in the chart (px); null while it has no room. */
function usePlaces(): {
  readonly x: (flow: number) => number
  readonly y: (head: number) => number
  readonly right: number
} | null {
  const area = usePlotArea()
  const across = useXAxisScale()
  const up = useYAxisScale()
  if (!area || !across || !up) return null
  const right = area.x + area.width
  return {
    x: (flow) => Math.min(Math.max(across(flow) ?? area.x, area.x), right),
    y: (head) => up(head) ?? area.y + area.height,
    right,
  }
}

/** Points before the chart itself stands. */
const NONE: readonly never[] = []
/**
 * Measured points in the layer that the library keeps for them, above the lines. Its own scatter makes a part of the
 * chart of each: two hundred of them kept a page busy for a quarter of a second.
 */
function Points({
  points,
  out = false,
  onMove,
}: {
  readonly points: readonly (At & { readonly trialId: string })[]
  readonly out?: boolean
  readonly onMove: ((trialId: string) => void) | undefined
}) {
  const places = usePlaces()
  // They follow the chart, in pieces: hundreds of them together would hold the page up.
  const shown = useDeferredValue(points, NONE)
  if (!places) return null
  return (
    <ZIndexLayer zIndex={DefaultZIndexes.scatter}>
      {shown.map((p) => (
        <Plumb
          key={p.trialId}
          cx={places.x(p.flow)}
          cy={places.y(p.head)}
          payload={p}
          out={out}
          onMove={onMove}
        />
      ))}
    </ZIndexLayer>
  )
}

interface At {
  readonly flow: number
  readonly head: number
}
/** Half the end stroke of a doubt (px). */
const END = 2.5

/**
 * The doubts of all measured points and the lines to the working point, each as one path: a part of the chart for each
 * point would keep a page of two hundred of them busy for half a second.
 */
function Marks({
  points,
  printed,
  at,
  measured,
}: {
  readonly points: readonly (At & { readonly error: number })[]
  readonly printed: readonly At[]
  readonly at: At | null
  readonly measured: boolean
}) {
  const places = usePlaces()
  if (!places) return null
  const { x, y, right } = places
  const doubts = points
    .filter((p) => p.error > 0)
    .map((p) => {
      const [from, to, h] = [x(p.flow - p.error), x(p.flow + p.error), y(p.head)]
      const end = (v: number): string => `M${v} ${h - END}v${2 * END}`
      return `M${from} ${h}H${to}${end(from)}${end(to)}`
    })
  return (
    <g fill="none">
      {doubts.length > 0 && <path d={doubts.join('')} stroke="var(--color-primary)" strokeWidth={1.2} />}
      {at && (
        <path
          d={`M${x(at.flow)} ${y(0)}V${y(at.head)}H${right}`}
          stroke="var(--color-base-content)"
          strokeDasharray="1 3"
          strokeWidth={1.4}
        />
      )}
      {printed.length > 0 && (
        <path
          d={printed.map((p) => square(x(p.flow), y(p.head))).join('')}
          fill="var(--color-base-100)"
          stroke="var(--color-secondary)"
          strokeWidth={1.8}
        />
      )}
      {at && (
        <circle
          cx={x(at.flow)}
          cy={y(at.head)}
          r={5.5}
          fill={measured ? 'var(--color-base-content)' : 'var(--color-base-100)'}
          stroke="var(--color-base-content)"
          strokeWidth={2}
        />
      )}
    </g>
  )
}
const square = (x: number, y: number): string => `M${x - 4} ${y - 4}h8v8h-8z`

/** The pointer’s follower on the lines does not lie in the way of a point. */
const UNTOUCHED = { pointerEvents: 'none' } as const
const LINE = { dot: false, activeDot: UNTOUCHED, isAnimationActive: false } as const
const TICK = { fontFamily: 'var(--font-num)', fontSize: 13, fill: 'var(--color-base-content)' }
const AXIS_LABEL = { fontFamily: 'var(--font-sans)', fontSize: 14, fill: 'var(--color-secondary)' }

interface HoverProps {
  readonly active?: boolean
  readonly label?: string | number
  readonly payload?: readonly {
    readonly name?: string
    readonly value?: number | string | readonly unknown[]
  }[]
  readonly flowUnit: string
  readonly headUnit: string
}
function Hover({ active, label, payload, flowUnit, headUnit }: HoverProps) {
  if (!active || !payload?.length) return null
  return (
    <div className="bg-base-100 border-base-content border px-3 py-2 text-[0.88rem] shadow">
      <div className="num font-medium">
        {Number(label).toFixed(0)} {flowUnit}
      </div>
      {payload
        .filter((p) => typeof p.value === 'number')
        .map((p) => (
          <div key={p.name} className="flex justify-between gap-4">
            <span>{p.name}</span>
            <span className="num">
              {Number(p.value).toFixed(2)} {headUnit}
            </span>
          </div>
        ))}
    </div>
  )
}

function Legend({
  from,
  hookup,
  label,
  points,
  out,
  printed,
  at,
}: {
  readonly from: 'fit' | 'label'
  readonly hookup: boolean
  readonly label: boolean
  readonly points: boolean
  readonly out: boolean
  readonly printed: boolean
  readonly at: 'measured' | 'calculated' | null
}) {
  const line = (dash: string, colour: string, width: number) => (
    <svg width="30" height="8" aria-hidden="true" className="inline-block">
      <path d="M0 4h30" stroke={colour} strokeWidth={width} strokeDasharray={dash} />
    </svg>
  )
  return (
    <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[0.88rem]">
      <li>
        {line(from === 'label' ? '9 4' : '', 'var(--color-primary)', 2.4)}{' '}
        {from === 'fit'
          ? 'measured pump curve with its 95 % range'
          : 'pump from the label, with the range of its assumed exponent'}
      </li>
      {label && <li>{line('5 4', 'var(--color-secondary)', 1.4)} label’s curve</li>}
      {hookup && (
        <li>
          {line('', 'var(--color-base-content)', 1.4)} plumbing curve: head needed by hoses, fittings and lift
        </li>
      )}
      {printed && (
        <li>
          <svg width="12" height="12" aria-hidden="true" className="inline-block">
            <path d={square(6, 6)} fill="none" stroke="var(--color-secondary)" strokeWidth="1.8" />
          </svg>{' '}
          on the label; the outlet’s own head counts
        </li>
      )}
      {at && (
        <li>
          <svg width="13" height="13" aria-hidden="true" className="inline-block">
            <circle
              cx="6.5"
              cy="6.5"
              r="5"
              fill={at === 'measured' ? 'currentColor' : 'none'}
              stroke="currentColor"
              strokeWidth="1.8"
            />
          </svg>{' '}
          {at === 'measured' ? 'installed flow, measured' : 'flow with this plumbing, calculated'}
        </li>
      )}
      {points && (
        <li>
          <svg width="12" height="12" aria-hidden="true" className="inline-block">
            <path d="M1 2h10l-5 9z" fill="none" stroke="var(--color-primary)" strokeWidth="1.8" />
          </svg>{' '}
          measured points (drag one off to exclude it)
        </li>
      )}
      {out && (
        <li>
          <svg width="12" height="12" aria-hidden="true" className="inline-block">
            <path
              d="M1 2h10l-5 9z"
              fill="none"
              stroke="var(--color-secondary)"
              strokeWidth="1.8"
              strokeDasharray="2 2"
            />
          </svg>{' '}
          excluded, with the reason below
        </li>
      )}
    </ul>
  )
}

function describe(
  at: { flow: number; head: number } | null,
  from: 'fit' | 'label',
  system: Parameters<typeof showQuantity>[2],
): string {
  const start = `Pump head and flow, ${from === 'fit' ? 'from measurements' : 'from the label'}.`
  if (!at) return start
  const q = showQuantity(at.flow, 'flow', system)
  const h = showQuantity(at.head, 'head', system)
  return `${start} Working point ${q.number} ${q.unit} at ${h.number} ${h.unit}.`
}
