import { setTimeout as pause } from 'node:timers/promises'
import type { Db } from '../db/client'
import type { ModelRow } from './queries'
import { shelfBasis, workOut } from './shelfEntries'

/** A model whose row stands no longer, as it was when that was seen. */
export interface Wanted {
  readonly row: ModelRow
  readonly revision: number
}

/** Models worked out in one go, and most that wait. */
const IN_ONE_GO = 5
const MOST_WANTED = 500
/** How long a reader waits (ms): for models that were written to, and for what moved under all of them. */
const PATIENCE = { written: 2000, moved: 250 } as const

/** Rows that are being made new, for all who read them; one after another, so that others are answered meanwhile. */
class Refresh {
  readonly #wanted = new Map<string, Wanted>()
  #running: Promise<void> | null = null

  constructor(private readonly db: Db) {}

  /** Resolves once nothing is wanted any more. */
  want(models: readonly Wanted[]): Promise<void> {
    for (const m of models) if (this.#wanted.size < MOST_WANTED) this.#wanted.set(m.row.id, m)
    return (this.#running ??= this.#run().finally(() => {
      this.#running = null
    }))
  }
  get busy(): boolean {
    return this.#running !== null
  }

  async #run(): Promise<void> {
    while (this.#wanted.size) {
      const some = [...this.#wanted.values()].slice(0, IN_ONE_GO)
      for (const m of some) this.#wanted.delete(m.row.id)
      const from = performance.now()
      await workOut(this.db, some, await shelfBasis(this.db))
      // Half of the time is left to whoever reads and writes meanwhile.
      if (this.#wanted.size) await pause(performance.now() - from)
    }
  }
}

const refreshes = new WeakMap<Db, Refresh>()

/**
 * Has rows made new, once for all readers, and waits a moment for it: a row or two are there at once, a whole shelf is
 * not waited for. Nobody waits behind what another wanted, unless there is `nothing` to show meanwhile.
 */
export async function makeNew(
  db: Db,
  models: readonly Wanted[],
  why: keyof typeof PATIENCE,
  nothing: boolean,
): Promise<void> {
  const own = refreshes.get(db) ?? new Refresh(db)
  refreshes.set(db, own)
  const { busy } = own
  const done = own.want(models)
  // What goes wrong is met again by whoever asks next; nobody else is told.
  done.catch(() => undefined)
  if (busy && !nothing) return
  await Promise.race([done, pause(PATIENCE[why])])
}
