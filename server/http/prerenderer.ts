import { firstPage, PAGE_COOKIES } from '@ypsometer/contract/page'
import { looksAtTanks } from '@ypsometer/core/judging/stations'
import type { FastifyInstance, FastifyReply, FastifyRequest } from 'fastify'
import { LRUCache } from 'lru-cache'
import { createHash } from 'node:crypto'
import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { setTimeout as pause } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { promisify } from 'node:util'
import { brotliCompress, brotliDecompress, constants } from 'node:zlib'
import { Piscina } from 'piscina'
import { readElsewhere } from './elsewhere'

const here = typeof __dirname === 'string' ? __dirname : dirname(fileURLToPath(import.meta.url))
const BUILT = join(here, 'prerender.mjs')

/** A station of a dossier, by its address. */
const STATION = /^\/models\/([0-9a-f-]{36})\/([a-z]+)(?:\?|$)/
/** Where the app is put into its page, and what of that page is in the way of a picture. */
const PLACE = '<div id="root"></div>'
const THEME = '<script src="/theme.js"></script>'
const AHEAD = /<script src="\/ahead.js" async><\/script>|<link rel="modulepreload"[^>]*>/g
const APP = /<script type="module" crossorigin src="([^"]+)"><\/script>/
const SHEET = /<link rel="stylesheet" crossorigin href="([^"]+)">/

/** A page with a picture: what stands before it and after it, and its scripts and styles as the policy names them. */
interface Page {
  readonly before: string
  readonly after: string
  readonly scripts: readonly string[]
  readonly styles: readonly string[]
  /** The same as long as the build is. */
  readonly mark: string
}

/** A page with its picture by what it was made of, compressed. */
interface Kept {
  readonly key: string
  readonly page: Buffer
}
const compressed = promisify(brotliCompress)
const decompressed = promisify(brotliDecompress)
const BROTLI = { params: { [constants.BROTLI_PARAM_QUALITY]: 5 } }

const sha256 = (text: string): string => `'sha256-${createHash('sha256').update(text).digest('base64')}'`

/**
 * The page of the built app, made for a picture: the theme and the style sheet stand in it, and all that starts the app
 * waits until the picture has been painted. Null for a page that is not the app’s.
 */
function pageOf(webRoot: string): Page | null {
  const read = (file: string): string => readFileSync(join(webRoot, file), 'utf8')
  if (!['index.html', 'theme.js', 'begin.js'].every((f) => existsSync(join(webRoot, f)))) return null
  const index = read('index.html')
  const [app, sheet] = [APP.exec(index)?.[1], SHEET.exec(index)?.[1]]
  if (app === undefined || sheet === undefined) return null
  const style = read(sheet)
  const scripts = [read('theme.js'), read('begin.js')]
  const [theme = '', begin = ''] = scripts
  const [before, after] = index
    .replace(APP, '')
    .replace(AHEAD, '')
    .replace(SHEET, () => `<style>${style}</style>`)
    .replace(THEME, () => `<script>${theme}</script>`)
    .split(PLACE)
  if (before === undefined || after === undefined) return null
  return {
    before: `${before}<div id="root"><div id="picture" inert>`,
    after: `</div></div><script data-app="${app}">${begin}</script>${after}`,
    scripts: scripts.map(sha256),
    styles: [sha256(style)],
    mark: sha256(index),
  }
}

/** How long a page waits for its picture (ms), and how long one may take to be drawn at all. */
const WAITS = 200
const LONGEST = 10_000
/** A thread that nobody asked anything of for so long ends (ms). */
const IDLE = 30 * 60_000
/** Most memory of the thread that draws (MB). */
const MOST_MEMORY = 384
/** Pictures that are drawn or wait for it; whoever comes then draws their own. */
const MOST_DRAWN = 2
/** Pictures kept by a server process, those asked for last. */
const MOST_KEPT = 40
/** Dossiers beyond this length (characters of JSON) are drawn by the reader's own machine only. */
const LONGEST_DOSSIER = 600_000

/**
 * Draws the stations of a dossier into the page that the server sends, by the app's own components over its own
 * answers, so that numbers stand there before any code has come; the app takes their place as soon as it can. A page
 * is never late for its picture: one that is not there in time is left out, and there for the next.
 */
export class Prerenderer {
  private readonly page: Page | null
  private readonly kept = new LRUCache<string, Kept>({ max: MOST_KEPT })
  private readonly drawing = new Map<string, Promise<Kept | null>>()
  private readonly threads: Piscina | null

  /** @param webRoot Where the built web app is. */
  constructor(
    private readonly app: FastifyInstance,
    webRoot: string,
    drawer = BUILT,
  ) {
    this.page = pageOf(webRoot)
    this.threads = existsSync(drawer)
      ? new Piscina({
          filename: drawer,
          minThreads: 0,
          maxThreads: 1,
          idleTimeout: IDLE,
          resourceLimits: { maxOldGenerationSizeMb: MOST_MEMORY },
        })
      : null
  }

  /** The scripts and styles that stand in such a page, as its policy names them. */
  get named(): Pick<Page, 'scripts' | 'styles'> {
    return this.page ?? { scripts: [], styles: [] }
  }

  /** Answers with the page of an address and what stands there; null where nothing is drawn ahead. */
  async send(request: FastifyRequest, reply: FastifyReply): Promise<Buffer | null> {
    const [, id, station = ''] = STATION.exec(request.url) ?? []
    if (!this.page || !this.threads || readElsewhere(request.headers)) return null
    // Whoever has opened a page will open a station: the thread is read meanwhile.
    if (!id) return this.warm(this.threads)
    // What is drawn is said once more by the app.
    if (request.headers['save-data'] === 'on') return null
    // What waits on the reader's device is not known here.
    if (request.cookies[PAGE_COOKIES.waiting]) return null
    const drawn = this.drawn(request, id, station).catch((error: unknown) => this.without(error))
    const found = await Promise.race([drawn, pause(WAITS, null)])
    if (!found) return null
    reply.headers({
      'content-type': 'text/html; charset=utf-8',
      'cache-control': 'private, no-cache',
      vary: 'accept-encoding, cookie, save-data',
      etag: `W/"${found.key}"`,
    })
    if (!/\bbr\b/.test(request.headers['accept-encoding'] ?? '')) return decompressed(found.page)
    reply.header('content-encoding', 'br')
    return found.page
  }

  private async drawn(request: FastifyRequest, id: string, station: string): Promise<Kept | null> {
    const onTanks = looksAtTanks(station)
    const [me, opened, tanks] = await Promise.all(
      ['/me', `/models/${id}/opened`, ...(onTanks ? [firstPage('tanks')] : [])].map((path) =>
        this.asked(request, path),
      ),
    )
    if (!me || !opened || (onTanks && !tanks) || opened.length > LONGEST_DOSSIER) return null
    // Tanks that fill more than a page are read by the app.
    if (tanks && (JSON.parse(tanks) as { next: string | null }).next) return null
    const { cookies, url } = request
    const job = {
      address: url,
      me,
      opened,
      tanks,
      units: cookies[PAGE_COOKIES.units],
      decimal: cookies[PAGE_COOKIES.decimal],
      theme: cookies[PAGE_COOKIES.theme],
    }
    // Some of it is said of today.
    const hour = new Date().toISOString().slice(0, 13)
    const key = createHash('sha1')
      .update(JSON.stringify([job, hour, this.page?.mark]))
      .digest('base64')
    const before = this.kept.get(key)
    if (before) return before
    const under = this.drawing.get(key)
    if (under) return under
    if (!this.threads || this.drawing.size >= MOST_DRAWN) return null
    const cold = this.threads.threads.length === 0
    const drawing = this.draw(this.threads, key, job)
    this.drawing.set(key, drawing)
    return cold ? null : drawing
  }

  private async draw(threads: Piscina, key: string, job: object): Promise<Kept | null> {
    try {
      const picture = (await threads.run(job, { signal: AbortSignal.timeout(LONGEST) })) as string
      // An address where nothing stands.
      if (!picture) return null
      const { before = '', after = '' } = this.page ?? {}
      const kept = { key, page: await compressed(before + picture + after, BROTLI) }
      this.kept.set(key, kept)
      return kept
    } catch (error) {
      return this.without(error)
    } finally {
      this.drawing.delete(key)
    }
  }

  /** Has the thread read what it draws with. */
  private warm(threads: Piscina): null {
    if (!threads.threads.length) void threads.run(null).catch((error: unknown) => this.without(error))
    return null
  }

  private without(error: unknown): null {
    this.app.log.warn({ error }, 'A page could not be drawn ahead')
    return null
  }

  /** Answer of the API to this reader; null for a refusal. */
  private async asked({ headers, ip }: FastifyRequest, path: string): Promise<string | null> {
    const { cookie, authorization, host } = headers
    const answer = await this.app.inject({
      url: `/api/v1${path}`,
      remoteAddress: ip,
      headers: {
        ...(cookie !== undefined && { cookie }),
        ...(authorization !== undefined && { authorization }),
        ...(host !== undefined && { host }),
      },
    })
    return answer.statusCode === 200 ? answer.body : null
  }

  async close(): Promise<void> {
    await this.threads?.destroy()
  }
}
