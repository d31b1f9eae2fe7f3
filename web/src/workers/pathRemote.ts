import type { PathWork } from './pathWork'
import { workerOf, type KeptWorker } from './workerOf'

/** A worker for the path. */
export const start = (): KeptWorker<PathWork> =>
  workerOf(() => new Worker(new URL('./path.worker.ts', import.meta.url), { type: 'module' }))
