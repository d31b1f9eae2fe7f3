import { tankWater, type Tank } from '@ypsometer/contract'
import { CoreError } from '@ypsometer/core/errors'

/** The water of a tank, or the sentence that says which size does not fit. */
export function waterOf(
  t: Tank,
): { readonly volume: ReturnType<typeof tankWater> } | { readonly problem: string; readonly field: string } {
  try {
    return { volume: tankWater(t) }
  } catch (error) {
    if (error instanceof CoreError) return { problem: error.message, field: error.field }
    throw error
  }
}
