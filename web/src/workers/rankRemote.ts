import { proxy, type Remote } from 'comlink'
import type { RankWork } from './rank.worker'
import { workerOf, type KeptWorker } from './workerOf'

let worker: KeptWorker<RankWork> | null = null
/** The worker that draws rankings, started when it is first asked. */
export const rankRemote = (): Remote<RankWork> =>
  (worker ??= workerOf<RankWork>(
    () => new Worker(new URL('./rank.worker.ts', import.meta.url), { type: 'module' }),
  )).remote
/** A function the worker may call back. */
export const calledBack = proxy
