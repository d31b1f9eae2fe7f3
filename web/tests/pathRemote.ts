import { pathWork } from '../src/workers/pathWork'

/** The path's worker without a thread: the same functions, answering later as it does. */
export function start() {
  const remote = Object.fromEntries(
    Object.entries(pathWork()).map(([name, work]) => [
      name,
      async (...args: unknown[]) => (work as (...a: unknown[]) => unknown)(...args),
    ]),
  )
  return { terminate: () => undefined, remote }
}
