import { writeTable } from '@ypsometer/contract/csv'
import { Download, Table2 } from 'lucide-react'
import { useState, type RefObject } from 'react'
import { Sheet } from '../figures/Sheet'

/** A chart's data as rows, for the table and the CSV. */
export interface ChartData {
  readonly name: string
  readonly columns: readonly string[]
  readonly rows: readonly (readonly (string | number)[])[]
}

/** A chart's data as CSV (RFC 4180); cells that a spreadsheet would take for a formula are defused. */
export const toCsv = (d: ChartData): string => writeTable(d.columns, d.rows)

export function save(name: string, type: string, content: string): void {
  const url = URL.createObjectURL(new Blob([content], { type }))
  const a = document.createElement('a')
  a.href = url
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(url), 1000)
}

/** A copy of a drawing with colours and fonts written out, no script, no references. */
function plainCopy(svg: SVGSVGElement): SVGSVGElement {
  const copy = svg.cloneNode(true) as SVGSVGElement
  const from = [svg, ...svg.querySelectorAll<SVGElement>('*')]
  const to = [copy, ...copy.querySelectorAll<SVGElement>('*')]
  from.forEach((el, i) => {
    const style = getComputedStyle(el)
    const target = to[i]
    if (!target) return
    for (const property of [
      'fill',
      'stroke',
      'stroke-width',
      'stroke-dasharray',
      'opacity',
      'fill-opacity',
      'font-family',
      'font-size',
      'font-weight',
      'text-anchor',
    ])
      target.setAttribute(property, style.getPropertyValue(property))
    target.removeAttribute('class')
    for (const { name } of [...target.attributes])
      if (name.startsWith('on') || name === 'tabindex') target.removeAttribute(name)
  })
  copy.querySelectorAll('script, foreignObject').forEach((el) => el.remove())
  return copy
}

const SVG = 'http://www.w3.org/2000/svg'

/** Drawings that stand side by side as one file of their own, each where it stands on the screen. */
export function standalone(...drawings: readonly SVGSVGElement[]): string {
  const boxes = drawings.map((d) => d.getBoundingClientRect())
  const left = Math.min(...boxes.map((b) => b.left))
  const top = Math.min(...boxes.map((b) => b.top))
  const whole = document.createElementNS(SVG, 'svg')
  whole.setAttribute('xmlns', SVG)
  whole.setAttribute('width', String(Math.max(...boxes.map((b) => b.right)) - left))
  whole.setAttribute('height', String(Math.max(...boxes.map((b) => b.bottom)) - top))
  drawings.forEach((d, i) => {
    const copy = plainCopy(d)
    // Another font may be wider than ours: let a label stand out rather than be cut.
    copy.setAttribute('overflow', 'visible')
    copy.setAttribute('x', String((boxes[i]?.left ?? left) - left))
    copy.setAttribute('y', String((boxes[i]?.top ?? top) - top))
    whole.appendChild(copy)
  })
  return new XMLSerializer().serializeToString(whole)
}

/** Rows a table on the screen shows. */
const ROWS = 400

interface ToolsProps {
  readonly data: ChartData
  readonly root: RefObject<HTMLElement | null>
}

/** Under every chart: its data as a table, as CSV, and the drawing as SVG. */
export function ChartTools({ data, root }: ToolsProps) {
  const [table, setTable] = useState(false)
  const file = data.name.toLowerCase().replace(/[^a-z0-9]+/g, '-')
  return (
    <div className="no-print mt-1">
      <div className="muted flex flex-wrap gap-1 text-[0.85rem]">
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          aria-expanded={table}
          onClick={() => setTable(!table)}
        >
          <Table2 size={14} aria-hidden="true" /> {table ? 'Hide the table' : 'As a table'}
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => save(`${file}.csv`, 'text/csv', toCsv(data))}
        >
          <Download size={14} aria-hidden="true" /> CSV
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs"
          onClick={() => {
            const drawings = root.current?.querySelectorAll<SVGSVGElement>(
              'svg[data-drawing], svg.recharts-surface',
            )
            if (drawings?.length) save(`${file}.svg`, 'image/svg+xml', standalone(...drawings))
          }}
        >
          <Download size={14} aria-hidden="true" /> SVG
        </button>
      </div>
      {table && (
        <div
          className="mt-2 max-h-80 overflow-auto"
          tabIndex={0}
          role="region"
          aria-label={`${data.name}, table`}
        >
          <Sheet columns={[...data.columns.map((c) => c)]}>
            {data.rows.slice(0, ROWS).map((row, i) => (
              <tr key={i}>
                {row.map((v, j) => (
                  <td key={j} className="num">
                    {v}
                  </td>
                ))}
              </tr>
            ))}
          </Sheet>
          {data.rows.length > ROWS && (
            <p className="muted py-1 text-[0.88rem]">
              The first {ROWS} of {data.rows.length} rows; the CSV has them all.
            </p>
          )}
        </div>
      )}
    </div>
  )
}
