import type { Part } from '@ypsometer/contract'
import { CHECKLISTS } from '@ypsometer/core/parts/vocabulary'
import { X } from 'lucide-react'
import { Sortable, useSortableRow } from '../../fields/Sortable'
import { IconButton } from '../../frame/IconButton'
import { changeRow } from '../../api/rows'
import { removeRow } from '../../frame/removed'
import { useDossierContext } from '../../frame/dossier'

interface Props {
  readonly parts: readonly Part[]
  readonly selected: string | null
  readonly onSelect: (id: string) => void
}

/** A place between two neighbours, so that moving one part changes one row. */
export function placeBetween(before: number | undefined, after: number | undefined): number {
  if (before === undefined) return (after ?? 1) - 1
  return after === undefined ? before + 1 : (before + after) / 2
}

/** The parts list; its order is the order they came off, and can be mended by drag and by keyboard. */
export function PartTable({ parts, selected, onSelect }: Props) {
  const move = (moved: string, over: string): void => {
    const part = parts.find((p) => p.id === moved)
    const to = parts.findIndex((p) => p.id === over)
    if (!part || to < 0) return
    const others = parts.filter((p) => p !== part)
    changeRow('parts', part, { position: placeBetween(others[to - 1]?.position, others[to]?.position) })
  }
  return (
    <Sortable items={parts} onMove={move}>
      <ol className="rule-t" aria-label="Parts">
        {parts.map((p, i) => (
          <PartRow key={p.id} part={p} index={i} selected={p.id === selected} onSelect={onSelect} />
        ))}
      </ol>
    </Sortable>
  )
}

interface RowProps {
  readonly part: Part
  readonly index: number
  readonly selected: boolean
  readonly onSelect: (id: string) => void
}

function PartRow({ part, index, selected, onSelect }: RowProps) {
  const { dossier } = useDossierContext()
  const { row, held, grip } = useSortableRow(part.id, `Move ${part.name}, now ${index + 1}`)
  const photos = dossier.photos.filter((p) => p.partId === part.id).length
  const list = CHECKLISTS.find((c) => c.id === part.checklist)
  const findings = part.findings.flatMap((id) => list?.findings.find((f) => f.id === id) ?? [])
  return (
    <li {...row} className={`rule-b flex items-center gap-2 py-1 ${selected ? 'bg-base-200' : ''} ${held}`}>
      {grip}
      <span className="num muted w-6 text-right">{index + 1}</span>
      <button
        type="button"
        aria-pressed={selected}
        className="min-w-0 flex-1 cursor-pointer text-left"
        onClick={() => onSelect(part.id)}
      >
        <span className={selected ? 'font-bold' : ''}>{part.name}</span>
        {findings.length > 0 && (
          <span
            className={`block text-[0.85rem] leading-tight ${findings.some((f) => !f.good) ? 'text-warning' : 'muted'}`}
          >
            {findings.map((f) => f.label).join(', ')}
          </span>
        )}
      </button>
      {photos > 0 && (
        <span className="muted text-[0.82rem]">
          {photos} {photos === 1 ? 'photo' : 'photos'}
        </span>
      )}
      <span className="num muted w-28 text-right text-[0.88rem] whitespace-nowrap">
        {part.moves} {part.moves === 1 ? 'move' : 'moves'} · {part.seconds.toFixed(0)} s
      </span>
      <IconButton
        label={`Delete ${part.name}`}
        icon={X}
        onClick={() => removeRow('parts', part, part.name)}
      />
    </li>
  )
}
