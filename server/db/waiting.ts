import type { Pool } from 'pg'

/** Longest that whoever asks may wait for a connection (s) before they are told to come again. */
const LONGEST = 2
/** Over so long (s) it is seen how fast connections come back. */
const LOOK = 1
/** Whatever was seen, so many a second come back at least: a pool that was idle says nothing. */
const LEAST = 150

/** Tells how long whoever asks a pool now would wait, by how fast its connections came back of late. */
export function waitingFor(pool: Pool): () => boolean {
  let back = 0
  let rate = LEAST
  let since = performance.now()
  pool.on('release', () => {
    back++
    const now = performance.now()
    if (now - since < LOOK * 1000) return
    rate = Math.max(LEAST, back / ((now - since) / 1000))
    back = 0
    since = now
  })
  return () => pool.waitingCount > rate * LONGEST
}
