import type { BudgetItem } from '@ypsometer/core/trials/lineFigures'
import { hasPump } from '@ypsometer/core/kinds/filters'
import { lineFigure, pumpHeadFigure } from '@ypsometer/core/path/figures'
import type { Outcome } from '@ypsometer/core/path/outcome'
import { showPercent } from '@ypsometer/core/units/format'
import { useRef } from 'react'
import { BudgetColumn, BudgetList } from '../charts/BudgetColumn'
import { useWidth } from '../charts/useWidth'
import { FigureView } from '../figures/FigureView'
import { Explained } from '../figures/Explained'

const HEIGHT = 430

/** The lines of the head budget as the column draws them; none where no pump drives the water. */
function itemsOf(outcome: Outcome): readonly BudgetItem[] {
  if (!hasPump(outcome.case.kind)) return []
  const total = outcome.budget.reduce((sum, l) => sum + l.head, 0)
  return outcome.budget
    .filter((l) => l.head > 1e-5)
    .map((l) => ({
      id: l.part.what === 'rest' ? 'by-difference' : l.id,
      label: l.label,
      kind: l.part.what === 'lift' ? 'static' : 'fitting',
      head: l.head,
      share: total > 0 ? l.head / total : 0,
      figure: lineFigure(outcome, l),
    }))
}

/** Where the pump’s head goes with this fill, from intake to outlet, on an axis of head. */
export function Budget({ outcome }: { readonly outcome: Outcome }) {
  const root = useRef<HTMLDivElement>(null)
  const narrow = useWidth(root, 500) < 260
  const items = itemsOf(outcome)
  if (!items.length) return null
  return (
    <section ref={root} aria-labelledby="budget-title">
      <h2 id="budget-title">
        <Explained>Head losses</Explained>
      </h2>
      {narrow ? <BudgetList lines={items} /> : <Column outcome={outcome} items={items} height={HEIGHT} />}
    </section>
  )
}

/** The same as a bar beside the section: it moves while a layer is dragged. */
export function BudgetBar({ outcome, height }: { readonly outcome: Outcome; readonly height: number }) {
  const items = itemsOf(outcome)
  if (!items.length) return null
  return (
    <div className="w-[4.6rem] shrink-0 max-sm:hidden">
      <p className="kicker leading-tight">
        Pump head <FigureView figure={pumpHeadFigure(outcome)} inline said digits={2} />
      </p>
      <Column outcome={outcome} items={items} height={height} compact />
      <ul className="text-[0.76rem] leading-tight" aria-label="What takes most of it">
        {[...items]
          .sort((a, b) => b.share - a.share)
          .slice(0, 3)
          .map((l) => (
            <li key={l.id} className="mt-1">
              {l.label.toLowerCase()} <span data-plain>{showPercent(l.share)}</span>
            </li>
          ))}
      </ul>
    </div>
  )
}

interface ColumnProps {
  readonly outcome: Outcome
  readonly items: readonly BudgetItem[]
  readonly height: number
  readonly compact?: boolean
}

const Column = ({ outcome, items, height, compact }: ColumnProps) => (
  <BudgetColumn
    lines={items}
    head={outcome.pumpHead}
    top={14}
    bottom={8}
    height={height}
    axisMax={outcome.pumpHead}
    untitled
    {...(compact && { compact })}
  />
)
