import type { Remote } from 'comlink'
import type { AssessWork } from './assess.worker'
import { workerOf, type KeptWorker } from './workerOf'

let worker: KeptWorker<AssessWork> | null = null
/** The worker that works dossiers through; the first to ask starts it, so that it is read while the data comes. */
export const assessRemote = (): Remote<AssessWork> =>
  (worker ??= workerOf<AssessWork>(
    () => new Worker(new URL('./assess.worker.ts', import.meta.url), { type: 'module' }),
  )).remote
