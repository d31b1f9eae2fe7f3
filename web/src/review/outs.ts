import type { Length } from '@ypsometer/core/review/blocks'
import { strToU8, zipSync } from 'fflate'
import { save, standalone } from '../charts/ChartTools'
import bold from '@fontsource/alegreya-sans/files/alegreya-sans-latin-700-normal.woff2?url'
import regular from '@fontsource/alegreya-sans/files/alegreya-sans-latin-400-normal.woff2?url'
import { CARD, cardOf } from './card'
import type { ReviewDoc } from './document'
import { htmlOf } from './html'
import { markdownOf } from './markdown'
import { narrationOf } from './narration'
import { fileName, type Reader } from './text'

/** Ways out for a review. */
export interface Going {
  readonly doc: ReviewDoc
  readonly length: Length
  readonly reader: Reader
  /** Where a photo is read. */
  readonly photo: (id: string) => string
}

const idsOf = ({ doc }: Going): readonly string[] =>
  doc.sheet.sections.flatMap((s) =>
    s.blocks.flatMap((b) => (b.kind === 'photos' ? b.photos.map((p) => p.id) : [])),
  )

/** The section as it stands on the page, as a file of its own; null where none is shown. */
function drawn(): string | null {
  const svg = document.querySelector<SVGSVGElement>('[data-review-drawing] svg')
  return svg && standalone(svg)
}

/** Photos that can be had, as bytes; one that cannot is left out. */
async function photosOf(g: Going): Promise<ReadonlyMap<string, Uint8Array>> {
  const all = await Promise.all(
    idsOf(g).map(async (id) => {
      const answer = await fetch(g.photo(id)).catch(() => null)
      return answer?.ok ? ([id, new Uint8Array(await answer.arrayBuffer())] as const) : null
    }),
  )
  return new Map(all.filter((x) => x !== null))
}

const CHUNK = 0x8000
const base64 = (bytes: Uint8Array): string => {
  let text = ''
  for (let i = 0; i < bytes.length; i += CHUNK) text += String.fromCharCode(...bytes.subarray(i, i + CHUNK))
  return btoa(text)
}

function saveBlob(name: string, blob: Blob): void {
  const a = document.createElement('a')
  a.href = URL.createObjectURL(blob)
  a.download = name
  a.click()
  setTimeout(() => URL.revokeObjectURL(a.href), 1000)
}

const nameOf = (g: Going, ending: string): string =>
  `${fileName(g.doc.words.title || g.doc.sheet.name)}.${ending}`

/** One file with everything in it. */
export async function saveHtml(g: Going): Promise<void> {
  const photos = await photosOf(g)
  const photo = (id: string): string | null => {
    const bytes = photos.get(id)
    return bytes ? `data:image/jpeg;base64,${base64(bytes)}` : null
  }
  save(nameOf(g, 'html'), 'text/html', htmlOf(g.doc, g.length, g.reader, { drawing: drawn(), photo }))
}

/** Markdown with its pictures beside it, in one archive. */
export async function saveMarkdown(g: Going): Promise<void> {
  const photos = await photosOf(g)
  const drawing = drawn()
  const pictures = {
    drawing: drawing && 'section.svg',
    photo: (id: string): string | null => (photos.has(id) ? `photos/${id}.jpg` : null),
  }
  const files = {
    'review.md': strToU8(markdownOf(g.doc, g.length, g.reader, pictures)),
    ...(drawing && { 'section.svg': strToU8(drawing) }),
    ...Object.fromEntries([...photos].map(([id, bytes]) => [`photos/${id}.jpg`, bytes])),
  }
  saveBlob(
    nameOf(g, 'zip'),
    new Blob([zipSync(files) as Uint8Array<ArrayBuffer>], { type: 'application/zip' }),
  )
}

/** The snapshot as it is kept. */
export const saveJson = (g: Going, snapshot: object): void =>
  save(nameOf(g, 'json'), 'application/json', `${JSON.stringify(snapshot, null, 2)}\n`)

export const saveNarration = (g: Going): void =>
  save(nameOf(g, 'txt'), 'text/plain', narrationOf(g.doc, g.reader))

/** The app’s own type within a drawing, so that it looks the same wherever it is opened. */
async function fontsWithin(): Promise<string> {
  const face = async (url: string, weight: number): Promise<string> => {
    const answer = await fetch(url)
    const data = base64(new Uint8Array(await answer.arrayBuffer()))
    return `@font-face{font-family:'Alegreya Sans';font-weight:${weight};src:url(data:font/woff2;base64,${data})}`
  }
  return (await Promise.all([face(regular, 400), face(bold, 700)])).join('')
}

/** A card for a video or a page. */
export async function saveCard(g: Going, as: 'svg' | 'png'): Promise<void> {
  const svg = cardOf(g.doc, g.reader, await fontsWithin())
  if (as === 'svg') return save(nameOf(g, 'svg'), 'image/svg+xml', svg)
  const image = new Image()
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`
  await image.decode()
  const canvas = document.createElement('canvas')
  canvas.width = CARD.width
  canvas.height = CARD.height
  canvas.getContext('2d')?.drawImage(image, 0, 0)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (blob) saveBlob(nameOf(g, 'png'), blob)
}
