import { PersonName } from '@ypsometer/contract'
import { and, eq, isNull, sql } from 'drizzle-orm'
import { connect, type Db } from '../db/client'
import { migrate } from '../db/migrate'
import { applied, pendingMigrations } from '../db/migrationsIn'
import { account } from '../db/schema'
import { addAccount, alone, makePass, PASS_HOURS, people } from './accounts'
import { serverEnvironment } from './environment'

const say = (text: string): void => void process.stdout.write(`${text}\n`)
const USAGE = `npm run people -- list               who is here
npm run people -- owner "Their name"  a new owner, or one who becomes it, and a link to come in by
npm run people -- link "Their name"   a one-time link to choose a new password by`

/** A one-time link for the person of a name; `asOwner` makes them an owner, and makes them if need be. */
async function linkFor(db: Db, name: string, asOwner: boolean): Promise<string> {
  return db.transaction(async (tx) => {
    await alone(tx)
    const [found] = await tx
      .select()
      .from(account)
      .where(and(sql`lower(${account.name}) = lower(${name})`, isNull(account.removedAt)))
    if (!found && !asOwner) throw new Error(`No person called “${name}”. List them: npm run people -- list`)
    if (found && asOwner) await tx.update(account).set({ role: 'owner' }).where(eq(account.id, found.id))
    const id = found?.id ?? (await addAccount(tx, { name, role: 'owner' }))
    return (await makePass(tx, id, found?.passwordHash ? 'recovery' : 'invitation')).secret
  })
}

/** `list`, `owner NAME`, `link NAME`: what `npm run people` asks on the machine itself. */
async function main(): Promise<void> {
  const [what = '', given = ''] = process.argv.slice(2)
  const { address } = serverEnvironment(process.env)
  const url = process.env.DATABASE_URL
  if (!url) throw new Error('DATABASE_URL is not set; `npm run people` sets it.')
  if (!['list', 'owner', 'link'].includes(what)) throw new Error(USAGE)
  const read = PersonName.safeParse(given)
  if (what !== 'list' && !read.success) throw new Error(`Say who, as in:\n${USAGE}`)
  const { db, pool } = connect(url)
  try {
    if (!(await applied(pool)).length) await migrate(db)
    if (await pendingMigrations(pool))
      throw new Error(
        'The record is of an older version: start Ypsometer once, so that it is brought up to date.',
      )
    if (what === 'list')
      for (const p of await people(db))
        say(`${p.name} (${p.role})${p.joined ? '' : ', has not come in yet'}${p.seenAt ? `, last here ${p.seenAt.slice(0, 10)}` : ''}`) // prettier-ignore
    else {
      const secret = await linkFor(db, read.data ?? '', what === 'owner')
      say(`${address ?? `http://127.0.0.1:${process.env.PORT || 4680}`}/join#${secret}`)
      say(
        `Holds once, and for ${PASS_HOURS} hours. Whoever opens it chooses the password of “${read.data ?? ''}”.`,
      )
    }
  } finally {
    await pool.end()
  }
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
