import { X } from 'lucide-react'
import { useEffect, useId, useLayoutEffect, useRef, useState, type ReactNode, type RefObject } from 'react'
import { createPortal } from 'react-dom'

/**
 * A panel beside what was pressed: `props` make anything its opener, `panel` puts it there once it is open. Escape, Tab
 * and a press elsewhere close it; the keyboard goes on from the opener.
 */
export function usePanel<E extends HTMLElement | SVGElement>() {
  const [open, setOpen] = useState(false)
  const id = useId()
  const anchor = useRef<E>(null)
  const close = (): void => {
    setOpen(false)
    anchor.current?.focus()
  }
  return {
    anchor,
    props: {
      'aria-expanded': open,
      'aria-controls': open ? id : undefined,
      onClick: () => setOpen(!open),
    },
    panel: (name: string, title: string, content: () => ReactNode) =>
      open && (
        <Panel
          id={id}
          name={name}
          title={title}
          anchor={anchor}
          onClose={close}
          onAway={() => setOpen(false)}
        >
          {content()}
        </Panel>
      ),
  }
}

interface PanelProps {
  readonly id: string
  readonly name: string
  readonly title: string
  readonly anchor: RefObject<Element | null>
  readonly onClose: () => void
  readonly onAway: () => void
  readonly children: ReactNode
}

function Panel({ id, name, title, anchor, onClose, onAway, children }: PanelProps) {
  const panel = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const el = panel.current
    const at = anchor.current?.getBoundingClientRect()
    if (!el || !at) return
    const { clientWidth, clientHeight } = document.documentElement
    const left = Math.max(8, Math.min(at.left, clientWidth - 8 - el.offsetWidth))
    const over = at.bottom + 4 + el.offsetHeight > clientHeight && at.top > el.offsetHeight + 8
    const top = over ? at.top - 4 - el.offsetHeight : at.bottom + 4
    el.style.left = `${left + window.scrollX}px`
    el.style.top = `${top + window.scrollY}px`
    el.focus({ preventScroll: true })
    el.scrollIntoView({ block: 'nearest' })
  }, [anchor])
  useEffect(() => {
    const away = (e: PointerEvent): void => {
      const at = e.target as Node
      if (!panel.current?.contains(at) && !anchor.current?.contains(at)) onAway()
    }
    document.addEventListener('pointerdown', away)
    return () => document.removeEventListener('pointerdown', away)
  })
  return createPortal(
    <div
      id={id}
      ref={panel}
      tabIndex={-1}
      role="dialog"
      aria-label={name}
      className="bg-base-100 border-base-content absolute top-0 left-0 z-40 max-h-[80vh] w-[23rem] max-w-[calc(100vw-1rem)] overflow-y-auto border p-4 text-[0.92rem] whitespace-normal shadow-lg"
      onKeyDown={(e) => {
        e.stopPropagation()
        // The panel hangs at the end of the page; leaving it by Tab goes on from the number it belongs to.
        if (e.key === 'Escape' || e.key === 'Tab') {
          if (e.key === 'Tab' && e.target === panel.current) return
          e.preventDefault()
          onClose()
        }
      }}
      onClick={(e) => e.stopPropagation()}
    >
      <div className="flex items-start justify-between gap-3">
        <h3>{title}</h3>
        <button
          type="button"
          className="btn btn-ghost btn-xs -mt-1 -mr-2"
          aria-label="Close"
          onClick={onClose}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </div>
      {children}
    </div>,
    document.body,
  )
}
