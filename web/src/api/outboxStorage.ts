import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { noRoom } from './room'
import type { Entry } from './outboxPolicy'

interface Schema extends DBSchema {
  outbox: { key: string; value: Entry }
}

/** Storage that has not answered in so long (ms) is taken for one that refuses. */
const PATIENCE_MS = 1500
/**
 * Storage of an outbox on this device, under a name: shared by all windows, told to them when it changes.
 * `entries` are those of this page, `changed` hears when the device takes or refuses one.
 */
export function makeStorage(
  name: string,
  page: { readonly entries: () => readonly Entry[]; readonly changed: () => void },
) {
  let channel: BroadcastChannel | null = null
  let opened: Promise<IDBPDatabase<Schema> | null> | undefined
  /** Keys of what this page has in its memory alone: being stored, or refused by the device. */
  const inMemory = new Set<string>()
  /** Those of them that the device has refused. */
  const refused = new Set<string>()
  const database = (): Promise<IDBPDatabase<Schema> | null> =>
    (opened ??= (async () =>
      openDB<Schema>(name, 1, {
        upgrade: (db) => void db.createObjectStore('outbox', { keyPath: 'key' }),
      }))().catch(() => null))
  function settled(key: string): void {
    inMemory.delete(key)
    if (refused.delete(key)) page.changed()
  }
  /** Puts it on this device; what the device refuses stays in this page's memory, and is said. Never fails. */
  async function store(entry: Entry): Promise<void> {
    inMemory.add(entry.key)
    const put = async (): Promise<boolean> => {
      const db = await database()
      if (!db) return false
      await db.put('outbox', entry)
      return true
    }
    const kept = put().catch(() => false)
    const answered = await Promise.race([
      kept,
      new Promise<null>((r) => setTimeout(() => r(null), PATIENCE_MS)),
    ])
    if (answered) {
      settled(entry.key)
      noRoom.set(false)
      // There is room again: what was refused is kept as well.
      for (const e of page.entries()) if (refused.has(e.key)) void store(e)
    } else {
      // Storage that answers late has kept it after all.
      if (answered === null) void kept.then((late) => late && settled(entry.key))
      if (page.entries().some((e) => e.key === entry.key)) {
        refused.add(entry.key)
        noRoom.set(true)
        page.changed()
      }
    }
    channel?.postMessage('changed')
  }
  return {
    store,
    async forget(entry: Entry): Promise<void> {
      settled(entry.key)
      // What cannot be let go of is sent once more under its key, which does nothing.
      await (await database())?.delete('outbox', entry.key).catch(() => undefined)
      channel?.postMessage('changed')
    },
    /** All that this device holds, from this page or another, and what this page has in its memory alone. */
    async read(): Promise<readonly Entry[] | null> {
      const all = await (await database())?.getAll('outbox').catch(() => undefined)
      if (!all) return null
      const there = new Set(all.map((e) => e.key))
      const own = page.entries().filter((e) => inMemory.has(e.key) && !there.has(e.key))
      return [...all, ...own].sort((a, b) => a.order - b.order)
    },
    isRefused: (key: string): boolean => refused.has(key),
    /** Hears when another window has changed what is kept. */
    watch(changed: () => void): void {
      channel = 'BroadcastChannel' in window ? new BroadcastChannel(`${name}.outbox`) : null
      channel?.addEventListener('message', changed)
    },
  }
}
