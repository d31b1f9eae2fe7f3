import type { Chances, DrawnClaim } from '@ypsometer/core/judging/chances'
import { put, type Figure } from '@ypsometer/core/figures/figure'
import { showPercent, showQuantity } from '@ypsometer/core/units/format'
import type { Verdict } from '@ypsometer/core/judging/verdictReasons'
import { asUsed } from '@ypsometer/core/tanks/capacityFigures'
import { SCHOOLS } from '@ypsometer/core/tanks/schools'
import { useRef } from 'react'
import { ChartTools } from '../../charts/ChartTools'
import { chanceText } from '../../figures/chance'
import { FigureView } from '../../figures/FigureView'
import { units } from '../../settings/settings'
import { useDossierContext } from '../../frame/dossier'
import { useChances } from '../../workers/useLiving'
import { Explained } from '../../figures/Explained'

/** So few draws say no more than that it is more, or less, than this. */
const EDGE = 0.01
/** How dark each school stands in the stack, the leading one first. */
const STACK = [0.85, 0.4, 0.2]
const W = 340
const H = 96

/** The draws of a verdict by what is now on record; nothing is asked where there is no claim to judge. */
function useVerdictChances(verdict: Verdict) {
  const { stock } = useDossierContext()
  const normal = stock.find((s) => s.code === 'normal')
  const asked = verdict.level === 'open' ? null : verdict.shipped
  return { asked, normal, ...useChances(asked, normal, verdict.claimedRange.max) }
}

/** The chance in one sentence, with the condition it stands under. */
export function HowSure({ verdict }: { readonly verdict: Verdict }) {
  const { asked, normal, answer, busy } = useVerdictChances(verdict)
  const system = units.use()
  if (!asked || !normal) return null
  if (!answer || answer.tooHigh === null) return busy ? 'Calculating the confidence …' : null
  const high = answer.tooHigh >= 0.5
  const litres = showQuantity(normal.litresPerKilogram / 1000, 'volume', system, 3)
  const rule =
    answer.leading === 'media-mass'
      ? `1 kg of media supports ${litres.number} ${litres.unit} (rule of thumb)`
      : `the rule “${SCHOOLS[answer.leading].words}” is right`
  return (
    <>
      Confidence: {chanceText(high ? answer.tooHigh : 1 - answer.tooHigh)} that the label{' '}
      {high ? 'claims too much' : 'does not claim too much'}, if {rule}.
    </>
  )
}

/** How sure the verdict is: chance that the claim is too high, its interval, what the doubt comes from. */
export function Doubt({ verdict }: { readonly verdict: Verdict }) {
  const { dossier } = useDossierContext()
  const { asked, answer, failure, busy } = useVerdictChances(verdict)
  if (!asked) return null
  if (failure)
    return (
      <p role="alert" className="text-error">
        The confidence cannot be calculated. {failure}
      </p>
    )
  if (!answer) return busy ? <p className="muted">Drawing…</p> : null
  const { draws, leading, schools, overSchools } = answer
  const base = {
    provenance: 'computed',
    formula: 'simulated: flow, media, ranges of the rules, feed and bacteria, log-normal, together',
    working: [put('n', 'draws, seeded', draws)],
    source: 'JCGM 101:2008, clauses 5 and 7',
  } as const
  const name = SCHOOLS[leading].words
  const several = schools.length > 1
  return (
    <section aria-labelledby="doubt-title" aria-busy={busy}>
      <h2 id="doubt-title" className="sr-only">
        Confidence
      </h2>
      {answer.tooHigh !== null && (
        <dl className="flex flex-wrap gap-x-8 gap-y-2">
          <Chance
            id="chance-too-high"
            words={`that the label claims too much, if ${name} is right`}
            chance={answer.tooHigh}
            base={base}
          />
          {several && overSchools.tooHigh !== null && (
            <Chance
              id="chance-too-high-all"
              words={`over all ${schools.length} rules by their weights`}
              chance={overSchools.tooHigh}
              base={base}
            />
          )}
        </dl>
      )}
      <Histogram chances={answer} name={dossier.model.name} />
      <dl className="mt-2 flex flex-wrap gap-x-8 gap-y-2">
        {drawnFigures(base, answer, `by ${name}`).map((f) => (
          <Line key={f.id} words={f.label} figure={f} />
        ))}
        {several &&
          drawnFigures({ ...base }, overSchools, 'over all rules').map((f) => (
            <Line key={`all-${f.id}`} words={f.label} figure={{ ...f, id: `${f.id}-all` }} />
          ))}
      </dl>
      {answer.from.length > 0 && (
        <p className="muted mt-2 text-[0.92rem]">
          Main <Explained>uncertainty</Explained> (by {name}):{' '}
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

type Base = Pick<Figure, 'provenance' | 'formula' | 'working' | 'source'>

/** Label ÷ supported and litres supported as the draws have them, under one condition. */
function drawnFigures(base: Base, { ratio, carried }: DrawnClaim, by: string): readonly Figure[] {
  const ratioFigure: Figure | null = ratio && {
    ...base,
    id: 'ratio-drawn',
    label: `Label ÷ supported, ${by}`,
    value: ratio.middle,
    ...asUsed(ratio.middle, [ratio.low, ratio.high]),
    dimension: 'ratio',
    conditions: ['middle of the draws, and where 95 % of them lie'],
  }
  const carries: Figure = {
    ...base,
    id: 'carried-drawn',
    label: `Supports, ${by}`,
    value: carried.middle,
    ...asUsed(carried.middle, [carried.low, carried.high]),
    dimension: 'volume',
  }
  return ratioFigure ? [ratioFigure, carries] : [carries]
}

/** One chance with the condition it stands under; a round number of draws tells none from few no better. */
function Chance({
  id,
  words,
  chance,
  base,
}: {
  readonly id: string
  readonly words: string
  readonly chance: number
  readonly base: Base
}) {
  return (
    <div>
      <dd>
        {chance > 1 - EDGE ? 'over ' : chance < EDGE ? 'under ' : ''}
        <FigureView
          figure={{
            ...base,
            id,
            label: `Chance ${words}`,
            value: Math.min(1 - EDGE, Math.max(EDGE, chance)),
            dimension: 'ratio',
            unit: '%',
          }}
          size="lg"
        />
      </dd>
      <dt className="muted max-w-[16rem]">{words}</dt>
    </div>
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

/** The draws as bars on a logarithmic axis; right of 1 the label claims more than it supports. */
function Histogram({ chances, name }: { readonly chances: Chances; readonly name: string }) {
  const root = useRef<HTMLDivElement>(null)
  const { steps, ratio, schools } = chances
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
        aria-label={`Draws of ${ratio ? 'label ÷ supported' : 'supported litres'} from ${first.toPrecision(2)} to ${last.toPrecision(2)}`}
      >
        {steps.map((s) => {
          let under = H
          return s.by.map((share, i) => {
            const high = (share / most) * (H - 8)
            under -= high
            return (
              <rect
                key={`${s.from}-${i}`}
                x={x(s.from) + 0.5}
                width={Math.max(0.5, x(s.to) - x(s.from) - 1)}
                y={under}
                height={high}
                fill={ratio && s.from >= 1 ? 'var(--color-error)' : 'var(--color-primary)'}
                fillOpacity={STACK[i] ?? 0.25}
                stroke="var(--color-base-100)"
                strokeWidth={schools.length > 1 ? 0.5 : 0}
              />
            )
          })
        })}
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
      {schools.length > 1 && (
        <p className="muted flex flex-wrap gap-x-4 text-[0.88rem]">
          {schools.map((s, i) => (
            <span key={s.school} className="inline-flex items-center gap-1.5">
              <svg width="12" height="12" aria-hidden="true">
                <rect
                  width="12"
                  height="12"
                  fill="var(--color-base-content)"
                  fillOpacity={STACK[i] ?? 0.25}
                />
              </svg>
              {SCHOOLS[s.school].words}, weight {showPercent(s.weight)}
            </span>
          ))}
        </p>
      )}
      <ChartTools
        data={{
          name: `${name} draws`,
          columns: ['From', 'To', 'Share', ...schools.map((x) => SCHOOLS[x.school].words)],
          rows: steps.map((s) => [
            Number(s.from.toPrecision(4)),
            Number(s.to.toPrecision(4)),
            Number(s.share.toPrecision(3)),
            ...s.by.map((v) => Number(v.toPrecision(3))),
          ]),
        }}
        root={root}
      />
    </div>
  )
}
