import { sql } from 'drizzle-orm'
import type { Db, Tx } from './client'

/** Who writes in a transaction, as the history and every page are told. */
interface Writer {
  /** The page it comes from, so that it is not told of its own writes. */
  readonly page: string
  readonly id: string
  readonly name: string
}

/** Says in a transaction who writes; without it the database takes no row. */
export const sign = (tx: Pick<Tx, 'execute'>, { page, id, name }: Writer): Promise<unknown> =>
  tx.execute(
    sql`select set_config('ypsometer.signed', 'yes', true), set_config('ypsometer.by', ${page}, true),
      set_config('ypsometer.who', ${id}, true), set_config('ypsometer.who_name', ${name}, true)`,
  )

/** A transaction in which the program itself writes, and nobody. */
export const asProgram = <T>(db: Db, work: (tx: Tx) => Promise<T>): Promise<T> =>
  db.transaction(async (tx) => {
    await sign(tx, { page: '', id: '', name: '' })
    return work(tx)
  })
