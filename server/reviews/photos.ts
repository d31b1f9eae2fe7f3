import type { Snapshot } from '@ypsometer/contract/review'
import { inArray } from 'drizzle-orm'
import type { Tx } from '../db/client'
import { photo, reviewPhoto } from '../db/schema'

/** The photos that a sheet names, kept as they are now. */
export async function keepPhotos(tx: Tx, reviewId: string, { sheet }: Snapshot): Promise<void> {
  const ids = sheet.sections.flatMap((s) =>
    s.blocks.flatMap((b) => (b.kind === 'photos' ? b.photos.map((p) => p.id) : [])),
  )
  if (!ids.length) return
  const rows = await tx
    .select({ photoId: photo.id, full: photo.full })
    .from(photo)
    .where(inArray(photo.id, ids))
  if (rows.length)
    await tx
      .insert(reviewPhoto)
      .values(rows.map((r) => ({ reviewId, ...r })))
      .onConflictDoNothing()
}
