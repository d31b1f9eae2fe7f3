import { boreArea } from '../hydraulics'
import { STANDARD_GRAVITY } from '../water'
import type { SecondFilter } from './case'
import type { Outcome } from './outcome'
import { BODY_BORE } from './topology'

/**
 * A filter as it would stand on another’s loop: its pump, and its body and fill in velocity heads of a 16 mm bore,
 * K = h · 2g A²/Q² at the flow it has on its own hoses. What its media lose is partly linear in flow, so K holds near
 * there.
 */
export function asSecond(o: Outcome, label: string): Omit<SecondFilter, 'arrangement' | 'running'> {
  const head = o.budget.reduce((sum, l) => sum + (['rest', 'layer'].includes(l.part.what) ? l.head : 0), 0)
  return {
    label,
    ...o.case.drive.pump,
    lossCoefficient: o.flow > 0 ? (head * 2 * STANDARD_GRAVITY * boreArea(BODY_BORE) ** 2) / o.flow ** 2 : 0,
  }
}
