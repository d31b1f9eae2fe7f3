import type { Figure } from '@ypsometer/core/figures'
import { X } from 'lucide-react'
import { useEffect, useId, useLayoutEffect, useRef, useState } from 'react'
import { Num } from './Num'
import { Mark, PROVENANCE_MEANING, PROVENANCE_WORDS } from './Provenance'

/** A number that can be asked where it came from: click, Enter or Space opens its working. */
export function FigureView({
  figure,
  size = 'md',
  unit,
  bare,
}: {
  readonly figure: Figure
  readonly size?: 'md' | 'lg'
  readonly unit?: string
  /** The mark without its word, for tables whose heading says it. */
  readonly bare?: boolean
}) {
  const [open, setOpen] = useState(false)
  const id = useId()
  const root = useRef<HTMLSpanElement>(null)
  const button = useRef<HTMLButtonElement>(null)
  const close = (): void => {
    setOpen(false)
    button.current?.focus()
  }
  useEffect(() => {
    if (!open) return
    const away = (e: PointerEvent): void => {
      if (!root.current?.contains(e.target as Node)) setOpen(false)
    }
    document.addEventListener('pointerdown', away)
    return () => document.removeEventListener('pointerdown', away)
  }, [open])
  return (
    <span
      ref={root}
      className="relative inline-block"
      onKeyDown={(e) => e.key === 'Escape' && open && (e.stopPropagation(), close())}
    >
      <button
        ref={button}
        type="button"
        className="group inline-flex cursor-pointer flex-wrap items-baseline gap-x-2 text-left"
        aria-expanded={open}
        aria-controls={id}
        title="Show the working"
        onClick={() => setOpen(!open)}
      >
        <Num
          si={figure.value}
          dimension={figure.dimension}
          uncertainty={figure.uncertainty}
          className={`${size === 'lg' ? 'text-[2rem] leading-none font-semibold' : 'font-medium'} ${figure.provenance === 'measured' && figure.dimension === 'flow' ? 'text-primary' : ''}`}
          {...(unit && { unit })}
        />
        <span className="muted inline-flex items-baseline gap-1 text-[0.8rem] whitespace-nowrap underline decoration-dotted underline-offset-3 group-hover:decoration-solid">
          <Mark of={figure.provenance} />
          <span className={bare ? 'sr-only' : ''}>{PROVENANCE_WORDS[figure.provenance]}</span>
        </span>
      </button>
      {open && <Working id={id} figure={figure} onClose={close} />}
    </span>
  )
}

function Working({
  id,
  figure,
  onClose,
}: {
  readonly id: string
  readonly figure: Figure
  readonly onClose: () => void
}) {
  const panel = useRef<HTMLDivElement>(null)
  useLayoutEffect(() => {
    const el = panel.current
    if (!el) return
    const { right, left } = el.getBoundingClientRect()
    const over = right - (document.documentElement.clientWidth - 8)
    if (over > 0) el.style.left = `${-Math.min(over, left - 8)}px`
    el.focus()
  }, [])
  return (
    <div
      id={id}
      ref={panel}
      tabIndex={-1}
      role="dialog"
      aria-label={`Working of ${figure.label.toLowerCase()}`}
      className="bg-base-100 border-base-content absolute top-full left-0 z-40 mt-1 w-[23rem] max-w-[calc(100vw-1.5rem)] border p-4 text-[0.92rem] whitespace-normal shadow-lg"
    >
      <div className="flex items-start justify-between gap-3">
        <h3>{figure.label}</h3>
        <button
          type="button"
          className="btn btn-ghost btn-xs -mt-1 -mr-2"
          aria-label="Close"
          onClick={onClose}
        >
          <X size={16} aria-hidden="true" />
        </button>
      </div>
      <p className="muted mt-1">
        <Mark of={figure.provenance} /> {PROVENANCE_MEANING[figure.provenance]}
      </p>
      {figure.conditions && <p className="mt-2">Conditions: {figure.conditions.join(' · ')}</p>}
      {figure.formula && <p className="num bg-base-200 mt-2 px-2 py-1.5">{figure.formula}</p>}
      {figure.working && (
        <table className="sheet mt-1">
          <tbody>
            {figure.working.map((w) => (
              <tr key={w.symbol}>
                <td className="num font-medium">{w.symbol}</td>
                <td>{w.label}</td>
                <td className="r">
                  <Num si={w.value} dimension={w.dimension} {...(w.unit && { unit: w.unit })} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {figure.uncertainty !== undefined && <p className="muted mt-2">± is the 95 % interval’s half-width.</p>}
      {figure.source && <p className="muted mt-1">Source: {figure.source}.</p>}
    </div>
  )
}
