import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type UniqueIdentifier,
} from '@dnd-kit/core'
import {
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical } from 'lucide-react'
import type { ReactNode } from 'react'

/** Items of a list to be sorted, in their order: an id, and the name a screen reader says while it is moved. */
interface Item {
  readonly id: string
  readonly name: string
}

interface Props {
  readonly items: readonly Item[]
  /** One was let go over another: both by id. */
  readonly onMove: (moved: string, over: string) => void
  readonly children: ReactNode
}

const INSTRUCTIONS = {
  draggable: 'Press space to pick it up, the arrow keys to move it, space to let go, escape to leave it.',
}

/** Announcements while a row is moved, in names and places instead of ids. */
function said(items: readonly Item[]): Announcements {
  const name = (id: UniqueIdentifier): string => items.find((i) => i.id === id)?.name ?? 'It'
  const place = (id: UniqueIdentifier): string =>
    `place ${items.findIndex((i) => i.id === id) + 1} of ${items.length}`
  return {
    onDragStart: ({ active }) => `${name(active.id)} picked up, at ${place(active.id)}.`,
    onDragOver: ({ active, over }) => (over ? `${name(active.id)} at ${place(over.id)}.` : undefined),
    onDragEnd: ({ active, over }) =>
      over ? `${name(active.id)} let go at ${place(over.id)}.` : `${name(active.id)} let go where it was.`,
    onDragCancel: ({ active }) => `${name(active.id)} left where it was.`,
  }
}

/** A list whose rows are moved by mouse, finger and keyboard. Its rows use {@link useSortableRow}. */
export function Sortable({ items, onMove, children }: Props) {
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 4 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  )
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      accessibility={{ announcements: said(items), screenReaderInstructions: INSTRUCTIONS }}
      onDragEnd={({ active, over }) => over && over.id !== active.id && onMove(`${active.id}`, `${over.id}`)}
    >
      <SortableContext items={items.map((i) => i.id)} strategy={verticalListSortingStrategy}>
        {children}
      </SortableContext>
    </DndContext>
  )
}

/** Props of a row of a {@link Sortable}: its ref and style, whether it is held, and its grip. */
export function useSortableRow(id: string, gripLabel: string) {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id })
  return {
    row: { ref: setNodeRef, style: { transform: CSS.Translate.toString(transform), transition } },
    held: isDragging ? 'bg-base-100 relative z-10 shadow-lg' : '',
    grip: (
      <button
        type="button"
        className="btn btn-ghost btn-xs btn-square cursor-grab touch-none"
        aria-label={gripLabel}
        {...attributes}
        {...listeners}
      >
        <GripVertical size={16} aria-hidden="true" />
      </button>
    ),
  }
}
