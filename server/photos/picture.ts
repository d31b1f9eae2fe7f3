import { fieldProblem } from '../http/problems'

/** Largest upload taken, in bytes, and largest picture, in pixels. */
export const MAX_UPLOAD = 20 * 1024 * 1024
const MAX_PIXELS = 80e6
const FULL = 2000
const THUMB = 320

export interface Picture {
  readonly full: Buffer
  readonly thumb: Buffer
  readonly width: number
  readonly height: number
}

/**
 * Library that reads and writes pictures: it takes a while to load, and most processes never ask. It keeps nothing of
 * one picture for the next, and works at one line of it at a time.
 */
export const pictures = async () => {
  const { default: sharp } = await import('sharp')
  sharp.cache(false)
  sharp.concurrency(1)
  return sharp
}

const TAKEN = ['jpeg', 'png', 'webp', 'heif', 'tiff', 'gif']

/**
 * Reads an upload by its content, whatever it is called, turns it upright and re-encodes it as JPEG without metadata:
 * at most 2000 px, and a thumbnail of 320 px.
 * @throws a problem naming `photo` when it is no picture, cut off midway, or too large.
 */
export async function readPicture(upload: Buffer): Promise<Picture> {
  if (!upload.length) throw fieldProblem('photo', 'a picture; the upload was empty')
  const sharp = await pictures()
  const open = () =>
    sharp(upload, { failOn: 'truncated', limitInputPixels: MAX_PIXELS, pages: 1, sequentialRead: true })
  let format: string | undefined
  try {
    format = (await open().metadata()).format
  } catch (error) {
    if (/pixel limit/i.test(String(error))) throw fieldProblem('photo', 'a picture of at most 80 megapixels')
  }
  if (!format || !TAKEN.includes(format))
    throw fieldProblem('photo', 'a photo such as JPEG, PNG or WebP; this file is none, whatever its name')
  try {
    const upright = await open()
      .rotate()
      .flatten({ background: '#ffffff' })
      .resize(FULL, FULL, { fit: 'inside', withoutEnlargement: true })
      .jpeg({ quality: 84 })
      .toBuffer({ resolveWithObject: true })
    const thumb = await sharp(upright.data)
      .resize(THUMB, THUMB, { fit: 'inside' })
      .jpeg({ quality: 78 })
      .toBuffer()
    return { full: upright.data, thumb, width: upright.info.width, height: upright.info.height }
  } catch {
    // The decoder shipped here reads HEIF containers but not their usual compression.
    if (format === 'heif')
      throw fieldProblem('photo', 'a JPEG, PNG or WebP; HEIC pictures cannot be opened here')
    throw fieldProblem('photo', 'a whole picture; this one is cut off midway or damaged. Send it again.')
  }
}
