import { ApiProblem, Unreachable } from './client'

/** The core's errors are called by their code, which also survives the way out of a worker. */
const isOfCore = (e: unknown): e is Error => e instanceof Error && !e.name.endsWith('Error')

/**
 * Message of an error to the person: the sentence of one that was meant for them. Any other is a fault of ours; it goes
 * to the console with its trace, and is never passed off as their mistake.
 */
export function errorMessage(error: unknown): string {
  if (error instanceof ApiProblem || error instanceof Unreachable || isOfCore(error)) return error.message
  // oxlint-disable-next-line no-console -- a fault of ours belongs where its trace can be read
  console.error(error)
  return 'Something failed on our side. What you typed is kept.'
}
