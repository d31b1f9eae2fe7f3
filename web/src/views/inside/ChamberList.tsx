import type { Chamber } from '@ypsometer/contract'
import { chamberRecord } from '@ypsometer/contract/records'
import type { Figure } from '@ypsometer/core/figures/figure'
import { solidFigure } from '@ypsometer/core/volumes/figures'
import { ChevronDown, ChevronUp, Plus, X } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { changeRow, createRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { LITRE_WORDS, Swatch } from '../../cutaway/patterns'
import { FigureView } from '../../figures/FigureView'
import { useDossierContext } from '../../frame/dossier'
import { Sheet } from '../../figures/Sheet'

interface Props {
  readonly chambers: readonly Chamber[]
  readonly selected: string | null
  readonly onSelect: (id: string) => void
}

const volume = (c: Chamber): Figure | null => {
  try {
    return solidFigure(c.name, chamberRecord(c).solid, c.measured)
  } catch {
    return null
  }
}

/** Chambers in the order the water meets them; the same selection as in the drawing. */
export function ChamberList({ chambers, selected, onSelect }: Props) {
  const { dossier } = useDossierContext()
  const sorted = [...chambers].sort((a, b) => a.position - b.position)
  const swap = (i: number, by: number): void => {
    const [a, b] = [sorted[i], sorted[i + by]]
    if (!a || !b) return
    changeRow('chambers', a, { position: b.position })
    changeRow('chambers', b, { position: a.position })
  }
  const add = (): void => {
    const last = sorted.at(-1)
    const id = createRow('chambers', {
      modelId: dossier.model.id,
      position: (last?.position ?? 0) + 1,
      name: `Chamber ${sorted.length + 1}`,
      x: last?.x ?? 0.01,
      y: last?.y ?? 0.01,
    })
    onSelect(id)
  }
  return (
    <section aria-labelledby="chambers-title">
      <div className="flex items-end justify-between">
        <h2 id="chambers-title">Chambers, in flow order</h2>
        <button type="button" className="btn btn-sm" onClick={add}>
          <Plus size={16} aria-hidden="true" /> Add one
        </button>
      </div>
      <Sheet className="mt-1">
        {sorted.map((c, i) => {
          const v = volume(c)
          return (
            <tr key={c.id} className={c.id === selected ? 'bg-base-200' : ''}>
              <td className="num muted w-8 pl-2" data-plain>
                {i + 1}
              </td>
              <td>
                <button
                  type="button"
                  aria-pressed={c.id === selected}
                  className={`cursor-pointer text-left ${c.id === selected ? 'font-bold' : 'hover:underline'}`}
                  onClick={() => onSelect(c.id)}
                >
                  {c.name}
                </button>
                <div className="muted text-[0.82rem]">
                  <Swatch id={`l${i}`} name={c.use} /> {LITRE_WORDS[c.use]}
                  {!c.measured && ' · not measured yet'}
                </div>
              </td>
              <td className="r">
                {v === null ? (
                  <span className="text-error">does not fit</span>
                ) : (
                  <FigureView figure={v} inline />
                )}
              </td>
              <td className="w-28 text-right whitespace-nowrap">
                <IconButton
                  label={`Move ${c.name} earlier in the flow`}
                  icon={ChevronUp}
                  disabled={i === 0}
                  onClick={() => swap(i, -1)}
                />
                <IconButton
                  label={`Move ${c.name} later in the flow`}
                  icon={ChevronDown}
                  disabled={i === sorted.length - 1}
                  onClick={() => swap(i, 1)}
                />
                <IconButton
                  label={`Delete ${c.name}`}
                  icon={X}
                  onClick={() => removeRow('chambers', c, c.name)}
                />
              </td>
            </tr>
          )
        })}
      </Sheet>
    </section>
  )
}
