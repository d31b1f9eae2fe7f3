import { wrap, type Remote } from 'comlink'
import type { PathWork } from './pathWork'

/** A worker for the path, and its functions as promises. */
export const start = (): { readonly worker: { terminate(): void }; readonly remote: Remote<PathWork> } => {
  const worker = new Worker(new URL('./path.worker.ts', import.meta.url), { type: 'module' })
  return { worker, remote: wrap<PathWork>(worker) }
}
