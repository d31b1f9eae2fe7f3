import { dirtyTank, type ClogCase } from '@ypsometer/core/clogging'
import { CoreError } from '@ypsometer/core/errors'
import type { Assessment, TankRecord } from '@ypsometer/core/judging'
import { pathBase } from '@ypsometer/core/path'
import type { Medium } from './fills'
import type { Dossier } from './models'
import { pathRecord, usualHookup } from './records'

/** Days a forecast runs for what is due: a year. */
export const FORECAST_DAYS = 365

/**
 * What a forecast of a model with one of its fills on a tank is made of; null where its path cannot be worked out yet.
 */
export function clogCase(
  d: Dossier,
  media: readonly Medium[],
  a: Assessment,
  on: { readonly tank: TankRecord; readonly fillId: string },
): Omit<ClogCase, 'intake'> | null {
  const fill = d.fills.find((f) => f.id === on.fillId)
  if (!fill) return null
  try {
    const record = pathRecord(d, media, a, usualHookup(d))
    const base = record && pathBase(record, fill.id)
    return base?.kind === 'ready'
      ? { path: { ...base.base, fill }, tank: dirtyTank(on.tank), days: FORECAST_DAYS }
      : null
  } catch (error) {
    if (error instanceof CoreError) return null
    throw error
  }
}
