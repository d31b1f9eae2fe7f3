import { Status } from '@ypsometer/contract'
import { eq } from 'drizzle-orm'
import type { FastifyInstance } from 'fastify'
import type { ZodTypeProvider } from 'fastify-type-provider-zod'
import type { Db } from '../db/client'
import { setting } from '../db/schema'

/** Name of the setting that tells of the last backup. */
export const BACKUP = 'backup'

/** Clocks of two machines differ by no more (ms). */
const AHEAD = 10 * 60_000

/** The last backup that was made, or null; one with a date ahead does not count. */
export async function lastBackup(db: Db): Promise<Status['backup']> {
  const [row] = await db.select({ value: setting.value }).from(setting).where(eq(setting.name, BACKUP))
  const read = Status.shape.backup.safeParse(row?.value)
  if (!read.success || !read.data) return null
  // A clock that ran ahead does not keep the next one from being made.
  return Date.parse(read.data.at) > Date.now() + AHEAD ? null : read.data
}

/** `GET /status`: how the record is kept. */
export function registerStatus(app: FastifyInstance, db: Db): void {
  app
    .withTypeProvider<ZodTypeProvider>()
    .get('/status', { schema: { tags: ['status'], response: { 200: Status } } }, async () => ({
      backup: await lastBackup(db),
    }))
}
