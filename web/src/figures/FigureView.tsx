import type { Figure } from '@ypsometer/core/figures/figure'
import { X } from 'lucide-react'
import { useEffect, useId, useLayoutEffect, useRef, useState, type RefObject } from 'react'
import { createPortal } from 'react-dom'
import { Num } from './Num'
import { Symbols } from './Symbols'
import { Mark, PROVENANCE_MEANING, PROVENANCE_WORDS } from './Provenance'
import { Sheet } from './Sheet'

interface Props {
  readonly figure: Figure
  readonly size?: 'md' | 'lg'
  readonly unit?: string
  /** The mark without its word, for tables whose heading says it. */
  readonly bare?: boolean
  /** In a dense table: the number underlined with dots and its mark; the word is in its description and its working. */
  readonly inline?: boolean
  /** Within a sentence, which tells the origin in words: no mark. */
  readonly said?: boolean
  /** With a plus where it is one. */
  readonly signed?: boolean
  readonly digits?: number
  readonly className?: string
}

/** A number that can be asked where it came from: click, Enter or Space opens its working. */
export function FigureView({
  figure,
  size = 'md',
  unit,
  bare,
  inline,
  said,
  signed,
  digits,
  className = '',
}: Props) {
  const working = useWorking<HTMLButtonElement>(figure)
  const shown = unit ?? figure.unit
  const water = figure.provenance === 'measured' && figure.dimension === 'flow'
  return (
    <>
      <button
        ref={working.anchor}
        type="button"
        className={`group relative z-10 cursor-pointer text-left ${inline ? 'decoration-secondary whitespace-nowrap max-[380px]:whitespace-normal underline decoration-dotted underline-offset-3 hover:decoration-solid' : 'inline-flex flex-wrap items-baseline gap-x-2'} ${className}`}
        {...working.props}
      >
        {signed && figure.value >= 0 && <span className="num">+</span>}
        <Num
          si={figure.value}
          dimension={figure.dimension}
          uncertainty={figure.uncertainty}
          interval={figure.interval}
          className={`${size === 'lg' ? 'text-[2rem] leading-none font-semibold' : inline && !bare ? '' : 'font-medium'} ${water ? 'text-primary' : ''}`}
          {...(digits && { digits })}
          {...(shown && { unit: shown })}
        />
        {inline ? (
          !said && (
            <span className="muted ml-1 text-[0.72rem]">
              <Mark of={figure.provenance} />
            </span>
          )
        ) : (
          <span className="muted inline-flex items-baseline gap-1 text-[0.8rem] whitespace-nowrap underline decoration-dotted underline-offset-3 group-hover:decoration-solid">
            <Mark of={figure.provenance} />
            <span className={bare ? 'sr-only' : ''}>{PROVENANCE_WORDS[figure.provenance]}</span>
          </span>
        )}
      </button>
      {working.panel}
    </>
  )
}

/** Opener of a figure's working: the props of anything that can be pressed, and the panel to put beside it. */
export function useWorking<E extends HTMLElement | SVGElement>(figure: Figure) {
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
      title: `${PROVENANCE_WORDS[figure.provenance]}: show the working`,
      onClick: () => setOpen(!open),
    },
    panel: open && (
      <Working id={id} figure={figure} anchor={anchor} onClose={close} onAway={() => setOpen(false)} />
    ),
  }
}

interface PanelProps {
  readonly id: string
  readonly figure: Figure
  readonly anchor: RefObject<Element | null>
  readonly onClose: () => void
  readonly onAway: () => void
}

function Working({ id, figure, anchor, onClose, onAway }: PanelProps) {
  const shown = figure.unit
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
      aria-label={`Working of ${figure.label.toLowerCase()}`}
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
      {figure.formula && (
        <p className="num bg-base-200 mt-2 px-2 py-1.5">
          <Symbols text={figure.formula} />
        </p>
      )}
      {figure.working && figure.working.length > 0 && (
        <Sheet className="mt-1">
          {figure.working.map((w, i) => (
            <tr key={i}>
              <td className="num font-medium whitespace-nowrap">
                <Symbols text={w.symbol} />
              </td>
              <td>
                {w.label}
                {w.provenance && (
                  <span
                    className="muted ml-1.5 inline-flex align-[-1px]"
                    title={PROVENANCE_WORDS[w.provenance]}
                  >
                    <Mark of={w.provenance} />
                    <span className="sr-only">{PROVENANCE_WORDS[w.provenance]}</span>
                  </span>
                )}
              </td>
              <td className="r">
                <Num si={w.value} dimension={w.dimension} {...(w.unit && { unit: w.unit })} />
              </td>
            </tr>
          ))}
        </Sheet>
      )}
      {figure.interval ? (
        <p className="muted mt-2">
          95 %: <Num si={figure.interval[0]} dimension={figure.dimension} {...(shown && { unit: shown })} />{' '}
          to <Num si={figure.interval[1]} dimension={figure.dimension} {...(shown && { unit: shown })} />. ±
          is the wider half.
        </p>
      ) : (
        figure.uncertainty !== undefined && <p className="muted mt-2">± covers 95 % of likely values.</p>
      )}
      {figure.source && <p className="muted mt-1">Source: {figure.source}.</p>}
    </div>,
    document.body,
  )
}
