import type { HookupResult } from '@ypsometer/core/judging'
import { Num, Words } from '../../figures/Num'
import { useDossierContext } from '../dossier/Dossier'

/** What the curve says: the label finding, why lift does or does not count, and what a fit still needs. */
export function Findings({ hookup }: { readonly hookup: HookupResult | null }) {
  const { assessment } = useDossierContext()
  if (!assessment) return null
  const label = assessment.verdict.reasons.find((r) => r.id === 'label')
  const { pump } = assessment
  return (
    <div className="space-y-4">
      {hookup && <LiftNote hookup={hookup} />}
      {label && (
        <div>
          <h3>Label against bench</h3>
          <p>
            <Words sentence={label.sentence} />
          </p>
        </div>
      )}
      {pump?.fit && (
        <p className="muted">
          Curve fitted to {pump.fit.points.length} points: <Num si={pump.pump.shutOffHead} dimension="head" />{' '}
          shut-off, <Num si={pump.pump.maxFlow} dimension="flow" /> at no head, exponent{' '}
          <span className="num">{pump.pump.exponent.toFixed(2)}</span>
          {pump.fit.exponent === 'assumed' && ' (assumed: fewer than five points)'}.
        </p>
      )}
      {pump?.from === 'label' && pump.fitProblem && (
        <p className="muted">No fitted curve yet. {pump.fitProblem}</p>
      )}
    </div>
  )
}

function LiftNote({ hookup }: { readonly hookup: HookupResult }) {
  const { staticHead, hookup: h } = hookup
  return (
    <div>
      <h3>Does the height count?</h3>
      {staticHead.circuit === 'closed' ? (
        <p>
          No. Both ends are under the same water, so the falling side pays for the rising one
          {h.bodyBelowWater > 0 && (
            <>
              ; the <Num si={h.bodyBelowWater} dimension="head" /> down to the body cost nothing
            </>
          )}
          . Only friction counts, and a longer hose adds to that.
        </p>
      ) : (
        <p>
          Yes, <Num si={staticHead.head} dimension="head" />: the circuit is open
          {staticHead.fromSource > 0 && (
            <>
              , water is taken <Num si={staticHead.fromSource} dimension="head" /> below the tank’s surface
            </>
          )}
          {staticHead.fromOutlet > 0 && (
            <>
              {staticHead.fromSource > 0 ? ' and' : ', water is'} let go{' '}
              <Num si={staticHead.fromOutlet} dimension="head" /> above it
            </>
          )}
          . That much comes off the pump’s head at every flow.
        </p>
      )}
    </div>
  )
}
