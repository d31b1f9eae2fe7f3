import type { Part } from '@ypsometer/contract'
import type { Figure } from '@ypsometer/core/figures/figure'
import { reaches, serviceScore } from '@ypsometer/core/teardown/reach'
import { reachFigures } from '@ypsometer/core/teardown/figures'
import { FigureView } from '../../figures/FigureView'
import { ProvenanceTag } from '../../figures/Provenance'
import { REACH_WORDS } from './PartSheet'
import { right, Sheet } from '../../figures/Sheet'

/** How far it is to what needs service: parts, moves and seconds, from the log. */
export function ReachSheet({ parts }: { readonly parts: readonly Part[] }) {
  const found = reaches(parts)
  const score = serviceScore(found)
  const timed = found.some((r) => r.cleaning !== null || r.back !== null)
  return (
    <section aria-labelledby="reach-title" className="as-needed">
      <h2 id="reach-title">
        Access times <ProvenanceTag of="computed" />
      </h2>
      {found.length === 0 ? (
        <p className="muted">
          No access times yet. Mark which part gives access to the pre-filter, pad, media or impeller.
        </p>
      ) : (
        <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Access times, table">
          <Sheet
            className="mt-1"
            columns={[
              'To',
              right('Parts off'),
              right('Hand movements'),
              right('Seconds'),
              ...(timed ? [right('Cleaning'), right('Reassembly')] : []),
            ]}
          >
            {found.map((r) => {
              const f = reachFigures(r)
              return (
                <tr key={r.reach}>
                  <td>{REACH_WORDS[r.reach]}</td>
                  {(['parts', 'moves', 'seconds'] as const).map((k) => (
                    <td key={k} className="r">
                      <FigureView figure={f[k]} inline {...(k === 'seconds' && { digits: 2 })} />
                    </td>
                  ))}
                  {timed &&
                    (['cleaning', 'back'] as const).map((k) => (
                      <td key={k} className="r">
                        {f[k] ? (
                          <FigureView figure={f[k]} inline digits={2} />
                        ) : (
                          <span className="muted">not timed</span>
                        )}
                      </td>
                    ))}
                </tr>
              )
            })}
          </Sheet>
        </div>
      )}
      {score !== null && (
        <p className="mt-2">
          Ease of service: <FigureView figure={scoreFigure(score, found)} />
        </p>
      )}
    </section>
  )
}

const scoreFigure = (score: number, found: ReturnType<typeof reaches>): Figure => ({
  id: 'service',
  label: 'Ease of service',
  value: score,
  dimension: 'ratio',
  provenance: 'computed',
  formula: 'weighted mean of 1 − ln(t/best) / ln(worst/best)',
  working: found.map((r) => ({
    symbol: r.reach,
    label: 'seconds to reach',
    value: r.seconds,
    dimension: 'time' as const,
    provenance: 'measured' as const,
  })),
  source: 'scale and weights: common practice, no source',
})
