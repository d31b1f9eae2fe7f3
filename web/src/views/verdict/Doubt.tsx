import type { Chances } from '@ypsometer/core/judging/chances'
import { put, type Figure } from '@ypsometer/core/figures'
import { showPercent } from '@ypsometer/core/units'
import type { Verdict } from '@ypsometer/core/judging'
import { useRef } from 'react'
import { ChartTools } from '../../charts/ChartTools'
import { FigureView } from '../../figures/FigureView'
import { useDossierContext } from '../../frame/dossier'
import { useChances } from '../../workers/useLiving'

/** So few draws say no more than that it is more, or less, than this. */
const EDGE = 0.01
const W = 340
const H = 96

/** How sure the verdict is: chance that the claim is too high, its interval, what the doubt comes from. */
export function Doubt({ verdict }: { readonly verdict: Verdict }) {
  const { stock, dossier } = useDossierContext()
  const normal = stock.find((s) => s.code === 'normal')
  const { shipped, claimedRange } = verdict
  const asked = verdict.level === 'open' ? null : shipped
  const { answer, failure, busy } = useChances(asked, normal, claimedRange.max)
  if (!asked) return null
  if (failure)
    return (
      <p role="alert" className="text-error">
        How sure it is cannot be worked out. {failure}
      </p>
    )
  if (!answer) return busy ? <p className="muted">Drawing…</p> : null
  const { ratio, carried, tooHigh, draws } = answer
  const base = {
    provenance: 'computed',
    formula: 'by draws: flow, media, bands of the rules, feed and film, log-normal, together',
    working: [put('n', 'draws, seeded', draws)],
    source: 'JCGM 101:2008, clauses 5 and 7',
  } as const
  const interval: Figure | null = ratio && {
    ...base,
    id: 'ratio-drawn',
    label: 'Claimed ÷ supported, middle of the draws',
    value: ratio.middle,
    uncertainty: (ratio.high - ratio.low) / 2,
    dimension: 'ratio',
    conditions: ['half of the interval that 95 % of the draws lie in'],
  }
  const carries: Figure = {
    ...base,
    id: 'carried-drawn',
    label: 'Carries, middle of the draws',
    value: carried.middle,
    uncertainty: (carried.high - carried.low) / 2,
    dimension: 'volume',
  }
  return (
    <section aria-labelledby="doubt-title" aria-busy={busy}>
      <h2 id="doubt-title">How sure</h2>
      {tooHigh !== null && (
        <p>
          {tooHigh > 1 - EDGE ? 'over ' : tooHigh < EDGE ? 'under ' : ''}
          <FigureView
            figure={{
              ...base,
              id: 'chance-too-high',
              label: 'Chance that the claim is more than it carries',
              value: Math.min(1 - EDGE, Math.max(EDGE, tooHigh)),
              dimension: 'ratio',
              unit: '%',
            }}
            size="lg"
          />{' '}
          <span className="muted">that the claim is more than it carries, normally stocked</span>
        </p>
      )}
      <Histogram chances={answer} name={dossier.model.name} />
      <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-2">
        {interval && <Line words="Claimed ÷ supported" figure={interval} />}
        <Line words="Carries" figure={carries} />
      </dl>
      {answer.from.length > 0 && (
        <p className="muted mt-2 text-[0.92rem]">
          The doubt comes from{' '}
          {answer.from
            .filter((f) => f.share > 0.02)
            .map((f) => `${f.what} (${showPercent(f.share)})`)
            .join(', ')}
          .
        </p>
      )}
    </section>
  )
}

const Line = ({ words, figure }: { readonly words: string; readonly figure: Figure }) => (
  <div>
    <dt className="kicker">{words}</dt>
    <dd>
      <FigureView figure={figure} />
    </dd>
  </div>
)

/** The draws as bars on a logarithmic axis; right of 1 the claim is more than it carries. */
function Histogram({ chances, name }: { readonly chances: Chances; readonly name: string }) {
  const root = useRef<HTMLDivElement>(null)
  const { steps, ratio } = chances
  const first = steps[0]?.from ?? 1
  const last = steps.at(-1)?.to ?? 1
  const most = Math.max(...steps.map((s) => s.share))
  const x = (v: number): number =>
    ((Math.log(v) - Math.log(first)) / Math.max(1e-9, Math.log(last / first))) * W
  const one = ratio && first < 1 && last > 1 ? x(1) : null
  return (
    <div ref={root} className="mt-2">
      <svg
        data-drawing
        viewBox={`0 0 ${W} ${H + 20}`}
        className="block w-full max-w-sm"
        role="img"
        aria-label={`Draws of ${ratio ? 'claimed ÷ supported' : 'litres carried'} from ${first.toPrecision(2)} to ${last.toPrecision(2)}`}
      >
        {steps.map((s) => (
          <rect
            key={s.from}
            x={x(s.from) + 0.5}
            width={Math.max(0.5, x(s.to) - x(s.from) - 1)}
            y={H - (s.share / most) * (H - 8)}
            height={(s.share / most) * (H - 8)}
            fill={ratio && s.from >= 1 ? 'var(--color-error)' : 'var(--color-primary)'}
            fillOpacity="0.75"
          />
        ))}
        <path d={`M0 ${H}H${W}`} stroke="var(--color-base-content)" />
        {one !== null && (
          <>
            <path d={`M${one} 0V${H}`} stroke="var(--color-base-content)" strokeDasharray="3 3" />
            <text x={one + 5} y={11} fontSize="12" fill="var(--color-base-content)">
              claim holds up to here
            </text>
          </>
        )}
        <text x={0} y={H + 15} fontSize="12" className="num" fill="var(--color-secondary)">
          {ratio ? `× ${first.toPrecision(2)}` : ''}
        </text>
        <text x={W} y={H + 15} textAnchor="end" fontSize="12" className="num" fill="var(--color-secondary)">
          {ratio ? `× ${last.toPrecision(2)}` : ''}
        </text>
      </svg>
      <ChartTools
        data={{
          name: `${name} draws`,
          columns: ['From', 'To', 'Share'],
          rows: steps.map((s) => [
            Number(s.from.toPrecision(4)),
            Number(s.to.toPrecision(4)),
            Number(s.share.toPrecision(3)),
          ]),
        }}
        root={root}
      />
    </div>
  )
}
