import type { Ranked, Score } from '@ypsometer/core/advice/score'
import { showPercent } from '@ypsometer/core/units/format'
import { chanceText } from '../../figures/chance'
import { CRITERION } from '@ypsometer/core/advice/criteria'
import { right, Sheet } from '../../figures/Sheet'

const W = 240
const H = 26
/** As much room before it is drawn as after: what stands below is not moved from under a finger. */
const ROOM = 'mt-2 min-h-24'

interface Props {
  readonly score: Score
  readonly drawn: Ranked['options'][number] | undefined
  readonly draws: number | undefined
}

/**
 * A score as what each criterion brings to it, side by side on a scale from 0 to 1, with the interval of the draws over
 * it. A score is not shown without its interval.
 */
export function ScoreBar({ score, drawn, draws }: Props) {
  const parts = score.parts.filter((p) => p.brings > 0)
  if (!drawn) return <p className={`muted text-[0.85rem] ${ROOM}`}>Calculating score …</p>
  const words = score.parts.map(
    (p) => `${CRITERION[p.criterion].name} ${p.value === null ? 'unknown' : points(p.value)}`,
  )
  const starts = parts.map((_, i) => parts.slice(0, i).reduce((sum, q) => sum + q.brings, 0))
  return (
    <div className={ROOM}>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="w-full max-w-60"
        role="img"
        aria-label={`Score ${score.score.toFixed(2)}, ${drawn.low.toFixed(2)} to ${drawn.high.toFixed(2)}: ${words.join(', ')}`}
      >
        <title>{words.join('\n')}</title>
        <line x1={0} x2={W} y1={20} y2={20} stroke="var(--color-base-300)" />
        {parts.map((p, i) => (
          <rect
            key={p.criterion}
            x={(starts[i] ?? 0) * W}
            width={Math.max(0.5, p.brings * W - 1)}
            y={10}
            height={10}
            fill="var(--color-primary)"
            fillOpacity={p.value === null ? 0.25 : i % 2 ? 0.6 : 0.9}
          />
        ))}
        <line x1={drawn.low * W} x2={drawn.high * W} y1={5} y2={5} stroke="currentColor" strokeWidth={1.5} />
        {[drawn.low, drawn.high].map((v) => (
          <line key={v} x1={v * W} x2={v * W} y1={2} y2={8} stroke="currentColor" strokeWidth={1.5} />
        ))}
      </svg>
      <p className="num text-[0.85rem]">
        Score {points(drawn.low)}–{points(drawn.high)} of 100.{' '}
        {drawn.rankLow === drawn.rankHigh
          ? `Rank ${drawn.rankLow}`
          : `Rank ${drawn.rankLow}–${drawn.rankHigh}`}
        ; ranked first in {chanceText(drawn.best)} of simulations.
      </p>
      <details className="mt-1 text-[0.88rem]">
        <summary className="muted cursor-pointer">What makes the score</summary>
        <Sheet className="mt-1" columns={['Criterion', right('Score'), right('Weight'), right('Adds')]}>
          {score.parts.map((p) => (
            <tr key={p.criterion}>
              <td>{CRITERION[p.criterion].name}</td>
              <td className="r num">{p.value === null ? 'unknown' : points(p.value)}</td>
              <td className="r num">{showPercent(p.weight)}</td>
              <td className="r num">{points(p.brings)}</td>
            </tr>
          ))}
        </Sheet>
        <p className="muted mt-1">
          Each criterion scores 0 to 100. Unknown ones count 50 here, and 0 to 100 in the draws. The bracket
          holds 95 % of {draws} draws (JCGM 101).
        </p>
      </details>
    </div>
  )
}

/** A score of 0 to 1, of a hundred. */
const points = (score: number): string => String(Math.round(100 * score))
