import { dirtCase, feedDoubt } from '@ypsometer/core/clogging/tank'
import { dueMiddle } from '@ypsometer/core/clogging/study'
import type { ClogCase } from '@ypsometer/core/clogging/run'
import { CoreError } from '@ypsometer/core/errors/errors'
import { assess, type Assessment, type JudgedBy } from '@ypsometer/core/judging/assess'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import { pathBase } from '@ypsometer/core/path/fromModel'
import type { Medium } from './fills'
import type { Dossier } from './dossier'
import { modelRecord, pathRecord, usualHookup } from './records'

/** Days a forecast runs for what is due: a year. */
export const FORECAST_DAYS = 365

/**
 * Case of a forecast of a model with one of its fills on a tank; null where its path cannot be worked out yet.
 */
export function clogCase(
  d: Dossier,
  media: readonly Medium[],
  a: Assessment,
  on: { readonly tank: TankRecord; readonly fillId: string },
): ClogCase | null {
  const fill = d.fills.find((f) => f.id === on.fillId)
  if (!fill) return null
  try {
    const record = pathRecord(d, media, a, usualHookup(d))
    const base = record && pathBase(record, fill.id)
    return base?.kind === 'ready'
      ? dirtCase(base.base, { fill, tank: on.tank, days: FORECAST_DAYS, sponge: false })
      : null
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}

/** Question about a filter that is still to come: how long one of its fills will run on a tank. */
export interface DueQuestion {
  readonly dossier: Dossier
  readonly fillId: string
  readonly media: readonly Medium[]
  readonly by: JudgedBy
  readonly tank: TankRecord
  /** Share of the first flow at which it is called due. */
  readonly dueAt: number
}

/** Days until it is due, nothing having been seen of it yet; null where it cannot be forecast, or not within a year. */
export function daysUntilDue({ dossier, fillId, media, by, tank, dueAt }: DueQuestion): number | null {
  try {
    const a = assess(modelRecord(dossier, media), by)
    const c = clogCase(dossier, media, a, { tank, fillId })
    return c && dueMiddle(c, feedDoubt(tank), [], dueAt)
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}
