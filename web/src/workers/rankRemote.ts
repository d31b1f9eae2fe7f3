import { proxy, wrap, type Remote } from 'comlink'
import type { RankWork } from './rank.worker'

let worker: Remote<RankWork> | null = null
/** The worker that draws rankings, started when it is first asked. */
export const rankRemote = (): Remote<RankWork> =>
  (worker ??= wrap<RankWork>(new Worker(new URL('./rank.worker.ts', import.meta.url), { type: 'module' })))
/** A function the worker may call back. */
export const calledBack = proxy
