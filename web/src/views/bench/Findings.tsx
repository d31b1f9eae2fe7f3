import { bodyDepthFigure, staticHeadFigure, staticPartFigures } from '@ypsometer/core/judging/staticFigures'
import type { HookupResult } from '@ypsometer/core/trials/modelPump'
import { FigureView } from '../../figures/FigureView'
import { Words } from '../../figures/Words'
import { useDossierContext } from '../../frame/dossier'

/** Findings of the curve: the label, why lift does or does not count, and what a fit still needs. */
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
      {pump?.fit && pump.fitFigures && (
        <p className="muted">
          Curve fitted to {pump.fit.points.length} points:{' '}
          <FigureView figure={pump.fitFigures.shutOff} inline said /> shut-off,{' '}
          <FigureView figure={pump.fitFigures.maxFlow} inline said /> at no head, exponent{' '}
          <FigureView figure={pump.fitFigures.exponent} inline said />
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
  const parts = staticPartFigures(staticHead)
  return (
    <div>
      <h3>Does the height count?</h3>
      {staticHead.circuit === 'closed' ? (
        <p>
          No. Both ends are under the same water, so the falling side pays for the rising one
          {h.bodyBelowWater > 0 && (
            <>
              ; the <FigureView figure={bodyDepthFigure(h)} inline said /> down to the body cost nothing
            </>
          )}
          . Only friction counts, and a longer hose adds to that.
        </p>
      ) : (
        <p>
          Yes, <FigureView figure={staticHeadFigure(staticHead)} inline said />: the circuit is open
          {staticHead.fromSource > 0 && (
            <>
              , water is taken <FigureView figure={parts.source} inline said /> below the tank’s surface
            </>
          )}
          {staticHead.fromOutlet > 0 && (
            <>
              {staticHead.fromSource > 0 ? ' and' : ', water is'} let go{' '}
              <FigureView figure={parts.outlet} inline said /> above it
            </>
          )}
          . That much comes off the pump’s head at every flow.
        </p>
      )}
    </div>
  )
}
