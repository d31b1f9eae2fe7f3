import type { Tank } from '@ypsometer/contract'
import { tankRecord } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import type { TankRecord } from '@ypsometer/core/tanks/tankRecord'
import type { StockClass } from '@ypsometer/core/tanks/stock'

/** A tank as judging reads it, or the sentence that says what is in the way. */
export function readTank(
  tank: Tank,
  classes: readonly StockClass[],
): { readonly record: TankRecord } | { readonly problem: string } {
  const found = classes.find((s) => s.id === tank.stockClassId)
  if (!found)
    return { problem: 'The stocking type of this tank was removed. Choose another on the tank’s page.' }
  try {
    return { record: tankRecord(tank, found) }
  } catch (error) {
    if (error instanceof CoreError) return { problem: `Its sizes do not fit together. ${error.message}` }
    throw error
  }
}
