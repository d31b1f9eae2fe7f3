import { documentText, type YpsoDocument } from '@ypsometer/contract'
import { inArray } from 'drizzle-orm'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import type { Db, Tx } from '../db/client'
import { photo } from '../db/schema'
import { ProblemError, problem } from '../http/problems'
import { pictures, readPicture, type Picture } from '../photos/picture'
import type { Plain } from '../db/undo'

/** Content of an archive: a document, and its photos by their ids. */
export interface Archive {
  readonly text: string
  readonly photos: ReadonlyMap<string, Uint8Array>
}

const DOCUMENT = 'document.ypso.json'
const PHOTO = /^photos\/([0-9a-f-]{36})\.jpg$/
/**
 * Most bytes an archive, and the document in it, may come to when they are open: photos are not packed, so what is
 * much more than it was is no archive of ours. Held while it is opened: nothing grows beyond what it says it is.
 */
const MOST_OPEN = 256 * 1024 * 1024
const MOST_DOCUMENT = 64 * 1024 * 1024
/** Most entries of an archive: a document and its photos. */
const MOST_ENTRIES = 20_000
/** The same moment in every archive, so that the same rows give the same bytes. */
const MTIME = new Date('1990-01-01T00:00:00')

/** A document with the photos it names, as one file. */
export async function packed(db: Db, d: YpsoDocument): Promise<Uint8Array> {
  const ids = (d.rows.photos ?? []).map((p) => p.id)
  const rows = ids.length
    ? await db.select({ id: photo.id, full: photo.full }).from(photo).where(inArray(photo.id, ids))
    : []
  const files = Object.fromEntries(
    rows
      .sort((a, b) => (a.id < b.id ? -1 : 1))
      .map((r) => [`photos/${r.id}.jpg`, [new Uint8Array(r.full), { level: 0 as const }] as const]),
  )
  return zipSync({ [DOCUMENT]: strToU8(documentText(d)), ...files } as Parameters<typeof zipSync>[0], {
    mtime: MTIME,
  })
}

/** @throws a problem naming `archive` for what is no archive of this program, is cut, or is too large when open. */
export function unpacked(bytes: Uint8Array): Archive {
  const refuse: (message: string) => never = (message) => {
    throw problem(422, 'refused', 'The archive cannot be taken; nothing was written', {
      errors: [{ field: 'archive', message }],
    })
  }
  let open = 0
  let entries = 0
  let documentSize = 0
  let files: Record<string, Uint8Array>
  try {
    files = unzipSync(bytes, {
      filter: ({ name, originalSize }) => {
        open += originalSize
        entries++
        if (name === DOCUMENT) documentSize += originalSize
        const tooMuch = open > MOST_OPEN || documentSize > MOST_DOCUMENT || entries > MOST_ENTRIES
        return !tooMuch && (name === DOCUMENT || PHOTO.test(name))
      },
    })
  } catch {
    return refuse('a whole .ypso.zip: this one is cut off or was changed')
  }
  if (open > MOST_OPEN) return refuse(`at most ${MOST_OPEN / 1024 / 1024} MB when it is open`)
  if (documentSize > MOST_DOCUMENT) return refuse(`a document of at most ${MOST_DOCUMENT / 1024 / 1024} MB`)
  if (entries > MOST_ENTRIES) return refuse(`at most ${MOST_ENTRIES} entries`)
  const document = files[DOCUMENT]
  if (!document) return refuse(`an archive with ${DOCUMENT} in it`)
  const photos = Object.entries(files).flatMap(([name, data]) => {
    const id = PHOTO.exec(name)?.[1]
    return id ? [[id, data] as const] : []
  })
  return { text: strFromU8(document), photos: new Map(photos) }
}

/** Parts of a JPEG that this program writes: JFIF, tables, frame, scan. None says anything but the picture. */
const OURS: readonly number[] = [0xc0, 0xc2, 0xc4, 0xda, 0xdb, 0xdd, 0xe0]

/** Is it a JPEG of nothing but a picture: no words, places or profiles in it, nothing behind its end? */
export function isBare(bytes: Buffer): boolean {
  if (bytes.readUInt16BE(0) !== 0xffd8 || bytes.indexOf('ffd9', bytes.length - 2, 'hex') < 0) return false
  for (let at = 2; at + 4 <= bytes.length;) {
    const [mark, kind = 0] = [bytes[at], bytes[at + 1]]
    const length = bytes.readUInt16BE(at + 2)
    if (mark !== 0xff || !OURS.includes(kind)) return false
    if (kind === 0xe0 && (length !== 16 || bytes.toString('latin1', at + 4, at + 8) !== 'JFIF')) return false
    at += 2 + length
    if (kind !== 0xda) continue
    // What was scanned goes on until a mark that is neither stuffing nor a restart.
    for (; at + 1 < bytes.length; at++) {
      const next = bytes[at + 1] as number
      if (bytes[at] === 0xff && next !== 0 && !(next >= 0xd0 && next <= 0xd7)) break
    }
    if (bytes[at + 1] === 0xd9) return at + 2 === bytes.length
  }
  return false
}

/** A picture that this program has written stays byte for byte; any other is turned upright and written anew. */
async function pictureOf(bytes: Uint8Array): Promise<Picture> {
  const upload = Buffer.from(bytes)
  const picture = await readPicture(upload)
  if (upload.length < 4 || !isBare(upload)) return picture
  const { width, height } = await (await pictures())(upload).metadata()
  return width === picture.width && height === picture.height ? { ...picture, full: upload } : picture
}

/** Writes one photo of a document with its picture. Says what would be taken where there is none. */
export async function writePhoto(
  tx: Tx,
  row: Plain,
  bytes: Uint8Array | undefined,
  createdAt: Date | null,
): Promise<string | null> {
  if (!bytes) return 'its picture, in an archive (.ypso.zip)'
  try {
    const picture = await pictureOf(bytes)
    const { id, partId, trialId, visitId, caption } = row as unknown as typeof photo.$inferInsert
    await tx.insert(photo).values({
      id,
      partId,
      trialId,
      visitId,
      caption,
      bytes: picture.full.length,
      ...picture,
      ...(createdAt && { createdAt }),
    })
    return null
  } catch (error) {
    if (error instanceof ProblemError) return error.problem.errors?.[0]?.message ?? 'a whole picture'
    throw error
  }
}
