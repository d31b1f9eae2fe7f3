import type { Fill } from '@ypsometer/contract'
import { useDossierContext } from '../frame/dossier'
import type { PathAnswer } from '../workers/pathWork'

/** Why the path cannot be worked out: what is missing, or which field holds what cannot be. Nothing typed is lost. */
export function Trouble({ answer, fill }: { readonly answer: PathAnswer | null; readonly fill: Fill }) {
  const { dossier } = useDossierContext()
  if (!answer || answer.kind === 'ready') {
    const lost = answer?.outcome.topology.lost.length ?? 0
    const rules = answer?.contradictions ?? []
    return (
      <>
        {lost > 0 && (
          <p className="text-warning" role="status">
            {lost} of {fill.layers.length} layers stand in a chamber or are of a medium that is gone: they are
            not counted.
          </p>
        )}
        {rules.map(([a, b]) => (
          <p key={a + b} className="text-warning" role="status">
            The house rules contradict each other: “{a}” and “{b}” cannot both be kept. Switch one of them off
            under Rules.
          </p>
        ))}
      </>
    )
  }
  if (answer.kind === 'missing')
    return <p role="status">Not yet: there is no {answer.what.replace(/^an? /, '')}.</p>
  const { at } = answer
  const layer = at?.what === 'layers' ? fill.layers.findIndex((l) => l.id === at.id) : -1
  const chamber = at?.what === 'chambers' ? dossier.chambers.find((c) => c.id === at.id) : undefined
  const where = layer >= 0 ? `Layer ${layer + 1}, ${at?.field}: ` : chamber ? `${chamber.name}: ` : ''
  return (
    <p role="alert" className="border-error text-error border-l-4 pl-3">
      {where}
      {answer.message} What you typed is kept; the drawing leaves it out until then.
    </p>
  )
}
