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
          <h3>Label vs measured</h3>
          <p>
            <Words sentence={label.sentence} />
          </p>
        </div>
      )}
      {pump?.fit && pump.fitFigures && (
        <p className="muted">
          Pump curve from {pump.fit.points.length} points: maximum head{' '}
          <FigureView figure={pump.fitFigures.shutOff} inline said />, flow at zero head{' '}
          <FigureView figure={pump.fitFigures.maxFlow} inline said />, exponent{' '}
          <FigureView figure={pump.fitFigures.exponent} inline said />
          {pump.fit.exponent === 'assumed' && ' (assumed: fewer than five points)'}.
        </p>
      )}
      {pump?.from === 'label' && pump.fitProblem && (
        <p className="muted">No pump curve yet. {pump.fitProblem}</p>
      )}
    </div>
  )
}

function LiftNote({ hookup }: { readonly hookup: HookupResult }) {
  const { staticHead, hookup: h } = hookup
  const parts = staticPartFigures(staticHead)
  return (
    <div>
      <h3>Does cabinet height cost flow?</h3>
      {staticHead.circuit === 'closed' ? (
        <p>
          No. Both hoses end under water
          {h.bodyBelowWater > 0 && (
            <>
              , so the <FigureView figure={bodyDepthFigure(h)} inline said /> down and up cancel out
            </>
          )}
          . Only friction counts; a longer hose adds to it.
        </p>
      ) : (
        <p>
          Yes: the pump loses <FigureView figure={staticHeadFigure(staticHead)} inline said /> of head at
          every flow.
          {staticHead.fromSource > 0 && (
            <>
              {' '}
              The intake is <FigureView figure={parts.source} inline said /> below the tank’s surface.
            </>
          )}
          {staticHead.fromOutlet > 0 && (
            <>
              {' '}
              The return is <FigureView figure={parts.outlet} inline said /> above it.
            </>
          )}
        </p>
      )}
    </div>
  )
}
