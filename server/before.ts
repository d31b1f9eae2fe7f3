import { join, resolve } from 'node:path'
import pg from 'pg'
import { pendingMigrations } from './db/migrationsIn'
import { serverEnvironment } from './people/environment'

/**
 * Checks of `npm start` before it starts anything, read in no time: `environment`, whether that of the way in holds;
 * `migrating FOLDER`, as the owner of the database: a copy of a record that is about to be brought up to date, that
 * done, and the record handed to the role that the app comes as.
 */
async function main(): Promise<void> {
  const [what, folder] = process.argv.slice(2)
  if (what === 'environment') return void serverEnvironment(process.env)
  const url = process.env.DATABASE_URL
  if (!url || !folder) throw new Error('Say which database, and a folder for the copy.')
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  const pending = await pendingMigrations(client).finally(() => client.end())
  const { connect } = await import('./db/client')
  const { migrate, refuseForeign } = await import('./db/migrate')
  const { db, pool } = connect(url, 2)
  try {
    // What cannot be taken is said before anything is copied or announced.
    await refuseForeign(db)
    if (pending) {
      const { makeBackup, stamp } = await import('./keep/backup')
      const before = join(resolve(folder), `ypsometer-before-update-${stamp()}Z.tar`)
      await makeBackup(url, before)
      process.stdout.write(`The record is about to be brought up to date; a copy of it is in ${before}.\n`)
    }
    await migrate(db)
    const { handOver } = await import('./db/owners')
    await handOver(db)
  } finally {
    await pool.end()
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
