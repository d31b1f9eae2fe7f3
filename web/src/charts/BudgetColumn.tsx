import type { BudgetItem } from '@ypsometer/core/trials/lineFigures'
import { showPercent, showQuantity } from '@ypsometer/core/units/format'
import type { UnitSystem } from '@ypsometer/core/units/dimensions'
import { FigureView, useWorking } from '../figures/FigureView'
import { units } from '../settings/settings'
import { spreadLabels } from './labels'
import { Sheet } from '../figures/Sheet'

interface Props {
  readonly lines: readonly BudgetItem[]
  /** Pump head at the working point (m): the top of the column. */
  readonly head: number
  readonly top: number
  readonly bottom: number
  readonly height: number
  /** Head at the top of the chart's axis (m). */
  readonly axisMax: number
  /** Only the bar: names and figures stand in a list of their own. */
  readonly compact?: boolean
  /** Under a heading of its own: the column does not name itself. */
  readonly untitled?: boolean
}

const BAR = 46
const LABELS = 178

/**
 * A head as short as it can be read: what is under a centimetre in millimetres, and what is next to nothing as that.
 */
function headText(h: number, system: UnitSystem): string {
  const fine = system === 'metric' ? 'mm' : 'in'
  const small = system === 'metric' ? 1e-4 : 2.54e-4
  if (h < small) {
    const s = showQuantity(small, 'head', system, 1, fine)
    return h > 0 ? `under ${s.number} ${s.unit}` : `0 ${s.unit}`
  }
  const s = showQuantity(h, 'head', system, h < 0.1 ? 2 : 3, h < 0.01 ? fine : undefined)
  return `${s.number} ${s.unit}`
}

/** How the pump's head is spent, standing on the chart's own head axis. Outlet at the foot, intake at the top. */
export function BudgetColumn({ lines, head, top, bottom, height, axisMax, compact, untitled }: Props) {
  const system = units.use()
  const plot = height - top - bottom
  const y = (h: number): number => top + plot * (1 - h / axisMax)
  let level = head
  const parts = lines.map((l) => {
    const from = level
    level = Math.max(0, level - l.head)
    return { ...l, y0: y(from), y1: y(level) }
  })
  const labels = spreadLabels(
    parts.map((p) => (p.y0 + p.y1) / 2),
    29,
    top + 12,
    height - bottom - 18,
  )
  const text = (h: number): string => headText(h, system)
  return (
    <svg
      data-drawing
      width={compact ? BAR : BAR + LABELS}
      height={height}
      className="shrink-0"
      role="group"
      aria-label={`Head budget: ${lines.map((l) => `${l.label} ${text(l.head)}`).join(', ')}`}
    >
      <defs>
        <pattern id="budget-lift" width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M0 3h6" stroke="var(--color-base-content)" strokeWidth="1" />
        </pattern>
        <pattern id="budget-media" width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="2" cy="2" r="1.1" fill="var(--color-base-content)" />
          <circle cx="5.5" cy="5.5" r="1.1" fill="var(--color-base-content)" />
        </pattern>
      </defs>
      <path
        d={`M0 ${y(head)}h${BAR}`}
        stroke="var(--color-base-content)"
        strokeDasharray="1 3"
        strokeWidth="1.4"
      />
      {parts.map((p, i) => (
        <g key={p.id}>
          <rect
            x={6}
            y={p.y0}
            width={BAR - 12}
            height={Math.max(0, p.y1 - p.y0)}
            fill={fill(p)}
            stroke="var(--color-base-content)"
            strokeWidth="1"
            fillOpacity={p.kind === 'static' || p.id === 'by-difference' ? 1 : i % 2 ? 0.1 : 0.28}
          >
            <title>{`${p.label}: ${text(p.head)}`}</title>
          </rect>
          {!compact && (
            <>
              <path
                d={`M${BAR - 6} ${(p.y0 + p.y1) / 2}L${BAR + 8} ${labels[i] ?? 0}h4`}
                stroke="var(--color-secondary)"
                strokeWidth="0.8"
                fill="none"
              />
              <Label item={p} y={labels[i] ?? 0} text={`${text(p.head)} · ${showPercent(p.share)}`} />
            </>
          )}
        </g>
      ))}
      {!compact && !untitled && (
        <text x={6} y={height - bottom + 18} fontSize="13" fill="var(--color-secondary)">
          Head losses
        </text>
      )}
    </svg>
  )
}

/** A part's name and figure beside the column; pressed, it shows its working. */
function Label({ item, y, text }: { readonly item: BudgetItem; readonly y: number; readonly text: string }) {
  const working = useWorking<SVGGElement>(item.figure)
  const { title, ...props } = working.props
  return (
    <>
      <g
        ref={working.anchor}
        role="button"
        tabIndex={0}
        className="group cursor-pointer"
        aria-label={`${item.label}, ${text}, ${title}`}
        onKeyDown={(e) => {
          if (e.key !== 'Enter' && e.key !== ' ') return
          e.preventDefault()
          props.onClick()
        }}
        {...props}
      >
        <rect x={BAR + 10} y={y - 14} width={LABELS - 12} height={30} fill="transparent" />
        <text x={BAR + 15} y={y - 1} fontSize="13" fill="var(--color-base-content)">
          {item.label}
        </text>
        <text
          x={BAR + 15}
          y={y + 12}
          fontSize="12.5"
          fill="var(--color-secondary)"
          className="num underline decoration-dotted underline-offset-2 group-hover:decoration-solid"
        >
          {text}
        </text>
      </g>
      {working.panel}
    </>
  )
}

const fill = (p: BudgetItem): string => {
  if (p.kind === 'static') return 'url(#budget-lift)'
  return p.id === 'by-difference' ? 'url(#budget-media)' : 'var(--color-base-content)'
}

/** The budget as a list, for where the column has no room for names. */
export function BudgetList({ lines }: { readonly lines: readonly BudgetItem[] }) {
  return (
    <Sheet className="mb-3" title="Head losses, top of the column first">
      {lines.map((l) => (
        <tr key={l.id}>
          <td>{l.label}</td>
          <td className="r">
            <FigureView figure={l.figure} inline digits={2} />
          </td>
          <td className="r num" data-plain>
            {showPercent(l.share)}
          </td>
        </tr>
      ))}
    </Sheet>
  )
}
