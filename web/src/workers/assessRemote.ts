import { wrap, type Remote } from 'comlink'
import type { AssessWork } from './assess.worker'

let worker: Remote<AssessWork> | null = null
/** The worker that works dossiers through; the first to ask starts it, so that it is read while the data comes. */
export const assessRemote = (): Remote<AssessWork> =>
  (worker ??= wrap<AssessWork>(
    new Worker(new URL('./assess.worker.ts', import.meta.url), { type: 'module' }),
  ))
