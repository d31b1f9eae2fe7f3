import type { Verdict } from '@ypsometer/core/judging/verdictReasons'
import { SCHOOLS, type SchoolSays } from '@ypsometer/core/tanks/schools'
import { stockKey, type StockClass } from '@ypsometer/core/tanks/stock'
import type { SupportedRange } from '@ypsometer/core/tanks/range'
import { fromSI, preferredUnit, type UnitSystem } from '@ypsometer/core/units/dimensions'
import { showQuantity } from '@ypsometer/core/units/format'
import { useRef } from 'react'
import { units } from '../settings/settings'
import { ChartTools, type ChartData } from './ChartTools'
import { useWidth } from './useWidth'

interface Props {
  readonly verdict: Verdict
  readonly stock: readonly StockClass[]
  readonly name: string
  /** The class whose schools are drawn beneath its range, by its key. */
  readonly open?: string | undefined
}

/** Below this width the names and figures stand over their bars instead of beside them. */
const NARROW = 620

/** Where everything stands on the ruler, W wide; null where there is nothing to draw. */
function layoutOf(
  verdict: Props['verdict'],
  stock: Props['stock'],
  open: Props['open'],
  W: number,
  system: UnitSystem,
) {
  const narrow = W < NARROW
  const [LEFT, RIGHT, ROW] = narrow ? [4, 30, 50] : [232, 176, 34]
  const LANE = narrow ? 40 : 20
  const unit = preferredUnit('volume', system)
  const { ranges, claimedRange } = verdict
  const schools = ranges.find((r) => r.stockClass === open)?.schools.filter(spoken) ?? []
  const all = [
    // A low end above the top is said in words: it would stretch the ruler past all that is supported.
    ...ranges.flatMap((r) => [r.lowAboveTop ? NaN : r.min, r.max, r.maxInterval[1]]),
    ...schools.flatMap((s) => [s.interval[0], s.interval[1]]),
    claimedRange.min ?? NaN,
    claimedRange.max ?? NaN,
  ].filter((v) => v > 0)
  if (!all.length) return null
  const toUnit = (v: number): number => fromSI(v, unit)
  const low = Math.min(...all.map(toUnit)) * 0.8
  const high = Math.max(...all.map(toUnit)) * 1.15
  const x = (si: number): number =>
    LEFT + ((Math.log(toUnit(si)) - Math.log(low)) / (Math.log(high) - Math.log(low))) * (W - LEFT - RIGHT)
  const ticks = rulerTicks(low, high)
  const at = (v: number): number => x(v * unit.factor)
  const rowsAbove = (i: number): number =>
    i * ROW + (ranges.slice(0, i).some((r) => r.stockClass === open) ? schools.length * LANE + 12 : 0)
  const height = 92 + rowsAbove(ranges.length) + 8
  const said = (si: number): string => {
    const rounded = Number(si.toPrecision(3))
    const s = showQuantity(rounded, 'volume', system, 2)
    return `${s.number} ${s.unit}`
  }
  const labelOf = (id: string): string => stock.find((s) => stockKey(s) === id)?.label ?? id
  const claim = claimedRange.max
  const claimFrom = claimedRange.min ?? low * unit.factor
  return {
    W,
    LEFT,
    RIGHT,
    ROW,
    LANE,
    open,
    narrow,
    unit,
    ranges,
    claimedRange,
    schools,
    toUnit,
    low,
    high,
    x,
    at,
    ticks,
    rowsAbove,
    height,
    said,
    labelOf,
    claim,
    claimFrom,
  }
}
type Layout = NonNullable<ReturnType<typeof layoutOf>>

/** Claimed tank range as a bracket over a logarithmic ruler of litres, and what is supported beneath it. */
export function LitreRuler({ verdict, stock, name, open }: Props) {
  const system = units.use()
  const root = useRef<HTMLDivElement>(null)
  const W = useWidth(root, 900)
  const layout = layoutOf(verdict, stock, open, W, system)
  if (!layout) return <div ref={root} />
  const { LEFT, RIGHT, height, x, at, ticks, unit, toUnit, narrow, ranges, claimedRange } = layout
  const { rowsAbove, schools, said, labelOf, claim, claimFrom } = layout
  const data: ChartData = {
    name: `${name} tank ranges`,
    columns: ['Range', `Calm from, ${unit.symbol}`, `Supported to, ${unit.symbol}`, 'Limit'],
    rows: [
      [
        'Label',
        claimedRange.min === null ? '' : Number(toUnit(claimedRange.min).toPrecision(3)),
        claimedRange.max === null ? '' : Number(toUnit(claimedRange.max).toPrecision(3)),
        '',
      ],
      ...ranges.map((r) => [
        labelOf(r.stockClass),
        Number(toUnit(r.min).toPrecision(3)),
        Number(toUnit(r.max).toPrecision(3)),
        SCHOOLS[r.binding].words,
      ]),
      ...schools.map((s) => [
        `${labelOf(open ?? '')}, by ${SCHOOLS[s.school].words}`,
        '',
        Number(toUnit(s.volume).toPrecision(3)),
        ROLE_WORDS[s.role],
      ]),
    ],
  }
  return (
    <div ref={root}>
      <div>
        <svg
          data-drawing
          viewBox={`0 0 ${W} ${height}`}
          width={W}
          height={height}
          className="block max-w-full"
          role="img"
          aria-label={rulerText(verdict, labelOf, said)}
          fontFamily="var(--font-sans)"
        >
          {/* the claim: a bracket over the ruler */}
          {claim !== null && (
            <Claim x={x} claimFrom={claimFrom} claim={claim} claimedRange={claimedRange} W={W} said={said} />
          )}
          {/* the ruler itself */}
          <path d={`M${LEFT} 60H${W - RIGHT}`} stroke="var(--color-base-content)" strokeWidth="1.2" />
          {ticks.map((t) => (
            <g key={t.value}>
              <path
                d={`M${at(t.value)} 60v${t.major ? -12 : -6}`}
                stroke="var(--color-base-content)"
                strokeWidth={t.major ? 1.2 : 0.7}
              />
              {t.major && (
                <text
                  x={at(t.value)}
                  y={76}
                  textAnchor="middle"
                  fontSize="13"
                  className="num"
                  fill="var(--color-base-content)"
                >
                  {t.value}
                </text>
              )}
            </g>
          ))}
          <text x={W - RIGHT + 10} y={64} fontSize="13" fill="var(--color-secondary)">
            {unit.symbol}
          </text>
          {claim !== null && !narrow && (
            <path
              d={`M${x(claim)} 82V${height - 6}`}
              stroke="var(--color-base-content)"
              strokeWidth="0.8"
              strokeDasharray="2 4"
            />
          )}
          {ranges.map((r, i) => (
            <RangeRow
              key={r.stockClass}
              range={r}
              y={92 + rowsAbove(i) + (narrow ? 22 : 0)}
              layout={layout}
            />
          ))}
        </svg>
      </div>
      <p className="muted text-[0.88rem]">
        Teal: supported (thin line: 95 % range).
        {claim !== null && ' Rust: on the label, not supported.'} Left of the bar the current is too strong.
        {schools.length > 0 &&
          ' Diamonds: each sizing rule (filled = sets the limit, open = for comparison).'}
      </p>
      <ChartTools data={data} root={root} />
    </div>
  )
}

/** Claim of the label, as a bracket over the ruler. */
function Claim({
  x,
  claimFrom,
  claim,
  claimedRange,
  W,
  said,
}: {
  readonly x: (si: number) => number
  readonly claimFrom: number
  readonly claim: number
  readonly claimedRange: { readonly min: number | null; readonly max: number | null }
  readonly W: number
  readonly said: (si: number) => string
}) {
  return (
    <g stroke="var(--color-base-content)" fill="none" strokeWidth="1.6">
      <path
        d={`M${x(claimFrom)} 44v-12H${x(claim)}v12`}
        strokeDasharray={claimedRange.min === null ? '4 3' : undefined}
      />
      <text
        x={Math.min(W - 90, Math.max(90, (x(claimFrom) + x(claim)) / 2))}
        y={22}
        textAnchor="middle"
        fontSize="16"
        stroke="none"
        fill="var(--color-base-content)"
      >
        label: {claimedRange.min === null ? 'up to ' : `${said(claimedRange.min)} to `}
        {said(claim)}
      </text>
    </g>
  )
}

/** One class on the ruler: its bar, its whisker, what is claimed beyond it, and its schools where it is open. */
function RangeRow({
  range: r,
  y,
  layout,
}: {
  readonly range: SupportedRange
  readonly y: number
  readonly layout: Layout
}) {
  const { W, LEFT, RIGHT, ROW, LANE, low, high, x, unit, narrow, open } = layout
  const { claimedRange, claim, claimFrom, labelOf, said, schools } = layout
  const over = claim !== null && claim > r.max
  const left = low * unit.factor
  const end = x(Math.max(left, r.max))
  const start = x(Math.min(high * unit.factor, Math.max(left, r.min)))
  // Claimed below where the current gets too strong.
  const under =
    claim !== null && claimedRange.min !== null && claimedRange.min < r.min ? Math.min(r.min, claim) : null
  const { range, why } = rangeWords(r, said)
  return (
    <g>
      <text
        x={narrow ? LEFT : LEFT - 12}
        y={narrow ? y - 7 : y + 14}
        textAnchor={narrow ? 'start' : 'end'}
        fontSize="15"
        fill="var(--color-base-content)"
      >
        {labelOf(r.stockClass)}
      </text>
      {over && (
        <path
          d={`M${Math.max(end, x(claimFrom))} ${y + 9}H${x(claim)}`}
          stroke="var(--color-error)"
          strokeWidth="5"
          strokeDasharray="2 3"
        />
      )}
      {under !== null && (
        <path
          d={`M${x(claimFrom)} ${y + 9}H${x(under)}`}
          stroke="var(--color-error)"
          strokeWidth="5"
          strokeDasharray="2 3"
        />
      )}
      {r.lowAboveTop ? (
        // Carried, but too fast at every such size: an outline up to the top.
        <path
          d={`M${x(left)} ${y + 2}H${end}v14H${x(left)}`}
          stroke="var(--color-primary)"
          strokeWidth="1.6"
          fill="none"
        />
      ) : (
        <rect x={start} y={y + 2} width={Math.max(2, end - start)} height={14} fill="var(--color-primary)" />
      )}
      {r.max > 0 && (
        <path
          d={`M${x(Math.max(left, r.maxInterval[0]))} ${y + 9}H${x(r.maxInterval[1])}M${x(Math.max(left, r.maxInterval[0]))} ${y + 5}v8M${x(r.maxInterval[1])} ${y + 5}v8`}
          stroke="var(--color-base-content)"
          strokeWidth="1.3"
        />
      )}
      {narrow ? (
        <text x={W} y={y - 7} textAnchor="end" fontSize="14" className="num" fill="var(--color-base-content)">
          {range} <tspan fill="var(--color-secondary)">{why}</tspan>
        </text>
      ) : (
        <>
          <text x={W - RIGHT + 14} y={y + 10} fontSize="15" className="num" fill="var(--color-base-content)">
            {range}
          </text>
          <text x={W - RIGHT + 14} y={y + 24} fontSize="13" fill="var(--color-secondary)">
            {why}
          </text>
        </>
      )}
      {r.stockClass === open &&
        schools.map((s, j) => (
          <SchoolLane
            key={s.school}
            says={s}
            y={y + ROW + 6 + j * LANE + (narrow ? 14 : 0)}
            x={x}
            left={LEFT}
            right={narrow ? W : W - RIGHT + 14}
            narrow={narrow}
            said={said}
          />
        ))}
    </g>
  )
}

type Spoken = SchoolSays & { readonly volume: number; readonly interval: readonly [number, number] }
const spoken = (s: SchoolSays): s is Spoken => s.volume !== null && s.interval !== null

const ROLE_WORDS: Readonly<Record<SchoolSays['role'], string>> = {
  leads: 'sets the limit',
  binds: 'lowers it',
  beside: 'compared',
  silent: '',
}

/** One school on a class: its tank as a lozenge, its band as a line. */
function SchoolLane({
  says,
  y,
  x,
  left,
  right,
  narrow,
  said,
}: {
  readonly says: Spoken
  readonly y: number
  readonly x: (si: number) => number
  readonly left: number
  readonly right: number
  readonly narrow: boolean
  readonly said: (si: number) => string
}) {
  const counts = says.role !== 'beside'
  const at = says.volume > 0 ? x(says.volume) : left
  const [low, high] = says.interval
  const tone = 'var(--color-secondary)'
  return (
    <g data-school={says.school}>
      <text
        x={narrow ? left + 10 : left - 12}
        y={narrow ? y - 8 : y + 4}
        textAnchor={narrow ? 'start' : 'end'}
        fontSize="13"
        fill={tone}
      >
        by {SCHOOLS[says.school].words}
      </text>
      {high > 0 && <path d={`M${low > 0 ? x(low) : left} ${y}H${x(high)}`} stroke={tone} strokeWidth="1.2" />}
      <path
        d={`M${at - 6} ${y}l6 -6l6 6l-6 6z`}
        fill={counts ? 'var(--color-primary)' : 'var(--color-base-100)'}
        stroke="var(--color-base-content)"
        strokeWidth="1.3"
      />
      <text
        x={right}
        y={narrow ? y - 8 : y + 4}
        textAnchor={narrow ? 'end' : 'start'}
        fontSize="13"
        className="num"
        fill="var(--color-base-content)"
      >
        {said(says.volume)} <tspan fill={tone}>{ROLE_WORDS[says.role]}</tspan>
      </text>
    </g>
  )
}

/** Ticks at 1 to 9 of each decade; 1, 2 and 5 are numbered. */
function rulerTicks(low: number, high: number): { value: number; major: boolean }[] {
  const out: { value: number; major: boolean }[] = []
  for (let d = Math.floor(Math.log10(low)); d <= Math.ceil(Math.log10(high)); d++)
    for (let k = 1; k < 10; k++) {
      const value = Number((k * 10 ** d).toPrecision(1))
      if (value >= low && value <= high) out.push({ value, major: k === 1 || k === 2 || k === 5 })
    }
  return out
}

function rulerText(v: Verdict, labelOf: (id: string) => string, said: (si: number) => string): string {
  const claim =
    v.claimedRange.max === null
      ? 'No claimed range.'
      : `The label claims ${v.claimedRange.min === null ? 'up to' : `${said(v.claimedRange.min)} to`} ${said(v.claimedRange.max)}.`
  const each = v.ranges.map((r) => {
    const { range, why } = rangeWords(r, said)
    return `${labelOf(r.stockClass)} ${range}, ${why}`
  })
  return `${claim} Supported: ${each.join('; ')}.`
}

/** A range in words: both ends where there are two, and both where the low end lies above the top. */
function rangeWords(
  r: SupportedRange,
  said: (si: number) => string,
): { readonly range: string; readonly why: string } {
  if (r.lowAboveTop) return { range: 'no tank', why: `too strong below ${said(r.min)}` }
  return {
    range: r.min > 0 ? `${said(r.min)} – ${said(r.max)}` : `up to ${said(r.max)}`,
    why: `limit: ${SCHOOLS[r.binding].limit}`,
  }
}
