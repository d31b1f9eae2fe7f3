import { createHash, randomBytes } from 'node:crypto'
import { spawn } from 'node:child_process'
import { createReadStream, createWriteStream, existsSync, readdirSync } from 'node:fs'
import { chmod, mkdir, mkdtemp, readFile, rename, rm, stat, writeFile } from 'node:fs/promises'
import { dirname, join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import pg from 'pg'
import { z } from 'zod'
import { connect } from '../db/client'
import { applied, knownMigrations } from '../db/migrationsIn'

/**
 * Content of a backup: a tar of `manifest.json` and `record.dump`, which is PostgreSQL's own
 * custom format and can be read without this program.
 */
export const Manifest = z.object({
  format: z.literal('ypsometer-backup'),
  version: z.literal(1),
  made: z.iso.datetime(),
  /** Migrations that were in, each by its hash. */
  migrations: z.array(z.string()),
  /** Rows of each table at that moment. */
  tables: z.record(z.string(), z.int()),
  bytes: z.int(),
  sha256: z.string(),
})
export type Manifest = z.infer<typeof Manifest>

/** A backup that cannot be used, or a record that may not be written over: a sentence for the person. */
export class BackupRefused extends Error {}

/** A tool of PostgreSQL, the newest that Debian has installed. */
function tool(name: string): string {
  const base = '/usr/lib/postgresql'
  const versions = existsSync(base) ? readdirSync(base) : []
  const found = versions
    .sort((a, b) => Number(b) - Number(a))
    .map((v) => join(base, v, 'bin', name))
    .find((path) => existsSync(path))
  return found ?? name
}

/** Where a database is, as PostgreSQL's tools take it: the password goes by the environment, not the command line. */
function addressOf(url: string): { readonly args: readonly string[]; readonly env: NodeJS.ProcessEnv } {
  const { username, password, hostname, port, pathname } = new URL(url)
  return {
    args: ['-h', hostname, '-p', port || '5432', '-U', decodeURIComponent(username), '-d', pathname.slice(1)],
    env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
  }
}

/** Runs a program to its end. @throws BackupRefused with the last thing it said. */
async function run(program: string, args: readonly string[], env = process.env, out?: string): Promise<void> {
  const child = spawn(program, args, { env, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  child.stderr.on('data', (d: Buffer) => (said = (said + String(d)).slice(-4000)))
  const ended = new Promise<number | null>((done, fail) => child.on('close', done).on('error', fail))
  const written = out ? pipeline(child.stdout, createWriteStream(out)) : void child.stdout.resume()
  const [code] = await Promise.all([ended, written])
  if (code !== 0) throw new BackupRefused(said.trim().split('\n').at(-1) || `${program} ended with ${code}`)
}

async function hashOf(file: string): Promise<string> {
  const hash = createHash('sha256')
  await pipeline(createReadStream(file), hash)
  return hash.digest('hex')
}

const quoted = (name: string): string => `"${name.replace(/"/g, '""')}"`

/** Rows of each table of the record, as a connection sees them. */
async function countTables(client: pg.Client): Promise<Record<string, number>> {
  const { rows } = await client.query<{ name: string }>(
    `select tablename as name from pg_tables where schemaname = 'public' order by tablename`,
  )
  const counts: Record<string, number> = {}
  for (const { name } of rows) {
    const { rows: one } = await client.query<{ n: number }>(
      `select count(*)::int as n from public.${quoted(name)}`,
    )
    counts[name] = one[0]?.n ?? 0
  }
  return counts
}

async function connected<T>(url: string, work: (client: pg.Client) => Promise<T>): Promise<T> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

/** Whoever was turned out since the backup was made is not let in again by it: everyone signs in anew. */
async function endSessions(client: pg.Client): Promise<void> {
  for (const table of ['session', 'pass']) {
    // A backup of an older version has none.
    const { rows } = await client.query<{ there: string | null }>('select to_regclass($1)::text as there', [
      `public.${table}`,
    ])
    if (rows[0]?.there) await client.query(`delete from public.${quoted(table)}`)
  }
}

/** Now, as part of a file's name. */
export const stamp = (): string => new Date().toISOString().slice(0, 19).replace(/:/g, '')

async function migrationsIn(url: string): Promise<readonly string[]> {
  const { pool } = connect(url)
  try {
    return await applied(pool)
  } finally {
    await pool.end()
  }
}

/**
 * Writes the whole record, photos with it, to one file: as it was at one moment, while the server runs. The file is
 * there whole or not at all.
 * @throws BackupRefused with what kept it from being written.
 */
export async function makeBackup(url: string, file: string, now = new Date()): Promise<Manifest> {
  await mkdir(dirname(file), { recursive: true })
  const folder = await mkdtemp(join(dirname(file), '.backup-'))
  try {
    const dump = join(folder, 'record.dump')
    const { args, env } = addressOf(url)
    const migrations = await migrationsIn(url)
    // One snapshot for the counts and for what is written.
    const tables = await connected(url, async (client) => {
      await client.query('begin isolation level repeatable read read only')
      const { rows } = await client.query<{ id: string }>('select pg_export_snapshot() as id')
      const counts = await countTables(client)
      const how = ['-Fc', '-Z', '6', '--no-owner', '--no-privileges', '-n', 'public', '-n', 'drizzle']
      await run(tool('pg_dump'), [...args, ...how, `--snapshot=${rows[0]?.id}`, '-f', dump], env)
      return counts
    })
    const { size: bytes } = await stat(dump)
    const manifest: Manifest = {
      format: 'ypsometer-backup',
      version: 1,
      made: now.toISOString(),
      migrations: [...migrations],
      tables,
      bytes,
      sha256: await hashOf(dump),
    }
    await writeFile(join(folder, 'manifest.json'), `${JSON.stringify(manifest, null, 2)}\n`)
    await run('tar', ['-cf', join(folder, 'whole.tar'), '-C', folder, 'manifest.json', 'record.dump'])
    await chmod(join(folder, 'whole.tar'), 0o600)
    await rename(join(folder, 'whole.tar'), file)
    return manifest
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}

/** Unpacks a backup into a folder and looks at all of it. @throws BackupRefused: not ours, cut, altered or newer. */
async function unpack(file: string, folder: string): Promise<{ manifest: Manifest; dump: string }> {
  if (!existsSync(file)) throw new BackupRefused(`There is no file ${file}.`)
  const dump = join(folder, 'record.dump')
  try {
    await run('tar', ['-xf', file, '-C', folder, 'manifest.json', 'record.dump'])
  } catch {
    throw new BackupRefused(`${file} is not a backup of Ypsometer, or it was cut short.`)
  }
  const read = Manifest.safeParse(
    await readFile(join(folder, 'manifest.json'), 'utf8')
      .then(JSON.parse)
      .catch(() => null),
  )
  if (!read.success)
    throw new BackupRefused(
      `${file} is not a backup that this version can read (its manifest says something else).`,
    )
  const manifest = read.data
  if ((await stat(dump)).size !== manifest.bytes || (await hashOf(dump)) !== manifest.sha256)
    throw new BackupRefused(`${file} was altered or cut short: its contents do not match their checksum.`)
  const ours = await knownMigrations()
  if (!manifest.migrations.every((hash, i) => ours[i] === hash))
    throw new BackupRefused(`${file} was made by a newer version of Ypsometer: update the program first.`)
  return { manifest, dump }
}

/** Does the database hold anything of a person's? */
const holdsModels = (url: string): Promise<boolean> =>
  connected(url, async (client) => {
    const { rows } = await client.query<{ there: boolean }>(
      `select to_regclass('public.model') is not null as there`,
    )
    if (!rows[0]?.there) return false
    return ((await client.query('select 1 from model limit 1')).rowCount ?? 0) > 0
  })

/**
 * The statements of a dump, held to statements: what they say to psql itself, such as to run a program, is refused. An
 * older psql does not know the word, and refuses the whole.
 */
function restricted(statements: string): string {
  if (/^\\restrict \w+$/m.test(statements.slice(0, 2000))) return statements
  const key = randomBytes(24).toString('hex')
  return `\\restrict ${key}\n${statements}\n\\unrestrict ${key}\n`
}

/**
 * Has work done by a role that may do no more than write this record: whatever a file says, it runs no program and
 * reads no file. Where the address is an ordinary role's already, by that.
 */
async function withLoader(url: string, work: (loader: string) => Promise<void>): Promise<void> {
  const isSuper = await connected(url, async (client) => {
    const { rows } = await client.query<{ yes: boolean }>(
      'select rolsuper as yes from pg_roles where rolname = current_user',
    )
    return rows[0]?.yes === true
  })
  if (!isSuper) return work(url)
  const name = `ypsometer_restore_${randomBytes(6).toString('hex')}`
  const password = randomBytes(24).toString('hex')
  const loader = new URL(url)
  loader.username = name
  loader.password = password
  await connected(url, async (client) => {
    const { rows } = await client.query<{ name: string }>('select current_database() as name')
    await client.query(`create role ${name} login password '${password}'`)
    await client.query(`grant create on database ${quoted(rows[0]?.name ?? '')} to ${name}`)
    for (const schema of ['public', 'drizzle'])
      await client.query(
        `do $$ begin if to_regnamespace('${schema}') is not null then alter schema ${schema} owner to ${name}; end if; end $$`,
      )
  })
  try {
    await work(loader.href)
  } finally {
    await connected(url, async (client) => {
      await client.query(`reassign owned by ${name} to current_user`)
      await client.query(`drop owned by ${name}`)
      await client.query(`drop role ${name}`)
    })
  }
}

/**
 * Puts a backup in the place of the record: all of it in one transaction, or nothing. A record that holds models is
 * written over only when `over` names a file, into which it is backed up first. An older backup is carried over to
 * this version's schema when the server starts.
 * @throws BackupRefused, with nothing touched.
 */
export async function restoreBackup(url: string, file: string, over?: string): Promise<Manifest> {
  const folder = await mkdtemp(join(dirname(file), '.restore-'))
  try {
    const { manifest, dump } = await unpack(file, folder)
    if (await holdsModels(url)) {
      if (!over)
        throw new BackupRefused(
          'The record holds models: restore with --over, which backs it up first, or into an empty one.',
        )
      await makeBackup(url, over)
    }
    const statements = join(folder, 'record.sql')
    await run(tool('pg_restore'), ['--no-owner', '--no-privileges', '-f', statements, dump])
    // The dump makes its schemas itself, the public one apart.
    const text = await readFile(statements, 'utf8')
    const clear = `drop schema if exists drizzle cascade; drop schema if exists public cascade;${/^CREATE SCHEMA public;/m.test(text) ? '' : ' create schema public;'}\n`
    await writeFile(join(folder, 'clear.sql'), clear)
    await writeFile(statements, restricted(text))
    await withLoader(url, async (loader) => {
      const { args, env } = addressOf(loader)
      const files = ['-f', join(folder, 'clear.sql'), '-f', statements]
      await run(tool('psql'), [...args, '-X', '-q', '-1', '-v', 'ON_ERROR_STOP=1', ...files], env)
    })
    const now = await connected(url, countTables)
    for (const [name, n] of Object.entries(manifest.tables))
      if (now[name] !== n)
        throw new BackupRefused(`${name} has ${now[name] ?? 'no'} rows after the restore, not ${n}.`)
    await connected(url, endSessions)
    return manifest
  } finally {
    await rm(folder, { recursive: true, force: true })
  }
}
