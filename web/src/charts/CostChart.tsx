import { COST_PARTS, type CostPart, type OwningCost } from '@ypsometer/core/advice/cost'
import { fromMinor } from '@ypsometer/core/units/money'
import { useId, useRef } from 'react'
import { Bar, BarChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts'
import { Grid } from './Grid'
import { ChartTools, type ChartData } from './ChartTools'
import { axisTicks } from './ticks'
import { AXIS, TICK } from './axis'

export const PART_WORDS: Readonly<Record<CostPart, string>> = {
  price: 'the filter',
  media: 'media',
  cartridges: 'cartridges',
  spares: 'parts that wear',
  electricity: 'electricity',
  minutes: 'your minutes',
}

/** Each part of the cost has a texture of its own, so that it reads in black and white. */
function Textures({ id }: { readonly id: string }) {
  const ink = { stroke: 'var(--color-base-content)', strokeWidth: 1, fill: 'none' } as const
  const at = (part: CostPart) =>
    ({ id: `${id}-${part}`, width: 8, height: 8, patternUnits: 'userSpaceOnUse' }) as const
  return (
    <defs>
      <pattern {...at('price')}>
        <rect width="8" height="8" fill="var(--color-base-content)" fillOpacity="0.55" />
      </pattern>
      <pattern {...at('media')}>
        <circle cx="4" cy="4" r="2.2" {...ink} />
      </pattern>
      <pattern {...at('cartridges')}>
        <path d="M0 2H8M0 6H8" {...ink} />
      </pattern>
      <pattern {...at('spares')}>
        <path d="M0 8L8 0" {...ink} />
      </pattern>
      <pattern {...at('electricity')}>
        <path d="M2 0V8M6 0V8" {...ink} />
      </pattern>
      <pattern {...at('minutes')}>
        <circle cx="2" cy="2" r="0.9" fill="var(--color-base-content)" />
        <circle cx="6" cy="6" r="0.9" fill="var(--color-base-content)" />
      </pattern>
    </defs>
  )
}

interface Props {
  readonly costs: readonly { readonly name: string; readonly cost: OwningCost }[]
  readonly name: string
}

/** Cost of owning, year by year, a panel for each model on one scale. */
export default function CostChart({ costs, name }: Props) {
  const id = useId().replace(/[^\w-]/g, '')
  const root = useRef<HTMLDivElement>(null)
  const parts = COST_PARTS.filter((p) => costs.some((c) => c.cost.years.some((y) => y[p] > 0)))
  const highest = Math.max(
    1,
    ...costs.flatMap((c) =>
      c.cost.years.map((y) =>
        fromMinor(
          COST_PARTS.reduce((sum, p) => sum + y[p], 0),
          c.cost.currency,
        ),
      ),
    ),
  )
  const ticks = axisTicks(highest)
  const data: ChartData = {
    name,
    columns: ['Model', 'Year', 'Currency', ...COST_PARTS.map((p) => PART_WORDS[p])],
    rows: costs.flatMap((c) =>
      c.cost.years.map((y) => [
        c.name,
        y.year,
        c.cost.currency,
        ...COST_PARTS.map((p) => fromMinor(y[p], c.cost.currency)),
      ]),
    ),
  }
  return (
    <div ref={root}>
      <div className="grid gap-x-4 sm:grid-cols-2 xl:grid-cols-4">
        {costs.map(({ name: model, cost }) => (
          <div key={model} role="group" aria-label={`Cost of ${model}, year by year`}>
            <p className="kicker">
              {model}, {cost.currency} a year
            </p>
            <ResponsiveContainer width="100%" height={210}>
              <BarChart
                data={cost.years.map((y) => ({
                  year: y.year,
                  ...Object.fromEntries(parts.map((p) => [p, fromMinor(y[p], cost.currency)])),
                }))}
                margin={{ top: 8, right: 4, bottom: 16, left: 0 }}
              >
                <Textures id={id} />
                <Grid x={[]} y={ticks} />
                <XAxis
                  dataKey="year"
                  stroke="var(--color-base-content)"
                  tick={TICK}
                  label={{ value: 'Year', position: 'insideBottom', offset: -8, ...AXIS }}
                />
                <YAxis
                  domain={[0, ticks.at(-1) ?? highest]}
                  ticks={ticks}
                  interval={0}
                  width={44}
                  stroke="var(--color-base-content)"
                  tick={TICK}
                />
                <Tooltip
                  isAnimationActive={false}
                  cursor={{ fill: 'var(--color-base-200)' }}
                  formatter={(v) => `${Number(v).toFixed(2)} ${cost.currency}`}
                  labelFormatter={(v) => `Year ${v}`}
                  contentStyle={{ background: 'var(--color-base-100)', borderColor: 'var(--color-base-300)' }}
                />
                {parts.map((p) => (
                  <Bar
                    key={p}
                    dataKey={p}
                    name={PART_WORDS[p]}
                    stackId="all"
                    fill={`url(#${id}-${p})`}
                    stroke="var(--color-base-content)"
                    strokeWidth={0.8}
                    isAnimationActive={false}
                  />
                ))}
              </BarChart>
            </ResponsiveContainer>
          </div>
        ))}
      </div>
      <ul className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[0.9rem]">
        {parts.map((p) => (
          <li key={p} className="flex items-center gap-2">
            <svg width="18" height="14" aria-hidden="true">
              <Textures id={`${id}-key`} />
              <rect
                x="0.5"
                y="0.5"
                width="17"
                height="13"
                fill={`url(#${id}-key-${p})`}
                stroke="var(--color-base-content)"
                strokeWidth="0.8"
              />
            </svg>
            {PART_WORDS[p]}
          </li>
        ))}
      </ul>
      <ChartTools data={data} root={root} />
    </div>
  )
}
