import { GENERIC_MEDIA } from '@ypsometer/core/media/library'
import { HOUSE_RULES } from '@ypsometer/core/path/audit'
import { STOCK_CLASSES } from '@ypsometer/core/tanks/stock'
import { eq, getTableColumns, sql } from 'drizzle-orm'
import { migrate as runMigrations } from 'drizzle-orm/node-postgres/migrator'
import type { Db, Tx } from './client'
import { applied, knownMigrations, MIGRATIONS } from './migrationsIn'
import * as schema from './schema'
import { asProgram } from './signing'
import { hasTriggers, installTriggers } from './triggers'

/** Columns as the row that could not be inserted has them, so that a corrected constant reaches rows made long ago. */
const excluded = (table: typeof schema.stockClass) =>
  Object.fromEntries(
    Object.entries(getTableColumns(table)).map(([k, c]) => [k, sql.raw(`excluded.${c.name}`)]),
  )

/** Brings the database to this version's schema and fills the reference rows that every tank, fill and audit needs. */
export async function migrate(db: Db): Promise<void> {
  await refuseForeign(db)
  // Who may not change the schema finds it as it should be.
  if (!(await isReady(db))) {
    await runMigrations(db, { migrationsFolder: MIGRATIONS })
    await installTriggers(db)
  }
  await asProgram(db, fillLibrary)
}

/** Lays down what every bench has. */
async function fillLibrary(tx: Tx): Promise<void> {
  await tx
    .insert(schema.stockClass)
    .values(STOCK_CLASSES.map((c, position) => ({ ...c, position })))
    .onConflictDoUpdate({
      target: schema.stockClass.id,
      set: excluded(schema.stockClass),
      // What the house has made of it stays.
      setWhere: eq(schema.stockClass.version, 1),
    })
  await tx
    .insert(schema.medium)
    .values(GENERIC_MEDIA.map((m) => ({ ...m, generic: true })))
    .onConflictDoNothing()
  await tx
    .insert(schema.houseRule)
    .values(HOUSE_RULES.map((r, i) => ({ ...r, shipped: true, chosen: i === 0 })))
    .onConflictDoNothing()
}

/** A database that has been through migrations this version does not know must not be written by it. */
export async function refuseForeign(db: Db): Promise<void> {
  const ours = await knownMigrations()
  const theirs = await applied(db.$client)
  if (theirs.every((hash, i) => ours[i] === hash)) return
  throw new Error(
    theirs.length > ours.length && ours.every((hash, i) => theirs[i] === hash)
      ? 'The database was written by a newer version of Ypsometer: update the program, or set YPSOMETER_DATA to another folder.'
      : 'The database was made before the first release of Ypsometer and cannot be upgraded. Set YPSOMETER_DATA to another folder.',
  )
}

/** True when the database answers and every migration this version knows has been applied. */
export async function isReady(db: Db): Promise<boolean> {
  try {
    const [ours, theirs] = await Promise.all([knownMigrations(), applied(db.$client)])
    return ours.every((hash, i) => theirs[i] === hash) && (await hasTriggers(db))
  } catch {
    return false
  }
}
