import type { Remote } from 'comlink'
import type { LivingWork } from './living.worker'
import { workerOf, type KeptWorker } from './workerOf'

let worker: KeptWorker<LivingWork> | null = null
/** The worker that tells stories of a tank and draws the chances of a verdict, started when it is first asked. */
export const livingRemote = (): Remote<LivingWork> =>
  (worker ??= workerOf<LivingWork>(
    () => new Worker(new URL('./living.worker.ts', import.meta.url), { type: 'module' }),
  )).remote
