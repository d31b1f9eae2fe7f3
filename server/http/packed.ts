import type { FastifyReply, FastifyRequest } from 'fastify'
import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'

const SHORTEN = {
  br: (text: string) => promisify(brotliCompress)(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 4 } }),
  gzip: (text: string) => promisify(gzip)(text),
} as const
type Encoding = keyof typeof SHORTEN

/** An answer that is put into words, named and shortened once, however many it goes to. */
export class Packed {
  readonly #json: string
  readonly #etag: string
  readonly #short = new Map<Encoding, Promise<Buffer>>()

  constructor(value: unknown) {
    this.#json = JSON.stringify(value)
    this.#etag = `W/"${createHash('sha1').update(this.#json).digest('base64url')}"`
  }

  /** Sends it as short as whoever asked takes it. */
  async send(request: FastifyRequest, reply: FastifyReply): Promise<FastifyReply> {
    const takes = request.headers['accept-encoding'] ?? ''
    const encoding = /\bbr\b/.test(takes) ? 'br' : /\bgzip\b/.test(takes) ? 'gzip' : null
    reply.type('application/json; charset=utf-8').header('etag', this.#etag).header('vary', 'accept-encoding')
    if (!encoding || request.headers['if-none-match'] === this.#etag) return reply.send(this.#json)
    const short = this.#short.get(encoding) ?? SHORTEN[encoding](this.#json)
    this.#short.set(encoding, short)
    return reply.header('content-encoding', encoding).send(await short)
  }
}
