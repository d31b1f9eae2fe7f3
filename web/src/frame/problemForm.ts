import type { FieldValues, Path, UseFormSetError } from 'react-hook-form'
import { ApiProblem } from '../api/client'
import { errorMessage } from '../api/errorMessage'

/**
 * Puts what the server says against a form where it belongs: beside the field it names, else over the whole form. Says
 * whether the work went well.
 */
export async function against<F extends FieldValues>(
  fields: readonly Path<F>[],
  setError: UseFormSetError<F>,
  work: () => Promise<unknown>,
): Promise<boolean> {
  try {
    await work()
    return true
  } catch (error) {
    const named = error instanceof ApiProblem ? error.problem.errors?.[0] : undefined
    const field = fields.find((f) => f === named?.field)
    if (field && named) setError(field, { message: named.message }, { shouldFocus: true })
    else
      setError('root', {
        message:
          error instanceof ApiProblem
            ? [error.problem.title, error.problem.detail].filter(Boolean).join('. ')
            : errorMessage(error),
      })
    return false
  }
}
