import { tankBalance, type TankBalance } from '../judging'
import type { TankRecord } from '../tanks'
import type { Figure } from '../figures'
import { outletOf, type Outcome } from '../path'
import { filmsOn, type ForecastReport } from './report'

/**
 * The balance of a tank with a filter as dirty as it is on a day: films without the surface that dirt covers, the flow
 * of that day. Null where no films are known.
 * @throws OutOfRange naming a field of the tank.
 */
export function balanceOn(
  tank: TankRecord,
  o: Outcome,
  run: ForecastReport,
  day: number,
): TankBalance | null {
  const films = filmsOn(o, run, day)
  const flow: Figure = {
    id: `flow-on-${day}`,
    label: `Flow after ${day} days`,
    value: films.flow,
    dimension: 'flow',
    provenance: 'computed',
  }
  return tankBalance(tank, { films, flow, outlet: outletOf(o.case.kind, o.case.hookup) })
}

/** Lines of that balance by which a water test is read: ammonia, nitrite, nitrate. */
export function testedLines(
  b: TankBalance | null,
): Readonly<Partial<Record<'ammonia' | 'nitrite' | 'nitrate', Figure>>> {
  const of = (what: 'ammonia' | 'nitrite' | 'nitrate') => {
    const figure = b?.lines.find((l) => l.figure.id === `tank-${what}`)?.figure
    return figure ? { [what]: figure } : {}
  }
  return { ...of('ammonia'), ...of('nitrite'), ...of('nitrate') }
}
