import type { Part } from '@ypsometer/contract'
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { CHECKLISTS } from '@ypsometer/core/teardown/vocabulary'
import { GripVertical, X } from 'lucide-react'
import { IconButton } from '../../frame/IconButton'
import { changeRow, deleteRow } from '../../api/queries'
import { useDossierContext } from '../dossier/Dossier'

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
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  const onDragEnd = ({ active, over }: DragEndEvent): void => {
    const from = parts.findIndex((p) => p.id === active.id)
    const to = parts.findIndex((p) => p.id === over?.id)
    const part = parts[from]
    if (!part || to < 0 || from === to) return
    const others = parts.filter((p) => p !== part)
    changeRow('parts', part, { position: placeBetween(others[to - 1]?.position, others[to]?.position) })
  }
  return (
    <DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
      <SortableContext items={parts.map((p) => p.id)} strategy={verticalListSortingStrategy}>
        <ol className="rule-t" aria-label="Parts">
          {parts.map((p, i) => (
            <PartRow key={p.id} part={p} index={i} selected={p.id === selected} onSelect={onSelect} />
          ))}
        </ol>
      </SortableContext>
    </DndContext>
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
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({
    id: part.id,
  })
  const photos = dossier.photos.filter((p) => p.partId === part.id).length
  const list = CHECKLISTS.find((c) => c.id === part.checklist)
  const findings = part.findings.flatMap((id) => list?.findings.find((f) => f.id === id) ?? [])
  return (
    <li
      ref={setNodeRef}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`rule-b flex items-center gap-2 py-1 ${selected ? 'bg-base-200' : ''} ${isDragging ? 'bg-base-100 relative z-10 shadow-lg' : ''}`}
    >
      <button
        type="button"
        className="btn btn-ghost btn-xs btn-square cursor-grab touch-none"
        aria-label={`Move ${part.name}, now ${index + 1}`}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={16} aria-hidden="true" />
      </button>
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
        onClick={() => deleteRow('parts', part, part.name)}
      />
    </li>
  )
}
