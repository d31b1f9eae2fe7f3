import type { Dossier, Medium } from '@ypsometer/contract'
import { modelRecord, pathRecord } from '@ypsometer/contract/records'
import { assess } from '@ypsometer/core/judging/assess'
import { hasPump } from '@ypsometer/core/kinds/filters'
import { asSecond } from '@ypsometer/core/path/second'
import { outcomeOf } from '@ypsometer/core/path/outcome'
import { pathBase } from '@ypsometer/core/path/fromModel'
import type { SecondFilter } from '@ypsometer/core/path/case'
import { STOCK_CLASSES, type StockClass } from '@ypsometer/core/tanks/stock'

/** A filter on another’s loop, and the fill that was counted; null where not even its pump is known. */
export interface Taken {
  readonly second: Omit<SecondFilter, 'arrangement' | 'running'>
  /** Null: its inside or fill is not on record, and only its pump was taken. */
  readonly fill: string | null
}

/** A model from the shelf as a second filter, with what it ships with in it; read only when one is chosen. */
export function secondOf(dossier: Dossier, media: readonly Medium[]): Taken | null {
  const assessment = assess(modelRecord(dossier))
  const record = pathRecord(dossier, media, assessment, null)
  const base = record && pathBase(record)
  const fill = record?.fills.find((f) => f.basis === 'as-shipped') ?? record?.fills[0]
  const { name } = dossier.model
  if (base?.kind === 'ready' && fill && hasPump(base.base.kind)) {
    const outcome = outcomeOf({ ...base.base, fill }, STOCK_CLASSES[0] as StockClass, true)
    return { second: asSecond(outcome, name), fill: fill.name }
  }
  const pump = assessment.pump?.pump
  return pump ? { second: { label: name, ...pump, lossCoefficient: 0 }, fill: null } : null
}
