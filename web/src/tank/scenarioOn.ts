import type { Dossier } from '@ypsometer/contract'
import type { fittingOf } from '@ypsometer/contract/candidate'
import type { Scenario } from '@ypsometer/core/biology/inTime'
import type { JudgedFill } from '@ypsometer/core/judging/fills'
import type { TankBalance } from '@ypsometer/core/judging/balanceWords'
import { FILTERS } from '@ypsometer/core/kinds/filters'
import { SCENARIO_KINDS, scenarioOf, USUAL_ASKS } from '@ypsometer/core/judging/scenarios'

/** Scenario of a tank with a fill on it, first of all if nothing else is asked; null where nothing can be told. */
export const scenarioOn = (
  { keeping }: TankBalance,
  { films }: JudgedFill,
  kind = SCENARIO_KINDS[0] as (typeof SCENARIO_KINDS)[number],
  asks = USUAL_ASKS,
  body: number | null = null,
): Scenario | null => (films && keeping.feed > 0 ? scenarioOf(kind, keeping, films, asks, body) : null)

/** Water (m³) a body shuts in when it stops; Infinity where its films lie open, null where nobody measured it. */
export const waterShutIn = (
  { model }: Pick<Dossier, 'model'>,
  fitting: ReturnType<typeof fittingOf>,
): number | null => (FILTERS[model.kind].circuit === 'closed' ? (fitting?.water?.value ?? null) : Infinity)
