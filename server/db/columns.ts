import { timestamp } from 'drizzle-orm/pg-core'

/** A moment, to the millisecond, as JavaScript has it. */
export const stamp = (name: string) => timestamp(name, { withTimezone: true, mode: 'date', precision: 3 })

/** Names as a list in SQL. */
export const quoted = (names: readonly string[]): string => `(${names.map((n) => `'${n}'`).join(', ')})`
