import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { Piscina } from 'piscina'
import { busy, fieldProblem, problem } from '../http/problems'
import type { Calculation, Job, Outcoming, RequestOf } from './work'

const here = typeof __dirname === 'string' ? __dirname : dirname(fileURLToPath(import.meta.url))
const BUILT = join(here, 'calcWorker.mjs')

/** Longest time one calculation may take (ms), and how many may wait for a thread. */
const LONGEST = 10_000
const MOST_WAITING = 24

/** @throws a problem for the field that the core refuses. */
export function answerOf(outcome: Outcoming): object {
  if ('refused' in outcome) throw fieldProblem(outcome.refused.field, outcome.refused.message)
  return outcome.answer
}

/** Threads that calculate, so that nothing asked of them keeps the server from answering others. */
export class CalcPool {
  private readonly threads = new Piscina({
    ...(existsSync(BUILT)
      ? { filename: BUILT }
      : { filename: join(here, 'calcWorker.ts'), execArgv: ['--import', 'tsx'] }),
    minThreads: 0,
    maxThreads: Math.max(1, availableParallelism() - 1),
    idleTimeout: 60_000,
  })

  /** @throws a problem: the field that the core refuses, 422 for what takes too long, 503 when too many wait. */
  async run<C extends Calculation>(name: C, body: RequestOf<C>, longest = LONGEST): Promise<object> {
    // The pool itself counts none of those that may be broken off.
    if (this.threads.queueSize >= MOST_WAITING) throw busy()
    const job: Job<C> = { name, body }
    const limit = AbortSignal.timeout(longest)
    let outcome: Outcoming
    try {
      outcome = (await this.threads.run(job, { signal: limit })) as Outcoming
    } catch (error) {
      if (limit.aborted)
        throw problem(422, 'too-long', `This would take longer than ${longest / 1000} s`, {
          errors: [{ field: 'body', message: 'fewer elements, layers or points' }],
        })
      throw error
    }
    return answerOf(outcome)
  }

  close(): Promise<void> {
    return this.threads.destroy()
  }
}
