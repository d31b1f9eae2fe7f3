// Locks that the kernel keeps for as long as a process lives, by Debian's flock(1): nothing is left behind by a kill,
// no number of a dead process is mistaken for a living one, and none of it needs a package that is not there yet.
import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { Plain } from './system.mjs'

/** Exit code of flock when another holds the lock. */
const TAKEN = 75

/**
 * Holds a folder for as long as this process lives; false when another holds it. The holder is a child that ends with
 * the pipe to this process, so no end of this process, however sudden, leaves the lock taken.
 * With `wait`, waits for the other.
 */
export async function holdFolder(folder, { wait = false } = {}) {
  const args = [...(wait ? [] : ['-n']), '-E', String(TAKEN), folder, 'sh', '-c', 'echo held; exec cat']
  const child = spawn('flock', args, { stdio: ['pipe', 'pipe', 'ignore'], detached: true })
  const outcome = await Promise.race([
    once(child.stdout, 'data').then(() => 'held'),
    once(child, 'exit').then(([code]) => (code === TAKEN ? 'taken' : 'failed')),
    once(child, 'error').then(() => 'failed'),
  ])
  if (outcome === 'failed')
    throw new Plain(`${folder} cannot be locked: flock (Debian: util-linux) is needed.`)
  child.unref()
  child.stdin.unref()
  child.stdout.unref()
  return outcome === 'held' ? { release: () => child.stdin.end() } : null
}
