import type { Tank } from '@ypsometer/contract'
import { tankRecord } from '@ypsometer/contract/records'
import { quickTank } from '@ypsometer/core/advice/quickTank'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import type { StockClass } from '@ypsometer/core/tanks/stock'
import { useMemo } from 'react'
import { useSearchParams } from 'react-router'
import { useTanks } from '../api/lists'
import { useDossierContext } from '../frame/dossier'

/** Water of a tank that nobody has named, on a filter of which nothing is known (m³). */
const SOME_TANK = 0.2

/** The tank whose dirt a filter catches. */
export interface ClogTank {
  readonly tanks: readonly Tank[]
  /** The one in the address, else one that the model runs on. */
  readonly tank: Tank | undefined
  /** As judging reads it; where none is chosen, one of the litres the filter carries. */
  readonly record: TankRecord | null
  /** The day the model was put on it. */
  readonly came: string | null
  /** Which tanks there are is still on its way. */
  readonly pending: boolean
}

export function useClogTank(usual: StockClass | undefined): ClogTank {
  const { dossier, assessment, stock } = useDossierContext()
  const { tanks = [], isPending: pending } = useTanks()
  const [params] = useSearchParams()
  const asked = params.get('tank')
  const here = (t: Tank): boolean => t.filters.some((f) => f.modelId === dossier.model.id)
  const tank = asked === 'none' ? undefined : (tanks.find((t) => t.id === asked) ?? tanks.find(here))
  const carried = assessment?.verdict.supported?.value ?? SOME_TANK
  const record = useMemo((): TankRecord | null => {
    const own = stock.find((s) => s.id === tank?.stockClassId) ?? usual
    if (!own || pending) return null
    try {
      return tank ? tankRecord(tank, own) : quickTank(Math.min(20, Math.max(0.01, carried)), own)
    } catch (error) {
      if (error instanceof CoreError) return null
      throw error
    }
  }, [tank, stock, usual, carried, pending])
  const came = tank?.filters.find((f) => f.modelId === dossier.model.id)?.since ?? null
  return { tanks, tank, record, came, pending }
}
