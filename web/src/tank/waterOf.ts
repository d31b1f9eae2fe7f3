import type { Tank } from '@ypsometer/contract'
import { tankWater } from '@ypsometer/contract/records'
import { CoreError } from '@ypsometer/core/errors/errors'
import { tankFigures, type TankFigures } from '@ypsometer/core/tanks/figures'

/** The water of a tank with its working, or the sentence that says which size does not fit. */
export function waterOf(
  t: Tank,
):
  | { readonly volume: ReturnType<typeof tankWater>; readonly figures: TankFigures }
  | { readonly problem: string; readonly field: string } {
  try {
    const volume = tankWater(t)
    return { volume, figures: tankFigures(volume, t.height, t) }
  } catch (error) {
    if (error instanceof CoreError) return { problem: error.message, field: error.field }
    throw error
  }
}
