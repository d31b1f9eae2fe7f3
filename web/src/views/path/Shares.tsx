import {
  contactFigure,
  headFigure,
  bypassFigure,
  sideFigure,
  velocityFigure,
} from '@ypsometer/core/path/figures'
import type { Outcome } from '@ypsometer/core/path/outcome'
import { MediumSwatch } from '../../cutaway/mediaPatterns'
import { FigureView } from '../../figures/FigureView'
import { right, Sheet } from '../../figures/Sheet'
import { Explained } from '../../figures/Explained'

interface Props {
  readonly outcome: Outcome
  readonly selected: string | null
  readonly onSelect: (id: string) => void
}

/** Where the water goes, layer by layer: through, round, how long, how fast, at what head. */
export function Shares({ outcome, selected, onSelect }: Props) {
  const sides = outcome.sides.filter((s) => s.share > 0.0005)
  if (!outcome.layers.length) return <p>No layers in this setup yet.</p>
  return (
    <section aria-labelledby="shares-title">
      <h2 id="shares-title">Layer by layer</h2>
      <div className="overflow-x-auto">
        <Sheet
          className="min-w-[34rem]"
          columns={[
            'Layer',
            right(<Explained>bypass</Explained>),
            right('contact time'),
            right('speed'),
            right('head loss'),
          ]}
        >
          {outcome.layers.map((l) => (
            <tr key={l.placed.layer.id} className={l.placed.layer.id === selected ? 'bg-base-200' : ''}>
              <td>
                <button
                  type="button"
                  className="cursor-pointer text-left hover:underline"
                  onClick={() => onSelect(l.placed.layer.id)}
                >
                  <MediumSwatch id={`s-${l.placed.layer.id}`} medium={l.placed.medium} />{' '}
                  {l.placed.medium.name}
                </button>
                <span className="muted block text-[0.82rem]">{l.chamber.chamber.name}</span>
              </td>
              <td className={`r ${l.bypassFraction > 0.1 ? 'text-error' : ''}`}>
                <FigureView figure={bypassFigure(l)} inline said />
              </td>
              <td className="r">
                {Number.isFinite(l.contact) && (
                  <FigureView figure={contactFigure(l)} inline said digits={2} />
                )}
              </td>
              <td className="r">
                <FigureView figure={velocityFigure(l)} inline said digits={2} unit="cm/s" />
              </td>
              <td className="r">
                <FigureView figure={headFigure(l)} inline said digits={2} unit="mm" />
              </td>
            </tr>
          ))}
        </Sheet>
      </div>
      {sides.length > 0 && (
        <p className="mt-2">
          Bypass routes:{' '}
          {sides.map((s, i) => (
            <span key={`${s.label}-${i}`}>
              {i > 0 && '; '}
              {s.label.toLowerCase()} <FigureView figure={sideFigure(outcome, s)} inline said />
            </span>
          ))}
          .
        </p>
      )}
    </section>
  )
}
