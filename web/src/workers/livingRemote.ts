import { wrap, type Remote } from 'comlink'
import type { LivingWork } from './living.worker'

let worker: Remote<LivingWork> | null = null
/** The worker that tells stories of a tank and draws the chances of a verdict, started when it is first asked. */
export const livingRemote = (): Remote<LivingWork> =>
  (worker ??= wrap<LivingWork>(
    new Worker(new URL('./living.worker.ts', import.meta.url), { type: 'module' }),
  ))
