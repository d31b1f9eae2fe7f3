import type { Candidate } from '@ypsometer/core/advice/candidate'
import { pumpHead } from '@ypsometer/core/hydraulics/pump'
import { fromSI, preferredUnit } from '@ypsometer/core/units/dimensions'
import { useMemo, useRef } from 'react'
import { Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { units } from '../settings/settings'
import { Grid } from './Grid'
import { ChartTools, type ChartData } from './ChartTools'
import { axisTicks } from './ticks'
import { AXIS, TICK } from './axis'

/** Lines told apart in black and white too. */
const DASHES = ['', '8 4', '2 3', '10 3 2 3'] as const
const POINTS = 60

/** Head against flow of several models in one chart: by the bench where it was measured, else by the label. */
export default function Curves({
  models,
  name,
}: {
  readonly models: readonly Candidate[]
  readonly name: string
}) {
  const system = units.use()
  const root = useRef<HTMLDivElement>(null)
  const flowUnit = preferredUnit('flow', system)
  const headUnit = preferredUnit('head', system)
  const drawn = useMemo(
    () =>
      models.flatMap((m) => {
        const { pump } = m.facts
        return pump
          ? [{ id: m.id, label: `${m.name}, by the ${pump.from === 'fit' ? 'bench' : 'label'}`, pump }]
          : []
      }),
    [models],
  )
  const rows = useMemo(() => {
    const top = Math.max(1e-9, ...drawn.map((d) => d.pump.maxFlow))
    const flows = [
      ...Array.from({ length: POINTS + 1 }, (_, i) => (top * i) / POINTS),
      ...drawn.map((d) => d.pump.maxFlow),
    ].sort((a, b) => a - b)
    return flows.map((q) => ({
      flow: fromSI(q, flowUnit),
      ...Object.fromEntries(
        drawn
          .filter((d) => q <= d.pump.maxFlow * (1 + 1e-9))
          .map((d) => [d.id, fromSI(Math.max(0, pumpHead(q, d.pump)), headUnit)]),
      ),
    }))
  }, [drawn, flowUnit, headUnit])
  if (!drawn.length)
    return <p className="muted">None of them has a curve: copy rated flow and maximum head.</p>
  const xTicks = axisTicks(Math.max(...rows.map((r) => r.flow)))
  const yTicks = axisTicks(Math.max(...drawn.map((d) => fromSI(d.pump.shutOffHead, headUnit))))
  const data: ChartData = {
    name,
    columns: [`Flow, ${flowUnit.symbol}`, ...drawn.map((d) => `${d.label}, head, ${headUnit.symbol}`)],
    rows: rows.map((r) => [
      Number(r.flow.toPrecision(5)),
      ...drawn.map((d) => {
        const v = (r as Record<string, number>)[d.id]
        return v === undefined ? '' : Number(v.toPrecision(4))
      }),
    ]),
  }
  return (
    <div ref={root}>
      <div role="group" aria-label={`Head against flow: ${drawn.map((d) => d.label).join('; ')}`}>
        <ResponsiveContainer width="100%" height={300}>
          <LineChart data={rows} margin={{ top: 10, right: 18, bottom: 18, left: 6 }}>
            <Grid x={xTicks} y={yTicks} />
            <XAxis
              type="number"
              dataKey="flow"
              domain={[0, xTicks.at(-1) ?? 1]}
              ticks={xTicks}
              interval={0}
              stroke="var(--color-base-content)"
              tick={TICK}
              label={{ value: `Flow, ${flowUnit.symbol}`, position: 'insideBottom', offset: -8, ...AXIS }}
            />
            <YAxis
              type="number"
              domain={[0, yTicks.at(-1) ?? 1]}
              ticks={yTicks}
              interval={0}
              width={48}
              stroke="var(--color-base-content)"
              tick={TICK}
              label={{ value: `Head, ${headUnit.symbol}`, angle: -90, position: 'insideLeft', ...AXIS }}
            />
            <Tooltip
              isAnimationActive={false}
              formatter={(v) => `${Number(Number(v).toPrecision(3))} ${headUnit.symbol}`}
              labelFormatter={(v) => `${Number(Number(v).toPrecision(3))} ${flowUnit.symbol}`}
              contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-300)' }}
            />
            {drawn.map((d, i) => (
              <Line
                key={d.id}
                dataKey={d.id}
                name={d.label}
                dot={false}
                isAnimationActive={false}
                stroke="var(--color-primary)"
                strokeWidth={2}
                strokeDasharray={DASHES[i % DASHES.length] ?? ''}
              />
            ))}
          </LineChart>
        </ResponsiveContainer>
      </div>
      <ul className="flex flex-wrap gap-x-6 gap-y-1 text-[0.9rem]">
        {drawn.map((d, i) => (
          <li key={d.id} className="flex items-center gap-2">
            <svg width="34" height="8" aria-hidden="true">
              <line
                x1="0"
                x2="34"
                y1="4"
                y2="4"
                stroke="var(--color-primary)"
                strokeWidth="2"
                strokeDasharray={DASHES[i % DASHES.length]}
              />
            </svg>
            {d.label}
          </li>
        ))}
      </ul>
      <ChartTools data={data} root={root} />
    </div>
  )
}
